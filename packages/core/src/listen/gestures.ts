import { pitchAt } from './expected.ts';
import type { ContourPoint, PlayedNote } from '../notation/index.ts';
import { medianOf, rowsBetween, type PitchTrack } from './pitchTrack.ts';

/** How far a bend reached. */
export interface BendReach {
  /** Cents above the fret that are written. */
  readonly targetCents: number;
  /** Cents above the fret that were reached. */
  readonly reachedCents: number;
  /** The bend as it is written and as it was heard, seconds from the note on and cents above the fret. */
  readonly written: readonly ContourPoint[];
  readonly heard: readonly ContourPoint[];
}

/** A vibrato as it was played. */
export interface VibratoHeard {
  /** Turns a second. */
  readonly hz: number;
  /** Cents to each side. */
  readonly cents: number;
}

/** A bend is asked for where a note is written to rise or fall so far, cents. */
const LEAST_BEND_CENTS = 40;
/** Rows this near to the highest are the top of a bend, cents. */
const TOP_CENTS = 28;
/** A bend is held for so many rows at least: 50 ms; less is a slide. */
const HELD_ROWS = 5;
/** Half a turn of the slowest usual vibrato, rows. */
const HALF_TURN_ROWS = 10;
/** From one row to the next, seconds. */
const ROW_SECONDS = 0.01;
/** Fewest rows that say how far a bend reached: 40 ms. */
const LEAST_ROWS = 4;
/** Vibrato is looked for between these rates, hertz, and in no less than so many turns. Source: common practice. */
const RATES = { from: 3, to: 9.5, step: 0.1, turns: 1.8 } as const;
/** What the window of the tracker blurs, seconds; measured. */
const BLUR_SECONDS = 0.05;
/** Less than this is no vibrato, cents to each side. Source: just noticeable differences of pitch, 3-6 cents (from memory). */
const LEAST_VIBRATO_CENTS = 8;

/**
 * How far the bend of a note reached; undefined where none is written or none can be heard. What swings about a height is taken for
 * its middle, so that a vibrato is no bend; and neither is a slide, which is nowhere held.
 */
export function bendOf(
  note: PlayedNote,
  track: PitchTrack,
  { from, lasts, each, swings }: Heard,
): BendReach | undefined {
  const settle = swings ? averaged : (heights: readonly number[]) => heights;
  const written = sampled(note, lasts / each).map((midi) => 100 * (midi - (note.midi ?? 0)));
  const top = topOf(settle(written));
  if (top === undefined || Math.abs(top) < LEAST_BEND_CENTS) return undefined;
  if (settle(written).filter((height) => Math.abs(height - top) < TOP_CENTS).length < HELD_ROWS) return undefined;
  const fret = note.midi ?? 0;
  const rows = voiced(track, from + 0.02, from + lasts - 0.01, fret);
  const midis = medians(rows.map(({ midi }) => midi));
  if (midis.length < LEAST_ROWS) return undefined;
  const reached = topOf(settle(midis.map((midi) => Math.sign(top) * 100 * (midi - fret))));
  if (reached === undefined) return undefined;
  return {
    ...{ targetCents: top, reachedCents: Math.sign(top) * reached },
    written: written.map((cents, row) => ({ seconds: row * ROW_SECONDS * each, cents })),
    heard: rows.map(({ seconds }, row) => ({ seconds: seconds - from, cents: 100 * ((midis[row] ?? fret) - fret) })),
  };
}

/** Where a note was heard: seconds of the recording, how long, and how long a second of the piece took. */
export interface Heard {
  readonly from: number;
  readonly lasts: number;
  readonly each: number;
  /** Whether a vibrato is written. */
  readonly swings: boolean;
}

/** The height of the top of a line of heights: the middle of all rows near its highest tenth, the way it went furthest. */
function topOf(heights: readonly number[]): number | undefined {
  if (heights.length < LEAST_ROWS) return undefined;
  const sorted = [...heights].sort((a, b) => a - b);
  const high = sorted[Math.floor(sorted.length * 0.93)] ?? 0;
  const low = sorted[Math.floor(sorted.length * 0.07)] ?? 0;
  const isUp = Math.abs(high) >= Math.abs(low);
  const peak = isUp ? high : low;
  return medianOf(heights.filter((height) => Math.abs(height - peak) < TOP_CENTS));
}

/** The written pitch every 10 ms. */
function sampled(note: PlayedNote, lasts: number): readonly number[] {
  return Array.from({ length: Math.max(0, Math.floor(lasts / ROW_SECONDS)) }, (_, row) =>
    pitchAt(note, row * ROW_SECONDS),
  );
}

/** The rows between two times that have a pitch near a note’s, with their times. */
function voiced(
  track: PitchTrack,
  from: number,
  to: number,
  midi: number,
): readonly { readonly seconds: number; readonly midi: number }[] {
  const [first, last] = rowsBetween(track, from, to);
  return [...track.midis.subarray(first, last)].flatMap((one, row) =>
    Number.isNaN(one) || Math.abs(one - midi) >= 6
      ? []
      : [{ seconds: track.firstSeconds + (first + row) * track.hopSeconds, midi: one }],
  );
}

/** Each value’s mean with those within half a turn of a vibrato to each side. */
function averaged(values: readonly number[]): readonly number[] {
  return values.map((_, index) => {
    const part = values.slice(Math.max(0, index - HALF_TURN_ROWS), index + HALF_TURN_ROWS + 1);
    return part.reduce((sum, one) => sum + one, 0) / part.length;
  });
}

/** Each value with its neighbours’ median in its place: single rows that leap are gone. */
function medians(values: readonly number[]): readonly number[] {
  return values.map((_, index) => medianOf(values.slice(Math.max(0, index - 2), index + 3)));
}

/**
 * The vibrato in a stretch: the sine that fits best what is left of the pitch when its slow course is taken away; undefined where it
 * is too short, or where there is none.
 */
export function vibratoOf(track: PitchTrack, from: number, to: number): VibratoHeard | undefined {
  const [first, last] = rowsBetween(track, from, to);
  const rows = [...track.midis.subarray(first, last)];
  const middle = medianOf(rows.filter((midi) => !Number.isNaN(midi)));
  const points = rows.flatMap((midi, row) =>
    Number.isNaN(midi) || Math.abs(midi - middle) > 1.5
      ? []
      : [{ at: row * track.hopSeconds, cents: 100 * (midi - middle) }],
  );
  const seconds = rows.length * track.hopSeconds;
  if (points.length < rows.length * 0.7) return undefined;
  let best: (VibratoHeard & { readonly left: number }) | undefined;
  for (let hz = Math.max(RATES.from, RATES.turns / Math.max(seconds, 1e-3)); hz <= RATES.to; hz += RATES.step) {
    const fit = fitSine(points, hz);
    if (!best || fit.left < best.left) best = { hz, cents: fit.cents, left: fit.left };
  }
  if (!best || best.cents < LEAST_VIBRATO_CENTS) return undefined;
  const whole = fitSine(points, 0).left;
  // The window of the tracker takes the middle of what it sees, and so flattens what swings.
  const blur = Math.PI * best.hz * BLUR_SECONDS;
  return best.left < 0.5 * whole ? { hz: best.hz, cents: (best.cents * blur) / Math.sin(blur) } : undefined;
}

/** A sine of a rate with a straight line under it, by least squares: its amplitude, and what is left over. */
function fitSine(points: readonly { at: number; cents: number }[], hz: number): { cents: number; left: number } {
  const columns = (at: number) =>
    hz === 0 ? [1, at] : [1, at, Math.cos(2 * Math.PI * hz * at), Math.sin(2 * Math.PI * hz * at)];
  const size = hz === 0 ? 2 : 4;
  const matrix = Array.from({ length: size }, () => new Array<number>(size + 1).fill(0));
  for (const { at, cents } of points) {
    const row = columns(at);
    for (let i = 0; i < size; i += 1) {
      const line = matrix[i] ?? [];
      for (let j = 0; j < size; j += 1) line[j] = (line[j] ?? 0) + (row[i] ?? 0) * (row[j] ?? 0);
      line[size] = (line[size] ?? 0) + (row[i] ?? 0) * cents;
    }
  }
  const found = solve(matrix);
  const left = points.reduce((sum, { at, cents }) => {
    const off = cents - columns(at).reduce((all, one, index) => all + one * (found[index] ?? 0), 0);
    return sum + off * off;
  }, 0);
  return { cents: Math.hypot(found[2] ?? 0, found[3] ?? 0), left };
}

/** Solves a small set of equations, each row with its right side behind it, by Gauss's elimination. */
function solve(matrix: number[][]): readonly number[] {
  const size = matrix.length;
  for (let pivot = 0; pivot < size; pivot += 1) {
    const best = matrix
      .slice(pivot)
      .reduce(
        (most, row, index) => (Math.abs(row[pivot] ?? 0) > Math.abs(matrix[most]?.[pivot] ?? 0) ? pivot + index : most),
        pivot,
      );
    const [a, b] = [matrix[pivot] ?? [], matrix[best] ?? []];
    [matrix[pivot], matrix[best]] = [b, a];
    const head = b[pivot] ?? 0;
    if (Math.abs(head) < 1e-12) continue;
    matrix.forEach((row, index) => {
      if (index === pivot) return;
      const share = (row[pivot] ?? 0) / head;
      for (let column = pivot; column <= size; column += 1) row[column] = (row[column] ?? 0) - share * (b[column] ?? 0);
    });
  }
  return matrix.map((row, index) => (Math.abs(row[index] ?? 0) < 1e-12 ? 0 : (row[size] ?? 0) / (row[index] ?? 1)));
}

/** Where the first bend of some notes begins and ends, MIDI; undefined where none is bent. */
export function bendTargetOf(
  played: readonly PlayedNote[],
): { readonly from: number; readonly to: number } | undefined {
  for (const { midi, contour } of played) {
    if (midi === null) continue;
    const furthest = contour.reduce((best, { cents }) => (Math.abs(cents) > Math.abs(best) ? cents : best), 0);
    if (Math.abs(furthest) >= LEAST_BEND_CENTS) return { from: midi, to: midi + furthest / 100 };
  }
  return undefined;
}
