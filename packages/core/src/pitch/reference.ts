import { hzOf } from './pitch.ts';
import type { Tuning } from './tuning.ts';

/** The open string of a guitar that is tuned to a recording. */
export interface ReferenceTone {
  /** 1 is the thinnest. */
  readonly string: number;
  readonly midi: number;
  readonly hz: number;
}

/** What every open string sounds when the guitar is tuned to a recording that stands so many cents off A4 = 440 Hz. */
export function referenceTones(tuning: Tuning, offsetCents: number): readonly ReferenceTone[] {
  return tuning.openMidis.map((midi, index) => ({ string: index + 1, midi, hz: hzOf(midi, undefined, offsetCents) }));
}

/**
 * How many times faster a recording must run to stand at A4 = 440 Hz, where the guitar is left as it is: 2^(-cents/1200).
 * Source: equal temperament, 1200 cents to the octave.
 */
export function playbackRatio(offsetCents: number): number {
  return 2 ** (-offsetCents / 1200);
}
