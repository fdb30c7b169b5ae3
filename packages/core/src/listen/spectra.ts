import FFT from 'fft.js';

// Taken out of the loops, where looking it up would cost more than the root.
const { sqrt } = Math;

/** Magnitudes of short stretches of a sound, one row a stretch. */
export interface Spectra {
  /** Rows of `bins` magnitudes, one after the other; a full sine of amplitude 1 gives 1. */
  readonly magnitudes: Float32Array;
  readonly rows: number;
  /** Magnitudes a row: half the window and one. */
  readonly bins: number;
  readonly hzPerBin: number;
  /** Seconds from one row to the next. */
  readonly hopSeconds: number;
  /** Time of the middle of the first row, seconds. */
  readonly firstSeconds: number;
}

/** The Hann window, of which the sum of two neighbours a half apart is one. Source: Harris, Proc. IEEE 66(1), 1978. */
export function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, n) => 0.5 - 0.5 * Math.cos((2 * Math.PI * n) / length));
}

/** The spectra of a sound, every `hop` samples over `window` of them (a power of two). Of `rows` × `window` log `window`. */
export function spectraOf(
  samples: Float32Array,
  sampleRate: number,
  { window, hop }: { window: number; hop: number },
): Spectra {
  const rows = Math.max(0, Math.floor((samples.length - window) / hop) + 1);
  const bins = window / 2 + 1;
  const fft = new FFT(window);
  const shape = hann(window);
  const scale = 4 / window;
  const input = new Float64Array(window);
  const output = fft.createComplexArray() as number[];
  const magnitudes = new Float32Array(rows * bins);
  for (let row = 0; row < rows; row += 1) {
    const from = row * hop;
    for (let n = 0; n < window; n += 1) input[n] = (samples[from + n] ?? 0) * (shape[n] ?? 0);
    fft.realTransform(output, input);
    for (let bin = 0; bin < bins; bin += 1) {
      const real = output[2 * bin] ?? 0;
      const imaginary = output[2 * bin + 1] ?? 0;
      magnitudes[row * bins + bin] = scale * sqrt(real * real + imaginary * imaginary);
    }
  }
  return {
    ...{ magnitudes, rows, bins, hzPerBin: sampleRate / window },
    ...{ hopSeconds: hop / sampleRate, firstSeconds: window / 2 / sampleRate },
  };
}
