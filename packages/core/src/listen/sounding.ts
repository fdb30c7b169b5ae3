import FFT from 'fft.js';
import { hzOf } from '../pitch/index.ts';
import { LISTEN_RATE } from './audio.ts';
import { hann } from './spectra.ts';

const WINDOW = 2048;
const HZ_PER_BIN = LISTEN_RATE / WINDOW;
/** So many harmonics are looked for; a guitar's second is often louder than its first. */
const HARMONICS = 4;
/** A harmonic stands so far above what lies around it. Our choice. */
const STANDS = 3.2;

/** Looks for given pitches in a sound, several at once: the pitch of a chord cannot be tracked, but what is expected can be looked for. */
export class Sounding {
  readonly #samples: Float32Array;
  readonly #fft = new FFT(WINDOW);
  readonly #shape = hann(WINDOW);
  readonly #input = new Float64Array(WINDOW);
  readonly #output: number[];

  /** @param samples at 22,050 a second */
  constructor(samples: Float32Array) {
    this.#samples = samples;
    this.#output = this.#fft.createComplexArray() as number[];
  }

  readonly #known = new Map<number, Float64Array>();

  /** Magnitudes of 93 ms from a time on; half the window and one of them. */
  spectrumAt(seconds: number): Float64Array {
    const from = Math.round(seconds * LISTEN_RATE);
    const known = this.#known.get(from);
    if (known) return known;
    for (let n = 0; n < WINDOW; n += 1) this.#input[n] = (this.#samples[from + n] ?? 0) * (this.#shape[n] ?? 0);
    this.#fft.realTransform(this.#output, this.#input);
    const spectrum = Float64Array.from({ length: WINDOW / 2 + 1 }, (_, bin) =>
      Math.hypot(this.#output[2 * bin] ?? 0, this.#output[2 * bin + 1] ?? 0),
    );
    this.#known.set(from, spectrum);
    return spectrum;
  }

  /** Whether a pitch sounds from a time on: its first or second harmonic and one more stand above what lies around them. */
  has(midi: number, seconds: number): boolean {
    return this.standing(midi, seconds) >= 2;
  }

  /** How many of the first four harmonics of a pitch stand out. */
  standing(midi: number, seconds: number): number {
    const spectrum = this.spectrumAt(seconds);
    const hz = hzOf(midi);
    let count = 0;
    for (let harmonic = 1; harmonic <= HARMONICS; harmonic += 1) {
      const bin = (hz * harmonic) / HZ_PER_BIN;
      if (bin + 12 > spectrum.length) break;
      const peak = Math.max(...around(spectrum, bin, 1));
      const beside = [...around(spectrum, bin, 9)].sort((a, b) => a - b);
      if (peak > STANDS * (beside[beside.length >> 1] ?? 0)) count += 1;
    }
    return count;
  }
}

function around(spectrum: Float64Array, bin: number, width: number): Float64Array {
  const middle = Math.round(bin);
  return spectrum.subarray(Math.max(0, middle - width), middle + width + 1);
}
