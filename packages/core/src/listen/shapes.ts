import FFT from 'fft.js';
import { hzOf, midiAt } from '../pitch/index.ts';
import { LISTEN_RATE } from './audio.ts';
import { hann } from './spectra.ts';

// Taken out of the loops, where looking it up would cost more than the root.
const { abs, ceil, exp, floor, max, min, round, sqrt } = Math;

/** Bins of a quarter of a semitone, from this pitch up, so many. */
export const BINS = { fromMidi: 28, perSemitone: 4, count: 340 } as const;
/** Pitches that may sound, MIDI: from the lowest of a bass to the highest of a guitar. */
export const PITCHES = { from: 28, to: 90 } as const;

const PADDED = 16_384;
const HZ_PER_BIN = LISTEN_RATE / PADDED;
/** Harmonics of a shape. */
const HARMONICS = 14;
/** A shape dark and one bright: how fast its harmonics become weaker. */
const DECAYS = [1.4, 0.6] as const;
/** Broad shapes for what has no pitch. */
const BROAD = 14;
/** Rounds of the factorisation. Our choice: more change little. */
const ROUNDS = 40;
/** Loud and soft are drawn together by this power before they are compared. */
const POWER = 0.6;

/** The bin of a pitch, with a fraction. */
export function binOf(midi: number): number {
  return (midi - BINS.fromMidi) * BINS.perSemitone;
}

/** The bin of a harmonic of a pitch, with a fraction; a string’s own stiffness is left out. */
export function harmonicBin(midi: number, harmonic: number): number {
  return binOf(midi) + 12 * BINS.perSemitone * Math.log2(harmonic);
}

/** The spectrum of a short stretch of sound in bins of a quarter of a semitone; 0 in those beyond what the rate carries. Of the window. */
export class Binned {
  readonly #fft = new FFT(PADDED);
  readonly #input = new Float64Array(PADDED);
  readonly #output = this.#fft.createComplexArray() as number[];
  readonly #edges = Float64Array.from(
    { length: BINS.count + 1 },
    (_, bin) => hzOf(BINS.fromMidi + (bin - 0.5) / BINS.perSemitone) / HZ_PER_BIN,
  );
  readonly #shapes = new Map<number, Float64Array>();

  /** @param samples at 22,050 a second, at most 16,384 of them */
  of(samples: ArrayLike<number>): Float64Array {
    const { length } = samples;
    let shape = this.#shapes.get(length);
    if (!shape) this.#shapes.set(length, (shape = hann(length)));
    this.#input.fill(0);
    for (let n = 0; n < length; n += 1) this.#input[n] = (samples[n] ?? 0) * (shape[n] ?? 0);
    this.#fft.realTransform(this.#output, this.#input);
    const magnitude = (bin: number) => {
      const [real, imaginary] = [this.#output[2 * bin] ?? 0, this.#output[2 * bin + 1] ?? 0];
      return sqrt(real * real + imaginary * imaginary);
    };
    const out = new Float64Array(BINS.count);
    for (let bin = 0; bin < BINS.count; bin += 1) {
      const [from, to] = [this.#edges[bin] ?? 0, this.#edges[bin + 1] ?? 0];
      if (to >= PADDED / 2) break;
      let most = magnitude(round((from + to) / 2));
      for (let at = ceil(from); at <= floor(to); at += 1) most = max(most, magnitude(at));
      out[bin] = (most * 4) / length;
    }
    return out;
  }
}

/** A spectrum with loud and soft drawn together, and what is usual for its surroundings taken out. */
export function evened(spectrum: Float64Array): Float64Array {
  const out = spectrum.map((value) => value ** POWER);
  const half = 40;
  const sums = new Float64Array(out.length + 1);
  out.forEach((value, bin) => (sums[bin + 1] = (sums[bin] ?? 0) + value));
  const whole = (sums[out.length] ?? 0) / out.length;
  return out.map((value, bin) => {
    const [from, to] = [max(0, bin - half), min(out.length, bin + half + 1)];
    const near = ((sums[to] ?? 0) - (sums[from] ?? 0)) / (to - from);
    return whole > 0 ? value / sqrt((near + 0.15 * whole) * whole) : 0;
  });
}

/** What sounds in a spectrum: how much of each pitch, from the lowest of `PITCHES`, and how much of no pitch. */
export interface Sounded {
  readonly pitches: Float64Array;
  readonly broad: number;
}

/**
 * Splits a spectrum into harmonic shapes of every pitch and broad ones, so that what a band plays behind gets shapes of its own.
 * Of rounds × bins × shapes. Source: Lee & Seung, "Algorithms for non-negative matrix factorization", NIPS 13, 2000 (the divergence).
 *
 * @param seconds length of the window the spectrum is of: short ones blur
 * @param offCents how far the recording stands from concert pitch
 */
export function soundedIn(spectrum: Float64Array, seconds: number, offCents = 0): Sounded {
  const shapes = shapesFor(seconds, offCents);
  const weights = new Float64Array(shapes.length).fill(0.1);
  const model = new Float64Array(BINS.count);
  for (let turn = 0; turn < ROUNDS; turn += 1) {
    model.fill(1e-6);
    shapes.forEach(({ values, from }, index) => {
      const weight = weights[index] ?? 0;
      if (weight < 1e-6) return;
      for (let n = 0; n < values.length; n += 1) model[from + n] = (model[from + n] ?? 0) + weight * (values[n] ?? 0);
    });
    for (let bin = 0; bin < BINS.count; bin += 1) model[bin] = (spectrum[bin] ?? 0) / (model[bin] ?? 1);
    shapes.forEach(({ values, from, sum }, index) => {
      const weight = weights[index] ?? 0;
      if (weight < 1e-6) return;
      let gain = 0;
      for (let n = 0; n < values.length; n += 1) gain += (values[n] ?? 0) * (model[from + n] ?? 0);
      weights[index] = (weight * gain) / (sum + SPARSE);
    });
  }
  const pitches = new Float64Array(PITCHES.to - PITCHES.from + 1);
  let broad = 0;
  shapes.forEach(({ midi, sum }, index) => {
    const amount = (weights[index] ?? 0) * sum;
    if (midi === undefined) broad += amount;
    else pitches[midi - PITCHES.from] = (pitches[midi - PITCHES.from] ?? 0) + amount;
  });
  return { pitches, broad };
}
/** Few shapes are liked better than many. Our choice. */
const SPARSE = 0.15;

interface Shape {
  /** undefined for a broad one. */
  readonly midi: number | undefined;
  readonly from: number;
  readonly values: Float64Array;
  readonly sum: number;
}

const known = new Map<string, readonly Shape[]>();

function shapesFor(seconds: number, offCents: number): readonly Shape[] {
  const key = `${round(seconds * 20)} ${round(offCents / 5)}`;
  let shapes = known.get(key);
  if (!shapes) {
    shapes = [...harmonicShapes(max(0.05, round(seconds * 20) / 20), offCents), ...broadShapes()];
    if (known.size > 200) known.clear();
    known.set(key, shapes);
  }
  return shapes;
}

function harmonicShapes(seconds: number, offCents: number): readonly Shape[] {
  const shapes: Shape[] = [];
  for (let midi: number = PITCHES.from; midi <= PITCHES.to; midi += 1)
    for (const decay of DECAYS) {
      const values = new Float64Array(BINS.count);
      for (let harmonic = 1; harmonic <= HARMONICS; harmonic += 1) {
        const place = harmonicBin(midi + offCents / 100, harmonic);
        const hz = hzOf(BINS.fromMidi + place / BINS.perSemitone);
        if (hz > LISTEN_RATE / 2 || place > BINS.count + 8) break;
        // The main lobe of the window, half of it, in bins; never narrower than a string is steady.
        const wide = max(0.8, binOf(midiAt(hz + 1.1 / seconds)) - binOf(midiAt(hz)));
        for (let bin = max(0, floor(place - 3 * wide)); bin <= min(BINS.count - 1, place + 3 * wide); bin += 1) {
          const away = (bin - place) / wide;
          values[bin] = max(values[bin] ?? 0, exp(-0.5 * away * away) / harmonic ** (decay * POWER));
        }
      }
      shapes.push(shapeOf(midi, values));
    }
  return shapes;
}

function broadShapes(): readonly Shape[] {
  const width = BINS.count / (BROAD - 1);
  return Array.from({ length: BROAD }, (_, index) =>
    shapeOf(
      undefined,
      Float64Array.from({ length: BINS.count }, (__, bin) => max(0, 1 - abs(bin - index * width) / width)),
    ),
  );
}

function shapeOf(midi: number | undefined, values: Float64Array): Shape {
  const from = values.findIndex((value) => value > 1e-4);
  const to = values.findLastIndex((value) => value > 1e-4) + 1;
  const part = values.slice(max(0, from), to);
  return { midi, from: max(0, from), values: part, sum: part.reduce((sum, value) => sum + value, 0) };
}
