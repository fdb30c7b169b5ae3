import { resample, type Audio } from './audio.ts';
import { onsetsOf, riseOf } from './onsets.ts';
import { medianOf } from './pitchTrack.ts';

/** How late a device hears what is clapped to its click. */
export interface ClapDelay {
  /** From a click that is asked for to the clap in the recording: loudspeaker, hand and microphone together, seconds. */
  readonly seconds: number;
  /** How far claps usually fall from it: the median, seconds. */
  readonly spreadSeconds: number;
  /** Claps that were found. */
  readonly claps: number;
}

/** A clap falls so far from its click, seconds: a hand may be early, a wireless headphone is late. Our choice. */
const WINDOW = { before: 0.12, after: 0.55 } as const;
/** At least this share of the claps, no further apart. Our choice. */
const ENOUGH = { share: 0.6, spreadSeconds: 0.045 } as const;

/**
 * The delay of a device, by clapping along with its click: the median over all clicks, so that one that was missed does not matter.
 * Undefined where too few claps were heard, or they fall too unevenly.
 *
 * @param clicks when each is asked for, seconds of the recording, at least 0.7 s apart
 */
export function clapDelay(audio: Audio, clicks: readonly number[]): ClapDelay | undefined {
  const onsets = onsetsOf(riseOf(resample(audio).samples));
  const offs = clicks.flatMap((click) => {
    const near = onsets.filter(({ seconds }) => seconds > click - WINDOW.before && seconds < click + WINDOW.after);
    const strongest = Math.max(...near.map(({ strength }) => strength));
    return near.filter(({ strength }) => strength === strongest).map(({ seconds }) => seconds - click);
  });
  const seconds = medianOf(offs);
  const spreadSeconds = medianOf(offs.map((off) => Math.abs(off - seconds)));
  if (offs.length < ENOUGH.share * clicks.length || !(spreadSeconds <= ENOUGH.spreadSeconds)) return undefined;
  return { seconds, spreadSeconds, claps: offs.length };
}
