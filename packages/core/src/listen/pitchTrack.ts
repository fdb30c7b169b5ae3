import { PitchDetector } from 'pitchy';
import { midiAt } from '../pitch/index.ts';
import { LISTEN_RATE } from './audio.ts';

/** The pitch of a sound over time, one value a row. */
export interface PitchTrack {
  /** MIDI numbers with fractions; NaN where no one pitch sounds. */
  readonly midis: Float32Array;
  /** How much of a row is that one pitch, 0 to 1. */
  readonly clarities: Float32Array;
  /** Loudness, root mean square. */
  readonly levels: Float32Array;
  readonly hopSeconds: number;
  readonly firstSeconds: number;
}

/** Samples of a window, and from one to the next: 46 ms and 10 ms; a longer window flattens vibrato. */
const WINDOW = 1024;
const HOP = 220;
/** Clear enough to be one pitch. Our choice. */
const CLEAR = 0.75;
/** Rows under this share of the loudest are silence. Our choice. */
const SILENT = 0.004;

/**
 * The pitch of every 10 ms by the McLeod pitch method. Of rows × window log window.
 * Source: McLeod & Wyvill, "A smarter way to find pitch", ICMC 2005; the package `pitchy`.
 */
export function trackPitch(samples: Float32Array): PitchTrack {
  const detector = PitchDetector.forFloat32Array(WINDOW);
  const rows = Math.max(0, Math.floor((samples.length - WINDOW) / HOP) + 1);
  const midis = new Float32Array(rows).fill(NaN);
  const clarities = new Float32Array(rows);
  const levels = new Float32Array(rows);
  let loudest = 0;
  for (let row = 0; row < rows; row += 1) {
    const part = samples.subarray(row * HOP, row * HOP + WINDOW);
    let sum = 0;
    for (const sample of part) sum += sample * sample;
    levels[row] = Math.sqrt(sum / WINDOW);
    loudest = Math.max(loudest, levels[row] ?? 0);
  }
  for (let row = 0; row < rows; row += 1) {
    if ((levels[row] ?? 0) < SILENT * loudest || loudest === 0) continue;
    const [hz, clarity] = detector.findPitch(samples.subarray(row * HOP, row * HOP + WINDOW), LISTEN_RATE);
    clarities[row] = clarity;
    if (clarity >= CLEAR && hz > 0) midis[row] = midiAt(hz);
  }
  return { midis, clarities, levels, hopSeconds: HOP / LISTEN_RATE, firstSeconds: WINDOW / 2 / LISTEN_RATE };
}

/** The rows between two times of a track or rise. */
export function rowsBetween(
  { hopSeconds, firstSeconds }: { readonly hopSeconds: number; readonly firstSeconds: number },
  from: number,
  to: number,
): readonly [number, number] {
  return [
    Math.max(0, Math.ceil((from - firstSeconds) / hopSeconds)),
    Math.max(0, Math.ceil((to - firstSeconds) / hopSeconds)),
  ];
}

/** The middle of some numbers; NaN of none. */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  if (sorted.length === 0) return NaN;
  return sorted.length % 2 === 1 ? (sorted[half] ?? NaN) : ((sorted[half - 1] ?? NaN) + (sorted[half] ?? NaN)) / 2;
}
