import type { Meter } from '../notation/index.ts';

/** A tempo that holds from a bar on. Bars count from 0; quarter notes a minute. */
export interface TempoMark {
  readonly bar: number;
  readonly bpm: number;
}

/** A meter that holds from a bar on. Bars count from 0. */
export interface MeterMark {
  readonly bar: number;
  readonly meter: Meter;
}

/** A song’s clock: its tempos and meters, each list beginning at bar 0, and where bar 0 lies, seconds. */
export interface SongClock {
  readonly tempos: readonly TempoMark[];
  readonly meters: readonly MeterMark[];
  readonly startSeconds: number;
}

/** A number with the range it may lie in. */
export interface Range {
  readonly min: number;
  readonly max: number;
}

/** How far a stamp in whole seconds may be off to each side. Common practice: players show whole seconds. */
export const STAMP_SECONDS = 0.5;

/** Quarter notes in a bar of a meter. */
export function quartersOf({ beats, unit }: Meter): number {
  return (beats * 4) / unit;
}

/** Seconds that a bar lasts. @throws RangeError when the tempo is not above 0. */
export function barSeconds(meter: Meter, bpm: number): number {
  if (!(bpm > 0)) throw new RangeError(`a tempo is above 0 quarter notes a minute, not ${bpm}`);
  return (quartersOf(meter) * 60) / bpm;
}

/**
 * The second at which a (possibly fractional) bar begins; negative bars count back from the first.
 *
 * @throws RangeError when the clock has no tempo or meter at bar 0.
 */
export function timeOfBar(bar: number, clock: SongClock): number {
  const { tempos, meters, startSeconds } = clock;
  const marks = [...new Set([0, ...tempos.map((mark) => mark.bar), ...meters.map((mark) => mark.bar)])]
    .filter((from) => from >= 0)
    .sort((a, b) => a - b);
  let seconds = startSeconds;
  for (const [index, from] of marks.entries()) {
    const to = marks[index + 1] ?? Infinity;
    const until = index === 0 ? Math.min(bar, to) : Math.max(from, Math.min(bar, to));
    seconds += (until - from) * secondsAt(from, clock);
    if (bar <= to) break;
  }
  return seconds;
}

function secondsAt(bar: number, { tempos, meters }: SongClock): number {
  const tempo = tempos.findLast((mark) => mark.bar <= bar);
  const meter = meters.findLast((mark) => mark.bar <= bar);
  if (!tempo || !meter) throw new RangeError('a clock has a tempo and a meter from bar 0 on');
  return barSeconds(meter.meter, tempo.bpm);
}

/** How many bars fit between two stamps at a tempo, and the range that stamps in whole seconds leave. */
export function barsBetween(
  stamps: { readonly fromSeconds: number; readonly toSeconds: number },
  tempoChange: { readonly meter: Meter; readonly bpm: number; readonly stampSeconds?: number },
): Range & { readonly bars: number } {
  const one = barSeconds(tempoChange.meter, tempoChange.bpm);
  const off = 2 * (tempoChange.stampSeconds ?? STAMP_SECONDS);
  const seconds = stamps.toSeconds - stamps.fromSeconds;
  return { bars: seconds / one, min: Math.max(0, seconds - off) / one, max: (seconds + off) / one };
}

/** The tempo that puts so many bars between two stamps, and the range that whole seconds leave; undefined for none. */
export function tempoFromStamps(
  stamps: { readonly fromSeconds: number; readonly toSeconds: number },
  span: { readonly bars: number; readonly meter: Meter; readonly stampSeconds?: number },
): (Range & { readonly bpm: number }) | undefined {
  const seconds = stamps.toSeconds - stamps.fromSeconds;
  const off = 2 * (span.stampSeconds ?? STAMP_SECONDS);
  if (!(seconds > off) || !(span.bars > 0)) return undefined;
  const quarters = span.bars * quartersOf(span.meter) * 60;
  return { bpm: quarters / seconds, min: quarters / (seconds + off), max: quarters / (seconds - off) };
}

/** A tempo tapped, with the range it lies in 19 times of 20, and how many taps were missed in between. */
export interface TappedTempo extends Range {
  readonly bpm: number;
  readonly missed: number;
}

/** Fewest taps that tell a tempo. Our choice. */
const FEWEST_TAPS = 4;

/** A pause after which tapping begins anew, in beats. Our choice. */
const PAUSE_BEATS = 4.5;

/** Two-sided 95 % points of Student’s t by degrees of freedom 1-10, then the normal one. Source: statistical tables. */
const T95 = [12.71, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23];
const NORMAL95 = 1.96;

/**
 * The tempo of taps, one a quarter note, times in seconds. A tap missed leaves a double gap, which is counted as
 * two; the tempo is the slope of the line through all taps. Undefined for too few, or for taps out of order.
 */
export function tempoFromTaps(times: readonly number[]): TappedTempo | undefined {
  const gaps = times.slice(1).map((time, index) => time - (times[index] ?? 0));
  if (times.length < FEWEST_TAPS || gaps.some((gap) => !(gap > 0))) return undefined;
  const beat = medianOf(gaps);
  const counts = gaps.map((gap) => Math.max(1, Math.round(gap / beat)));
  if (counts.some((count) => count > PAUSE_BEATS)) return undefined;
  let beats = 0;
  const points = times.map((time, index) => {
    if (index > 0) beats += counts[index - 1] ?? 1;
    return { x: beats, y: time };
  });
  const { slope, error } = lineThrough(points);
  const wide = (T95[points.length - 3] ?? NORMAL95) * error;
  const missed = counts.reduce((sum, count) => sum + count - 1, 0);
  return { bpm: 60 / slope, min: 60 / (slope + wide), max: 60 / Math.max(slope - wide, 1e-6), missed };
}

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  const upper = sorted[middle] ?? 0;
  return sorted.length % 2 === 1 ? upper : (upper + (sorted[middle - 1] ?? upper)) / 2;
}

/** Slope of the least-squares line and its standard error. Source: common practice (linear regression). */
function lineThrough(points: readonly { x: number; y: number }[]): { slope: number; error: number } {
  const n = points.length;
  const meanX = points.reduce((sum, { x }) => sum + x, 0) / n;
  const meanY = points.reduce((sum, { y }) => sum + y, 0) / n;
  const xx = points.reduce((sum, { x }) => sum + (x - meanX) ** 2, 0);
  const slope = points.reduce((sum, { x, y }) => sum + (x - meanX) * (y - meanY), 0) / xx;
  const rest = points.reduce((sum, { x, y }) => sum + (y - meanY - slope * (x - meanX)) ** 2, 0);
  return { slope, error: Math.sqrt(rest / Math.max(1, n - 2) / xx) };
}
