import { ticksOfTimed, type ScoreBar, type ScoreEvent, type TimedValue } from '@jam-ledger/core/notation';
import { MARK_DRAWINGS } from './markDrawings.ts';
import { SIZES } from './sizes.ts';

/** What a system needs above its stave and below its stems: which rows are used. */
export interface Rows {
  readonly passes: boolean;
  readonly words: boolean;
  readonly sure: boolean;
  readonly chords: boolean;
  readonly bends: boolean;
  readonly spans: boolean;
  readonly hands: boolean;
  /** How many fingers stand under one another at most. */
  readonly fingers: number;
  readonly swells: boolean;
  readonly degrees: boolean;
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

/** Room that bars may fill on a line of some width, behind clef or tab word. Pixels. */
export function lineRoom(width: number, head: number): number {
  return width - 2 * SIZES.sidePadding - head;
}

/** Breaks bars into lines no wider than the room; a bar wider than that gets a line to itself. */
export function breakLines(bars: readonly ScoreBar[], room: number): readonly (readonly ScoreBar[])[] {
  const lines: ScoreBar[][] = [];
  let used = 0;
  for (const bar of bars) {
    const line = lines.at(-1);
    const needs = barWidth(bar);
    if (line && used + needs <= room) line.push(bar);
    else lines.push([bar]);
    used = line && used + needs <= room ? used + needs : needs;
  }
  return lines;
}

/** Lays broken lines out as systems that fill the room; a last line that is nearly empty stays ragged. */
export function planSystems(lines: readonly (readonly ScoreBar[])[], room: number): readonly SystemPlan[] {
  return lines.map((line, index) => planLine(line, room, index === 0, index === lines.length - 1));
}

/** All bars on one line, each as wide as it wants to be, and the width of that line. */
export function planStrip(
  bars: readonly ScoreBar[],
  head: number = SIZES.clefWidth,
): { readonly systems: readonly SystemPlan[]; readonly width: number } {
  if (bars.length === 0) return { systems: [], width: 0 };
  const widths = bars.map((bar) => Math.ceil(barWidth(bar)));
  const width = widths.reduce((sum, one) => sum + one, 2 * SIZES.sidePadding + head);
  return { systems: [{ bars, widths, first: true, rows: rowsOf(bars) }], width };
}

function planLine(bars: readonly ScoreBar[], room: number, first: boolean, last: boolean): SystemPlan {
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
  const events = bar.events.reduce((sum, event) => sum + eventWidth(event), 0);
  return Math.max(SIZES.barPadding + signs + closingWidth(bar) + events, passesWidth(bar));
}

/** How often a bar that ends a repeat is heard, in words; empty for others. */
export function sayTimes({ repeatEnd }: ScoreBar): string {
  if (!repeatEnd) return '';
  return repeatEnd.open ? `about ${repeatEnd.times}×, to taste` : `${repeatEnd.times}×`;
}

/** Room of what is said of passes over a bar, tempo and feel before it, and how often it is heard behind it. Pixels. */
function passesWidth(bar: ScoreBar): number {
  const label = bar.passes?.begins ? 14 + bar.passes.label.length * 5.6 : 0;
  const before = label > 0 && (bar.tempo !== undefined || bar.feel !== undefined) ? BEFORE_PASSES : 0;
  const times = sayTimes(bar);
  return before + label + (times === '' ? 0 : times.length * 6 + 10);
}

/** Room of tempo and feel before what is said of passes. Pixels. */
export const BEFORE_PASSES = 80;

/** Room for what stands behind the last event of a bar; words reach as far back as they are long. Pixels. */
export function closingWidth({ closing, events }: ScoreBar): number {
  if (!closing) return 0;
  const words = closing.words.join(WORDS_BETWEEN);
  const width = Math.max(chordWidth(closing), Math.min(words === '' ? 0 : wordsWidth(words), MAX_CLOSING));
  const last = events.at(-1);
  // Words over the last event come first.
  const before = last && words !== '' && last.words.length > 0 ? wordsWidth(last.words.join(WORDS_BETWEEN)) : 0;
  return width + Math.max(0, before - (last ? eventWidth(last) : 0));
}

/** About how wide words are. Pixels. */
export function wordsWidth(words: string): number {
  return words.length * 5.6 + 6;
}

/** Words of one place stand behind one another with this between them. */
export const WORDS_BETWEEN = ' · ';
/** Widest room that words at the end get for themselves; longer ones reach over the notes before. Pixels. */
const MAX_CLOSING = 160;

function eventWidth(event: ScoreEvent): number {
  const time = event.values.reduce((sum, value) => sum + valueWidth(value), 0);
  return Math.max(time + roomBefore(event) + roomBehind(event), chordWidth(event), degreesWidth(event));
}

/** Width of the chord symbol over an event, 0 where none changes. Pixels. */
export function chordWidth({ chord }: Pick<ScoreEvent, 'chord'>): number {
  return typeof chord === 'string' ? chord.length * 7 + 6 : 0;
}

/** Width of the degrees under an event, 0 where none are shown. Pixels. */
function degreesWidth({ degrees = '' }: ScoreEvent): number {
  return degrees === '' ? 0 : degrees.length * 6 + 6;
}

/** Room that a written value wants for its time: longer notes get more, but not in proportion. Pixels. */
export function valueWidth(value: TimedValue): number {
  return 11 + 6.4 * Math.log2(1 + ticksOfTimed(value) / 1260);
}

/** Room that an event wants left of its frets, for grace notes and slides into it. Pixels. */
export function roomBefore({ item, graces }: ScoreEvent): number {
  return (item?.slideIn ? 10 : 0) + graces.length * 20;
}

/** Room that an event wants right of its frets, for bends, wider signs and slides away. Pixels. */
export function roomBehind({ item }: ScoreEvent): number {
  const notes = item?.notes ?? [];
  const bends = notes.map(({ moves, preBend, again }) => BEND_WIDTH * bendMoves(moves, preBend ?? again));
  const arm = ARM_WIDTH * Math.max(0, (item?.arm?.length ?? 0) - 1);
  const wide = notes.some((note) => note.trill !== undefined || note.harmonic !== undefined || note.fret === null);
  return Math.max(arm, ...bends) + (wide ? 8 : 0) + (item?.slideOut ? 12 : 0);
}

/** From one move of the tremolo arm to the next. Pixels. */
export const ARM_WIDTH = 16;

/** Room that one bend or release of a chain wants. Pixels. */
const BEND_WIDTH = 17;

function bendMoves(moves: readonly unknown[] | undefined, upright: number | undefined): number {
  return (moves?.length ?? 0) + (upright === undefined ? 0 : 0.6);
}

function rowsOf(bars: readonly ScoreBar[]): Rows {
  const events = bars.flatMap((bar) => bar.events);
  const closings = bars.flatMap(({ closing }) => closing ?? []);
  const notes = events.flatMap((event) => event.item?.notes ?? []);
  const isDrawn = (at: 'hands' | 'span') =>
    events.some(({ marks }) => marks.some((mark) => MARK_DRAWINGS[mark].at === at));
  return {
    passes: bars.some((bar) => bar.passes ?? bar.tempo ?? bar.feel ?? bar.repeatEnd),
    words: [...events, ...closings].some(({ words }) => words.length > 0),
    sure: events.some((event) => event.sureness !== null),
    chords:
      events.some(({ barre }) => barre !== null) || [...events, ...closings].some(({ chord }) => chord !== undefined),
    bends:
      events.some(({ item }) => item?.arm) ||
      notes.some((note) => note.moves ?? note.preBend ?? note.again ?? note.vibrato ?? note.trill ?? note.harmonic),
    spans: isDrawn('span'),
    swells: events.some(({ swell }) => swell !== undefined),
    degrees: events.some(({ degrees }) => degrees !== undefined),
    hands:
      isDrawn('hands') ||
      notes.some((note) => note.finger ?? note.plucked) ||
      events.some(({ item }) => item?.link === 'tap'),
    fingers: Math.max(0, ...events.map(({ item }) => item?.notes.filter(({ finger }) => finger).length ?? 0)),
    tuplets: events.some(({ values }) => values.some((value) => value.tuplet !== undefined)),
  };
}

/** Room above the first string's line. */
export function headroom(rows: Rows): number {
  const { rowGap } = SIZES;
  const used = [rows.passes, rows.words, rows.sure, rows.chords].filter(Boolean).length;
  return 14 + used * rowGap + (rows.bends ? SIZES.bendSpace : 0);
}

/** Room below the last string's line. */
export function footroom(rows: Rows): number {
  const { rowGap, stemSpace } = SIZES;
  const used = [rows.tuplets, rows.hands, rows.swells, rows.spans, rows.degrees].filter(Boolean).length;
  return stemSpace + used * rowGap + fingersBelow(rows) + 7;
}

/** Room that fingers under the first of a stack want. Pixels. */
function fingersBelow({ fingers }: Rows): number {
  return Math.max(0, fingers - 1) * SIZES.fingerGap;
}

/** The heights of a system's rows. Pixels. */
export interface RowHeights {
  readonly passes: number;
  readonly words: number;
  readonly sure: number;
  readonly chords: number;
  readonly bendTop: number;
  readonly staveTop: number;
  readonly staveBottom: number;
  readonly tuplets: number;
  readonly hands: number;
  readonly swells: number;
  readonly spans: number;
  readonly degrees: number;
}

/** Stacks the rows that are used above and below a stave. */
export function rowHeights(rows: Rows, staveTop: number, staveBottom: number, staffHeight: number): RowHeights {
  const gap = SIZES.rowGap;
  const bendTop = staveTop - (rows.bends ? SIZES.bendSpace : 0);
  const chords = bendTop - staffHeight - 8;
  const sure = chords - (rows.chords ? gap : 0);
  const words = sure - (rows.sure ? gap : 0);
  const passes = words - (rows.words ? gap : 0);
  const tuplets = staveBottom + SIZES.stemSpace + gap - 5;
  const hands = tuplets + 3 + (rows.tuplets ? gap : 0);
  const swells = hands + (rows.hands ? gap : 0) + fingersBelow(rows);
  const spans = swells + (rows.swells ? gap : 0);
  const degrees = spans + (rows.spans ? gap : 0);
  return { passes, words, sure, chords, bendTop, staveTop, staveBottom, tuplets, hands, swells, spans, degrees };
}
