import { COMMON_TIME, readMeter, type Meter } from '../notation/index.ts';
import { barSeconds } from './tempo.ts';

/** The tempo and meter that hold from a stamp on. Seconds in the recording; quarter notes a minute. */
export interface Pace {
  readonly fromSeconds: number;
  readonly bpm: number;
  readonly meter: Meter;
}

/** A song’s paces in the order of the clock; the first also holds before its stamp. Never empty. */
export type Paces = readonly [Pace, ...Pace[]];

/** The paces of a song: the one it starts in, and its changes in any order. */
export function pacesOf(first: Omit<Pace, 'fromSeconds'>, changes: readonly Pace[]): Paces {
  const later = changes.toSorted((a, b) => a.fromSeconds - b.fromSeconds);
  return [{ ...first, fromSeconds: 0 }, ...later];
}

/** A change of tempo and meter as it is set up: the stamp, quarter notes a minute, and the meter as typed. */
export interface TypedChange {
  readonly atSeconds: number;
  readonly tempo: number;
  readonly meter: string;
}

/** The paces of a song from its set-up as typed; a meter that cannot be read is common time. */
export function readPaces(song: {
  readonly tempo: number;
  readonly meter: string;
  readonly changes: readonly TypedChange[];
}): Paces {
  const read = (meter: string) => readMeter(meter) ?? COMMON_TIME;
  const changes = song.changes.map(({ atSeconds, tempo, meter }) => ({
    fromSeconds: atSeconds,
    bpm: tempo,
    meter: read(meter),
  }));
  return pacesOf({ bpm: song.tempo, meter: read(song.meter) }, changes);
}

/** The pace in force at a place of the recording. */
export function paceAt(seconds: number, paces: Paces): Pace {
  return paces.findLast(({ fromSeconds }) => fromSeconds <= seconds) ?? paces[0];
}

/** How many bars (and parts of one) lie between two places of the recording; negative when `to` is before `from`. */
export function barsFrom(fromSeconds: number, toSeconds: number, paces: Paces): number {
  if (toSeconds < fromSeconds) return -barsFrom(toSeconds, fromSeconds, paces);
  return stretches(paces).reduce((bars, { pace, from, to }) => {
    const seconds = Math.min(to, toSeconds) - Math.max(from, fromSeconds);
    return seconds > 0 ? bars + seconds / barSeconds(pace.meter, pace.bpm) : bars;
  }, 0);
}

/** Where one is so many bars after a place of the recording, seconds. The inverse of `barsFrom`. */
export function secondsAfter(fromSeconds: number, bars: number, paces: Paces): number {
  let left = bars;
  for (const { pace, from, to } of stretches(paces)) {
    if (to <= fromSeconds) continue;
    const begin = Math.max(from, fromSeconds);
    const bar = barSeconds(pace.meter, pace.bpm);
    if (left * bar <= to - begin) return begin + left * bar;
    left -= (to - begin) / bar;
  }
  return fromSeconds;
}

interface Stretch {
  readonly pace: Pace;
  readonly from: number;
  readonly to: number;
}

function stretches(paces: Paces): readonly Stretch[] {
  return paces.map((pace, index) => ({
    pace,
    from: index === 0 ? -Infinity : pace.fromSeconds,
    to: paces[index + 1]?.fromSeconds ?? Infinity,
  }));
}
