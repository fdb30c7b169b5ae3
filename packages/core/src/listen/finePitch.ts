import FFT from 'fft.js';
import { hzOf, midiAt } from '../pitch/index.ts';
import { LISTEN_RATE } from './audio.ts';
import { hann } from './spectra.ts';

/** Spectra are padded with silence to this length, so that a peak is found between its bins. */
const PADDED = 16_384;
const HZ_PER_BIN = LISTEN_RATE / PADDED;
/** Longest stretch that is looked at, samples; nobody holds a pitch much longer. */
const LONGEST = 8192;
const SHORTEST = 1024;
/** Partials that are looked for, and how far each may lie from its place, semitones. */
const PARTIALS = 8;
const REACH = 0.45;
/** A partial fainter than this share of the loudest says nothing. */
const FAINT = 0.03;

/**
 * The pitch of a held note to a fraction of a cent, MIDI: its partials are found one by one, and the stiffness of the string, which
 * draws the upper ones sharp, is taken out. NaN where too little of it is there. Of the padded window.
 * Source: f(n) = n f(1) √(1 + B n²), Fletcher & Rossing, "The Physics of Musical Instruments" (from memory).
 *
 * @param samples at 22,050 a second
 * @param around where it should lie, MIDI, to half a semitone
 */
export function finePitch(samples: Float32Array, from: number, to: number, around: number): number {
  const first = Math.max(0, Math.round(from * LISTEN_RATE));
  const length = Math.min(LONGEST, Math.round(to * LISTEN_RATE) - first, samples.length - first);
  if (length < SHORTEST) return NaN;
  const magnitudes = magnitudesOf(samples.subarray(first, first + length));
  const hz = hzOf(around);
  const partials: Partial[] = [];
  for (let number = 1; number <= PARTIALS && hz * number < LISTEN_RATE * 0.4; number += 1) {
    const reach = 2 ** (REACH / 12);
    const peak = peakOf(magnitudes, (hz * number) / reach / HZ_PER_BIN, (hz * number * reach) / HZ_PER_BIN);
    if (peak) partials.push({ number, hz: (peak.bin * HZ_PER_BIN) / number, level: peak.level });
  }
  const loudest = Math.max(0, ...partials.map(({ level }) => level));
  return fundamentalOf(partials.filter(({ level }) => level > FAINT * loudest));
}

interface Partial {
  readonly number: number;
  /** Its frequency, divided by its number. */
  readonly hz: number;
  readonly level: number;
}

const fft = new FFT(PADDED);

function magnitudesOf(part: Float32Array): Float64Array {
  const shape = hann(part.length);
  const input = new Float64Array(PADDED);
  part.forEach((sample, n) => (input[n] = sample * (shape[n] ?? 0)));
  const output = fft.createComplexArray() as number[];
  fft.realTransform(output, input);
  return Float64Array.from({ length: PADDED / 2 }, (_, bin) =>
    Math.hypot(output[2 * bin] ?? 0, output[2 * bin + 1] ?? 0),
  );
}

/** The highest peak between two bins, its place by a parabola through the logarithms beside it. */
function peakOf(
  magnitudes: Float64Array,
  from: number,
  to: number,
): { readonly bin: number; readonly level: number } | undefined {
  let best = Math.ceil(from);
  for (let bin = best; bin <= to; bin += 1) if ((magnitudes[bin] ?? 0) > (magnitudes[best] ?? 0)) best = bin;
  const [left, middle, right] = [best - 1, best, best + 1].map((bin) => Math.log((magnitudes[bin] ?? 0) + 1e-12));
  if (left === undefined || middle === undefined || right === undefined || middle < left || middle < right)
    return undefined;
  const bend = left - 2 * middle + right;
  return { bin: best + (bend === 0 ? 0 : (0.5 * (left - right)) / bend), level: magnitudes[best] ?? 0 };
}

/** The first partial by a line through all of them against the square of their number, the louder the more; leaps are left out once. */
function fundamentalOf(partials: readonly Partial[]): number {
  let used = partials;
  for (let turn = 0; turn < 2; turn += 1) {
    if (used.length === 0) return NaN;
    const { at, slope } = lineOf(used);
    const cents = (one: Partial) => Math.abs(1200 * Math.log2(one.hz / (at + slope * one.number ** 2)));
    if (turn === 1) return midiAt(at + slope);
    used = used.filter((one) => cents(one) < OFF_CENTS);
  }
  return NaN;
}

/** A partial so far from the line is another note’s, cents. */
const OFF_CENTS = 12;
/** Below this many partials no stiffness is made out. */
const FOR_SLOPE = 4;

function lineOf(partials: readonly Partial[]): { readonly at: number; readonly slope: number } {
  let [sum, sumX, sumY, sumXX, sumXY] = [0, 0, 0, 0, 0];
  for (const { number, hz, level } of partials) {
    // A partial says more of the pitch the higher it is: its place is found to the same part of a bin.
    const weight = level * number;
    const x = number ** 2;
    [sum, sumX, sumY, sumXX, sumXY] = [
      sum + weight,
      sumX + weight * x,
      sumY + weight * hz,
      sumXX + weight * x * x,
      sumXY + weight * x * hz,
    ];
  }
  const spread = sumXX - sumX ** 2 / sum;
  const slope = partials.length < FOR_SLOPE || spread < 1e-9 ? 0 : (sumXY - (sumX * sumY) / sum) / spread;
  const at = (sumY - slope * sumX) / sum;
  // No string is less stiff than a thread, nor stiffer than a rod.
  const most = at * 4e-4;
  const firm = Math.min(most, Math.max(0, slope));
  return { at: firm === slope ? at : (sumY - firm * sumX) / sum, slope: firm };
}
