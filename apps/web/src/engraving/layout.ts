import { ticksOfTimed, type ScoreBar, type ScoreEvent } from '@jam-ledger/core/notation';

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
  sidePadding: 4,
  clefWidth: 26,
  meterWidth: 22,
  repeatWidth: 16,
  barPadding: 14,
} as const;

/** What a system needs above its stave and below its stems: which rows are used. */
export interface Rows {
  readonly passes: boolean;
  readonly words: boolean;
  readonly chords: boolean;
  readonly bends: boolean;
  readonly spans: boolean;
  readonly hands: boolean;
  readonly tuplets: boolean;
}

/** Bars set on one line, with the width each gets. */
export interface SystemPlan {
  readonly bars: readonly ScoreBar[];
  readonly widths: readonly number[];
  readonly first: boolean;
  readonly rows: Rows;
}

/** A last line fuller than this share is spread to the full width like the others. */
const SPREAD_FROM = 0.72;

/** Breaks bars into systems no wider than `width`; a bar wider than that gets a line to itself. */
export function planSystems(bars: readonly ScoreBar[], width: number): readonly SystemPlan[] {
  const lines: ScoreBar[][] = [];
  let used = 0;
  for (const bar of bars) {
    const line = lines.at(-1);
    const needs = barWidth(bar);
    const room = width - 2 * SIZES.sidePadding - SIZES.clefWidth;
    if (!line || used + needs > room) {
      lines.push([bar]);
      used = needs;
    } else {
      line.push(bar);
      used += needs;
    }
  }
  return lines.map((line, index) => planLine(line, width, index === 0, index === lines.length - 1));
}

function planLine(bars: readonly ScoreBar[], width: number, first: boolean, last: boolean): SystemPlan {
  const room = width - 2 * SIZES.sidePadding - SIZES.clefWidth;
  const natural = bars.map(barWidth);
  const total = natural.reduce((sum, one) => sum + one, 0);
  const spread = total > room || !last || total > room * SPREAD_FROM;
  const widths = spread ? natural.map((one) => (one * room) / total) : natural;
  return { bars, widths: widths.map(Math.floor), first, rows: rowsOf(bars) };
}

/** The width a bar wants: its events by length, and room for what is drawn beside them. */
export function barWidth(bar: ScoreBar): number {
  const signs =
    (bar.showMeter ? SIZES.meterWidth : 0) +
    (bar.repeatStart ? SIZES.repeatWidth : 0) +
    (bar.repeatEnd ? SIZES.repeatWidth : 0);
  return bar.events.reduce((sum, event) => sum + eventWidth(event), SIZES.barPadding + signs);
}

function eventWidth(event: ScoreEvent): number {
  const notes = event.item?.notes ?? [];
  const time = event.values.reduce((sum, value) => sum + 11 + 6.4 * Math.log2(1 + ticksOfTimed(value) / 1260), 0);
  const bends = Math.max(
    0,
    ...notes.map((note) => 12 * ((note.moves?.length ?? 0) + (note.preBend === undefined ? 0 : 1))),
  );
  const extras =
    (notes.some((note) => note.trill !== undefined || note.harmonic !== undefined || note.fret === null) ? 8 : 0) +
    (event.item?.slideIn ? 10 : 0) +
    (event.item?.slideOut ? 12 : 0) +
    event.graces.length * 20;
  const chord = typeof event.chord === 'string' ? event.chord.length * 7 + 6 : 0;
  return Math.max(time + bends + extras, chord, 0);
}

function rowsOf(bars: readonly ScoreBar[]): Rows {
  const events = bars.flatMap((bar) => bar.events);
  const notes = events.flatMap((event) => event.item?.notes ?? []);
  const hands = ['down', 'up', 'rake', 'rolled', 'tremolo'];
  return {
    passes: bars.some((bar) => bar.passes ?? bar.tempo ?? bar.feel ?? bar.repeatEnd),
    words: events.some((event) => event.words.length > 0 || event.sureness !== null),
    chords: events.some((event) => event.chord !== undefined || event.barre !== null),
    bends: notes.some((note) => note.moves ?? note.preBend ?? note.vibrato ?? note.dip ?? note.trill ?? note.harmonic),
    spans: events.some(({ marks }) => marks.some((mark) => mark === 'palm-mute' || mark === 'let-ring')),
    hands:
      notes.some((note) => note.finger) ||
      events.some(
        ({ marks, item }) =>
          item?.link === 'tap' || marks.some((mark) => hands.includes(mark) || mark.startsWith('plucked')),
      ),
    tuplets: events.some(({ values }) => values.some((value) => value.tuplet !== undefined)),
  };
}

/** Room above the first string's line. */
export function headroom(rows: Rows): number {
  const { rowGap } = SIZES;
  const used = [rows.passes, rows.words, rows.chords].filter(Boolean).length;
  return 14 + used * rowGap + (rows.bends ? 34 : 0);
}

/** Room below the last string's line. */
export function footroom(rows: Rows): number {
  const { rowGap, stemSpace } = SIZES;
  const used = [rows.tuplets, rows.hands, rows.spans].filter(Boolean).length;
  return stemSpace + used * rowGap + 4;
}
