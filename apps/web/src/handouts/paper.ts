/** Papers that a handout is made for. Source: ISO 216 (A4); ANSI/ASME Y14.1 (Letter). Millimetres. */
export const PAPERS = {
  A4: { label: 'A4', width: 210, height: 297 },
  Letter: { label: 'Letter', width: 215.9, height: 279.4 },
} as const;
/** The name of a paper. */
export type PaperName = keyof typeof PAPERS;

/** Room around what is printed, millimetres. Our choice: what every printer leaves. */
export const MARGIN_MM = 14;
/** Room at the foot of a page for its number, millimetres. */
export const FOOT_MM = 8;
const PX_PER_MM = 96 / 25.4;

/** A paper in pixels at 96 to the inch: the whole of it, and what is printed on. */
export function paperPixels(name: PaperName) {
  const { width, height } = PAPERS[name];
  return {
    width: width * PX_PER_MM,
    height: height * PX_PER_MM,
    margin: MARGIN_MM * PX_PER_MM,
    inner: (width - 2 * MARGIN_MM) * PX_PER_MM,
    innerHeight: (height - 2 * MARGIN_MM - FOOT_MM) * PX_PER_MM,
  };
}
