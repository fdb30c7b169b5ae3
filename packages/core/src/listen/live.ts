import { PitchDetector } from 'pitchy';
import { midiAt, referenceTones, type Tuning } from '../pitch/index.ts';
import { LISTEN_RATE, loudness, resample, type Audio } from './audio.ts';
import { finePitch } from './finePitch.ts';

/** What is heard of a microphone at once, samples at the rate of listening: 93 ms. */
const WINDOW = 2048;
/** Quieter is silence, root mean square; less clear is no one pitch. Our choice. */
const QUIET = 0.003;
const CLEAR = 0.88;

let detector: PitchDetector<Float32Array> | undefined;

/**
 * The pitch that sounds just now, MIDI with a fraction; undefined where it is silent, or more than one sounds.
 *
 * @param audio the newest tenth of a second or more; the end of it is listened to
 */
export function hearNow(audio: Audio): number | undefined {
  const { samples } = resample(audio);
  const newest = samples.subarray(Math.max(0, samples.length - WINDOW));
  if (newest.length < WINDOW || loudness(newest) < QUIET) return undefined;
  detector ??= PitchDetector.forFloat32Array(WINDOW);
  const [hz, clarity] = detector.findPitch(newest, LISTEN_RATE);
  if (clarity < CLEAR || !(hz > 0)) return undefined;
  const rough = midiAt(hz);
  const fine = finePitch(newest, 0, WINDOW / LISTEN_RATE, rough);
  // In so short a stretch low partials lie close together; what they say must agree with the whole.
  return Math.abs(fine - rough) < AGREE_SEMITONES ? fine : rough;
}

const AGREE_SEMITONES = 0.15;

/** Which string a pitch is meant for, and how far off it is. */
export interface TunedString {
  /** 1 is the thinnest. */
  readonly string: number;
  /** Cents above where it should be; negative below. */
  readonly cents: number;
}

/** The open string that a pitch lies nearest to, on a guitar tuned to a recording that stands so many cents off concert pitch. */
export function nearestString(midi: number, tuning: Tuning, offsetCents = 0): TunedString {
  const all = referenceTones(tuning, offsetCents).map((tone) => ({
    string: tone.string,
    cents: 100 * (midi - tone.midi) - offsetCents,
  }));
  return all.reduce((best, one) => (Math.abs(one.cents) < Math.abs(best.cents) ? one : best));
}
