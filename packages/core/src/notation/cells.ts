import type { Phrase, Span } from './model.ts';
import { unroll, type TimedEvent } from './unroll.ts';
import { barTicks, sayPlace, TICKS_PER_WHOLE } from './values.ts';

/** A few events that come again and again at once, against the bar. */
export interface CrossCell {
  /** From the first of its events to the last. */
  readonly span: Span;
  /** Events in the cell, and how often it comes. */
  readonly events: number;
  readonly times: number;
  /** After so many beats it begins on a beat again, and after so many bars on a bar line. */
  readonly beats: number;
  readonly bars: number;
  /** Where it breaks off, `bar 2, beat 4`; undefined where it goes on to the end. */
  readonly breaksOff: string | undefined;
}

/** Longest cell, events, and fewest times that make one. Our choice. */
const MAX_EVENTS = 7;
const MIN_TIMES = 3;

/**
 * Cells that are repeated against the bar, in playing order: neither does a whole number of them fill a bar, nor the other way round.
 * Where only the order is known there are none. Linear.
 */
export function crossCells(phrase: Phrase): readonly CrossCell[] {
  const { events, bars } = unroll(phrase);
  if (events.some(({ timed }) => !timed)) return [];
  const texts = events.map(textOf);
  const found: CrossCell[] = [];
  for (let from = 0; from < events.length;) {
    const run = longestRun(texts, from);
    const cell = run && cellOf(events, { from, ...run, bars });
    if (cell) found.push(cell);
    from += cell ? run.length : 1;
  }
  return found;
}

function textOf({ item, length }: TimedEvent): string {
  const notes = item?.notes.map(({ string, fret }) => `${string}.${fret ?? 'x'}`) ?? [];
  return `${notes.join('+')} ${length}`;
}

/** The longest stretch from an event on that repeats its first few, by the shortest such cell. */
function longestRun(
  texts: readonly string[],
  from: number,
): { readonly cell: number; readonly length: number } | undefined {
  let best = { cell: 0, length: 0 };
  // One event over and over is no cell, and neither is a longer one made of it.
  if (texts[from] === texts[from + 1] && texts[from] === texts[from + 2]) return undefined;
  for (let cell = 2; cell <= MAX_EVENTS; cell += 1) {
    let length = cell;
    while (from + length < texts.length && texts[from + length] === texts[from + length - cell]) length += 1;
    if (length >= cell * MIN_TIMES && length > best.length) best = { cell, length };
  }
  return best.length > 0 ? best : undefined;
}

function cellOf(
  events: readonly TimedEvent[],
  run: {
    readonly from: number;
    readonly cell: number;
    readonly length: number;
    readonly bars: ReturnType<typeof unroll>['bars'];
  },
): CrossCell | undefined {
  const { from, cell, length, bars } = run;
  const first = events[from];
  const bar = bars[first?.bar ?? -1];
  const last = events[from + length - 1];
  if (!first || !last || !bar) return undefined;
  const ticks = events.slice(from, from + cell).reduce((sum, one) => sum + one.length, 0);
  const [beat, whole] = [TICKS_PER_WHOLE / bar.meter.unit, barTicks(bar.meter)];
  if (ticks === 0 || whole % ticks === 0 || ticks % whole === 0) return undefined;
  const after = events[from + length];
  const afterBar = after && bars[after.bar];
  return {
    span: { from: first.span.from, to: last.span.to },
    events: cell,
    times: Math.floor(length / cell),
    beats: together(ticks, beat) / beat,
    bars: together(ticks, whole) / whole,
    breaksOff:
      after && afterBar
        ? sayPlace({ timed: true, bar: after.bar + 1, at: after.at - afterBar.at, meter: afterBar.meter, note: 0 })
        : undefined,
  };
}

/** The least common multiple of two whole numbers above 0. */
function together(a: number, b: number): number {
  let [x, y] = [a, b];
  while (y > 0) [x, y] = [y, x % y];
  return (a / x) * b;
}

/** A cell in a sentence. */
export function sayCell({ events, times, beats, bars, breaksOff }: CrossCell): string {
  const count = (number: number, unit: string) => `${number} ${unit}${number === 1 ? '' : 's'}`;
  const end = breaksOff === undefined ? 'it goes on to the end' : `it breaks off at ${breaksOff}`;
  return `A cell of ${events} events, ${times} times against the bar: with the beat again after ${count(beats, 'beat')}, with the bar after ${count(bars, 'bar')}; ${end}.`;
}
