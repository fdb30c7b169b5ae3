/** Sound as it is listened to: one channel, -1 to 1. */
export interface Audio {
  readonly samples: Float32Array;
  /** Samples a second. */
  readonly sampleRate: number;
}

/** What all listening works at, samples a second: half of the usual 44,100, so that most files come down by two. */
export const LISTEN_RATE = 22_050;

/** Zero crossings of the resampling kernel to each side. Our choice: 10 leave 70 dB between what is kept and what is folded. */
const CROSSINGS = 10;
/** Share of the lower of both Nyquist frequencies that is kept. Our choice. */
const KEPT = 0.92;

/**
 * Audio at another rate, by a windowed sinc. Linear in the length. Source: J. O. Smith, "Digital Audio Resampling Home Page", CCRMA
 * (from memory); the window is Blackman's.
 *
 * @throws RangeError for a rate not above 0.
 */
export function resample({ samples, sampleRate }: Audio, toRate: number = LISTEN_RATE): Audio {
  if (!(sampleRate > 0 && toRate > 0)) throw new RangeError(`a sample rate is above 0, not ${sampleRate} or ${toRate}`);
  if (sampleRate === toRate) return { samples, sampleRate };
  const step = sampleRate / toRate;
  const cutoff = KEPT * Math.min(1, 1 / step);
  const half = Math.ceil(CROSSINGS / cutoff);
  const kernel = new Kernel(cutoff, half);
  const out = new Float32Array(Math.floor(samples.length / step + 1e-6));
  if (Number.isInteger(step)) return { samples: thinned(samples, step, kernel.taps(), out), sampleRate: toRate };
  for (let n = 0; n < out.length; n += 1) {
    const centre = n * step;
    const first = Math.max(0, Math.ceil(centre - half));
    const last = Math.min(samples.length - 1, Math.floor(centre + half));
    let sum = 0;
    for (let at = first; at <= last; at += 1) sum += (samples[at] ?? 0) * kernel.at(at - centre);
    out[n] = sum;
  }
  return { samples: out, sampleRate: toRate };
}

/** Every so manyth sample, each through the same taps. */
function thinned(samples: Float32Array, step: number, taps: Float64Array, out: Float32Array): Float32Array {
  const half = (taps.length - 1) / 2;
  const padded = new Float32Array(samples.length + 2 * half);
  padded.set(samples, half);
  const middle = taps[half] ?? 0;
  const side = taps.subarray(half + 1);
  for (let n = 0; n < out.length; n += 1) {
    const centre = n * step + half;
    let sum = middle * (padded[centre] ?? 0);
    // Both sides are the same.
    for (let away = 1; away <= half; away += 1)
      sum += (side[away - 1] ?? 0) * ((padded[centre - away] ?? 0) + (padded[centre + away] ?? 0));
    out[n] = sum;
  }
  return out;
}

/** Steps a sample in the table of the kernel. */
const TABLE_STEPS = 256;

/** The kernel as a table, read between its points by a straight line. */
class Kernel {
  readonly #table: Float64Array;
  readonly #half: number;

  constructor(cutoff: number, half: number) {
    this.#half = half;
    this.#table = Float64Array.from({ length: half * TABLE_STEPS + 2 }, (_, index) => {
      const at = index / TABLE_STEPS;
      const share = Math.min(1, at / half);
      const window = 0.42 + 0.5 * Math.cos(Math.PI * share) + 0.08 * Math.cos(2 * Math.PI * share);
      const x = Math.PI * cutoff * at;
      return cutoff * window * (x === 0 ? 1 : Math.sin(x) / x);
    });
  }

  /** The kernel at whole samples. */
  taps(): Float64Array {
    return Float64Array.from({ length: 2 * this.#half + 1 }, (_, tap) => this.at(tap - this.#half));
  }

  at(distance: number): number {
    const place = (distance < 0 ? -distance : distance) * TABLE_STEPS;
    const whole = place | 0;
    const below = this.#table[whole] ?? 0;
    return below + (place - whole) * ((this.#table[whole + 1] ?? 0) - below);
  }
}

/** The loudness of a stretch, root mean square; 0 for an empty one. */
export function loudness(samples: Float32Array, from = 0, to = samples.length): number {
  let sum = 0;
  for (let n = from; n < to; n += 1) sum += (samples[n] ?? 0) ** 2;
  return to > from ? Math.sqrt(sum / (to - from)) : 0;
}
