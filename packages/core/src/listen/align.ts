import type { Cut } from './cuts.ts';
import { pitchAt, type ExpectedEvent } from './expected.ts';

/** A line from the time of the piece to the time of the recording: seconds = start + each × seconds of the piece. */
export interface TimeLine {
  readonly start: number;
  readonly each: number;
}

/** Which cut is which event. */
export interface Alignment {
  /** The cut of each event; null where there is none. */
  readonly cutOf: readonly (number | null)[];
  /** When each event should have come, by the events around it; seconds of the recording. */
  readonly due: readonly number[];
  /** The tempo as a whole. */
  readonly line: TimeLine;
  readonly cost: number;
}

/** Tempos that are tried, against the one asked for, and which of the first events falls on which of the first cuts. Source: our experiments. */
const TEMPOS = [0.72, 0.85, 1, 1.15, 1.35] as const;
const FIRST = 3;
/** Cost of an event that is not there, and of a cut that is nothing; of a whole wrong pitch; how far off one counts as much, seconds; of another tempo, a factor of e. Our choice. */
const COST = { missing: 1.3, spare: 0.9, pitch: 1.05, off: 1, tempo: 3, wide: 0.16, narrow: 0.09 } as const;
/** An event is never laid on a cut so many widths away. */
const FAR_WIDTHS = 2.6;
/** A step of pitch without an attack is spare more cheaply, and so is a weak attack that brings nothing new. */
const FAINT = 0.35;
const WEAK = 1.6;
/** Events of so many seconds around say when one is due. Our choice. */
const AROUND_SECONDS = 3.5;

/**
 * Lays events on cuts; `sounds` tells whether the lowest note of an event can be found after a cut: dynamic programming from each of the starts, then again along a line through what was found. Of starts ×
 * events × cuts. Source: Needleman & Wunsch 1970 for the programme.
 */
export function alignEvents(
  events: readonly ExpectedEvent[],
  cuts: readonly Cut[],
  sounds: (event: ExpectedEvent, cut: Cut) => boolean,
): Alignment {
  const pair = { events, cuts, unlike: unlikeness(events, cuts, sounds) };
  let best: Alignment | undefined;
  for (const line of startsOf(events, cuts)) {
    const due = events.map(({ seconds }) => line.start + line.each * seconds);
    const first = layOn(pair, due, COST.wide);
    const fitted = refit(pair, first, line);
    const second = layOn(pair, fitted.due, COST.wide / 1.6);
    const cost = second.cost + COST.tempo * Math.abs(Math.log(fitted.line.each));
    if (!best || cost < best.cost) best = { ...second, ...refit(pair, second, fitted.line), cost };
  }
  if (!best)
    return {
      cutOf: events.map(() => null),
      due: events.map(({ seconds }) => seconds),
      line: { start: 0, each: 1 },
      cost: 0,
    };
  for (let turn = 0; turn < 2; turn += 1) {
    const laid = layOn(pair, best.due, COST.narrow);
    best = { ...laid, ...refit(pair, laid, best.line) };
  }
  return best;
}

function startsOf(events: readonly ExpectedEvent[], cuts: readonly Cut[]): readonly TimeLine[] {
  return TEMPOS.flatMap((each) =>
    events
      .slice(0, FIRST)
      .flatMap(({ seconds }) => cuts.slice(0, FIRST).map((cut) => ({ start: cut.seconds - each * seconds, each }))),
  );
}

/** What a note costs that sounds beside another; it is looked for where events and cuts lie so near, as a share of the whole. Our choice. */
const COVERED_COST = 0.25;
const NEAR_SHARE = 0.35;

/** Events, cuts, and how unlike each pair of them is: a row an event. */
interface Pair {
  readonly events: readonly ExpectedEvent[];
  readonly cuts: readonly Cut[];
  readonly unlike: Float32Array;
}

/** Where the tracker says another pitch, the one asked for may sound under a note that rings on; then it is looked for. */
function unlikeness(
  events: readonly ExpectedEvent[],
  cuts: readonly Cut[],
  sounds: (event: ExpectedEvent, cut: Cut) => boolean,
): Float32Array {
  const unlike = new Float32Array(events.length * cuts.length);
  events.forEach((event, e) => {
    cuts.forEach((cut, c) => {
      const cost = pitchCost(event, cut);
      const near = Math.abs(e / Math.max(1, events.length) - c / Math.max(1, cuts.length)) < NEAR_SHARE;
      unlike[e * cuts.length + c] = cost > COVERED_COST && near && sounds(event, cut) ? COVERED_COST : cost;
    });
  });
  return unlike;
}

interface Laid {
  readonly cutOf: readonly (number | null)[];
  readonly cost: number;
}

/** The cheapest way to lay events on cuts, both in order. */
function layOn({ events, cuts, unlike }: Pair, due: readonly number[], width: number): Laid {
  const wide = cuts.length + 1;
  const costs = new Float64Array((events.length + 1) * wide);
  const moves = new Uint8Array(costs.length);
  for (let c = 1; c <= cuts.length; c += 1) {
    costs[c] = (costs[c - 1] ?? 0) + spareCost(cuts[c - 1]) * 0.5;
    moves[c] = 2;
  }
  events.forEach((event, e) => {
    const row = (e + 1) * wide;
    const missing = event.struck ? COST.missing : 0.5;
    costs[row] = (costs[row - wide] ?? 0) + missing;
    moves[row] = 1;
    for (let c = 1; c <= cuts.length; c += 1) {
      const cut = cuts[c - 1];
      if (!cut) continue;
      const skipEvent = (costs[row - wide + c] ?? 0) + missing;
      const isAfter = e === events.length - 1;
      const skipCut = (costs[row + c - 1] ?? 0) + spareCost(cut) * (isAfter ? 0.5 : 1);
      const off = (cut.seconds - (due[e] ?? 0)) / width;
      const far = Math.abs(off) > FAR_WIDTHS ? Infinity : Math.min(COST.off, off * off);
      const match = (costs[row - wide + c - 1] ?? 0) + far + COST.pitch * (unlike[e * cuts.length + c - 1] ?? 0);
      const least = Math.min(match, skipEvent, skipCut);
      costs[row + c] = least;
      moves[row + c] = least === match ? 0 : least === skipEvent ? 1 : 2;
    }
  });
  const cutOf: (number | null)[] = events.map(() => null);
  let e = events.length;
  let c = cuts.length;
  while (e > 0 || c > 0) {
    const move = moves[e * wide + c];
    if (move === 0) cutOf[(e -= 1)] = c -= 1;
    else if (move === 1) e -= 1;
    else c -= 1;
  }
  return { cutOf, cost: costs.at(-1) ?? 0 };
}

/** What it costs that a cut is nothing: the stronger its attack, the more. */
function spareCost(cut: Cut | undefined): number {
  if (!cut || cut.strength === 0) return COST.spare * FAINT;
  if (cut.again && cut.strength < WEAK) return COST.spare * FAINT;
  return COST.spare * Math.min(2.2, Math.max(0.45, cut.strength / 2.5));
}

/** Nothing so low is played. */
export const LOWEST_MIDI = 33;

/** How unlike what sounds is to what should, 0 to 1. */
export function pitchCost({ notes }: ExpectedEvent, { midi, voiced, seconds, until }: Cut): number {
  if (notes.length === 0) return voiced > 0.6 ? 0.5 : 0.1;
  // A tracker that says less than any string sounds has heard two notes at once.
  if (Number.isNaN(midi) || midi < LOWEST_MIDI) return 0.35;
  const middle = Math.min(0.16, (until - seconds) / 2);
  const off = Math.min(
    ...notes.map((note) => Math.min(Math.abs(pitchAt(note, middle) - midi), Math.abs(pitchAt(note, 0.03) - midi))),
  );
  const octave = Math.abs(off - 12) < 0.4 || Math.abs(off - 19) < 0.4 || Math.abs(off - 24) < 0.4;
  if (notes.length > 1) return Math.min(off / 3, octave ? 0.2 : 0.4);
  return Math.min(1, Math.max(0, off - 0.35) / 1.2) * (octave ? 0.55 : 1);
}

/** When each event is due, by a line through the events around it that were found. */
function refit(
  { events, cuts, unlike }: Pair,
  { cutOf }: Laid,
  from: TimeLine,
): { due: readonly number[]; line: TimeLine } {
  const points = events.flatMap((event, index) => {
    const cut = cuts[cutOf[index] ?? -1];
    return cut
      ? [
          {
            x: event.seconds,
            y: cut.seconds,
            weight: (unlike[index * cuts.length + (cutOf[index] ?? 0)] ?? 1) < 0.3 ? 1 : 0.2,
          },
        ]
      : [];
  });
  const line = lineThrough(points, from, FIRM_SECONDS);
  const due = events.map(({ seconds }) => {
    const near = points.filter(({ x }) => Math.abs(x - seconds) < 2 * AROUND_SECONDS);
    const around = near.map((point) => ({
      ...point,
      weight: point.weight * Math.exp(-(((point.x - seconds) / AROUND_SECONDS) ** 2)),
    }));
    const local = lineThrough(around, line, PRIOR_SECONDS);
    return local.start + local.each * seconds;
  });
  return { due, line };
}

interface Point {
  readonly x: number;
  readonly y: number;
  readonly weight: number;
}

/** The line through points by weighted least squares, pulled toward the tempo of another where they are few; points far off count less. */
function lineThrough(points: readonly Point[], prior: TimeLine, firmSeconds: number): TimeLine {
  if (points.length === 0) return prior;
  let line = prior;
  let weights = points.map(({ weight }) => weight);
  for (let turn = 0; turn < 7; turn += 1) {
    const sum = weights.reduce((all, one) => all + one, 0) || 1;
    const meanX = points.reduce((all, { x }, index) => all + x * (weights[index] ?? 0), 0) / sum;
    const meanY = points.reduce((all, { y }, index) => all + y * (weights[index] ?? 0), 0) / sum;
    let xx = firmSeconds ** 2;
    let xy = prior.each * xx;
    points.forEach(({ x, y }, index) => {
      xx += (weights[index] ?? 0) * (x - meanX) ** 2;
      xy += (weights[index] ?? 0) * (x - meanX) * (y - meanY);
    });
    const each = xy / xx;
    line = { start: meanY - each * meanX, each };
    const { start } = line;
    weights = points.map(({ x, y, weight }) => weight / (1 + ((y - start - each * x) / ROBUST_SECONDS) ** 2));
  }
  return line;
}

/** A point so far off counts half. Our choice: somewhat more than a steady hand is off by. */
const ROBUST_SECONDS = 0.03;

/** How much the tempo so far weighs against points: as one so many seconds away. Our choice. */
const PRIOR_SECONDS = 1.2;
const FIRM_SECONDS = 0.1;
