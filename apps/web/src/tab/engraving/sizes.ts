/** The type of frets and marks; quoted, since a bare 3 is no name. */
export const MARK_FONT = '"Source Sans 3 Variable"';

/** Sizes on the page, in pixels at 100 %. Our choice, looked at. */
export const SIZES = {
  lineGap: 12,
  fretFont: 12.5,
  markFont: 11,
  smallFont: 10,
  stemSpace: 40,
  rowGap: 15,
  fingerGap: 10,
  bendSpace: 42,
  sidePadding: 4,
  clefWidth: 26,
  meterWidth: 22,
  repeatWidth: 16,
  barPadding: 14,
} as const;
