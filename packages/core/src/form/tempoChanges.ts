import { COMMON_TIME, readMeter, type Meter } from '../notation/index.ts';
import { barSeconds } from './tempo.ts';

/** The tempo and meter that hold from a stamp on. Seconds in the recording; quarter notes a minute. */
export interface TempoChange {
  readonly fromSeconds: number;
  readonly bpm: number;
  readonly meter: Meter;
}

/** A song’s tempos in the order of the clock; the first also holds before its stamp. Never empty. */
export type TempoChanges = readonly [TempoChange, ...TempoChange[]];

/** The tempos of a song: the one it starts in, and its changes in any order. */
export function tempoChangesOf(first: Omit<TempoChange, 'fromSeconds'>, changes: readonly TempoChange[]): TempoChanges {
  const later = changes.toSorted((a, b) => a.fromSeconds - b.fromSeconds);
  return [{ ...first, fromSeconds: 0 }, ...later];
}

/** A change of tempo, meter and key as it is set up: the stamp, quarter notes a minute, meter and key as typed; an empty key goes on. */
export interface TypedChange {
  readonly atSeconds: number;
  readonly tempo: number;
  readonly meter: string;
  readonly key: string;
}

/** The tempos of a song from its set-up as typed; a meter that cannot be read is common time. */
export function readTempoChanges(song: {
  readonly tempo: number;
  readonly meter: string;
  readonly changes: readonly Omit<TypedChange, 'key'>[];
}): TempoChanges {
  const read = (meter: string) => readMeter(meter) ?? COMMON_TIME;
  const changes = song.changes.map(({ atSeconds, tempo, meter }) => ({
    fromSeconds: atSeconds,
    bpm: tempo,
    meter: read(meter),
  }));
  return tempoChangesOf({ bpm: song.tempo, meter: read(song.meter) }, changes);
}

/** The tempo and meter in force at a place of the recording. */
export function tempoAt(seconds: number, tempoChanges: TempoChanges): TempoChange {
  return tempoChanges.findLast(({ fromSeconds }) => fromSeconds <= seconds) ?? tempoChanges[0];
}

/** The key in force at a place of the recording, as it was typed. */
export function keyTextAt(
  seconds: number,
  { key, changes }: { readonly key: string; readonly changes: readonly Pick<TypedChange, 'atSeconds' | 'key'>[] },
): string {
  const said = changes.filter((change) => change.atSeconds <= seconds && change.key.trim() !== '');
  return said.toSorted((a, b) => b.atSeconds - a.atSeconds)[0]?.key ?? key;
}

/** The changes of a song with the one at a place said anew; nothing takes it out. In the order of the clock. */
export function changesWith<Change extends TypedChange>(
  changes: readonly Change[],
  atSeconds: number,
  here: Change | undefined,
): readonly Change[] {
  const others = changes.filter((change) => change.atSeconds !== atSeconds);
  return [...others, ...(here ? [here] : [])].toSorted((a, b) => a.atSeconds - b.atSeconds);
}

/** How many bars (and parts of one) lie between two places of the recording; negative when `to` is before `from`. */
export function barsFrom(fromSeconds: number, toSeconds: number, tempoChanges: TempoChanges): number {
  if (toSeconds < fromSeconds) return -barsFrom(toSeconds, fromSeconds, tempoChanges);
  return stretches(tempoChanges).reduce((bars, { tempoChange, from, to }) => {
    const seconds = Math.min(to, toSeconds) - Math.max(from, fromSeconds);
    return seconds > 0 ? bars + seconds / barSeconds(tempoChange.meter, tempoChange.bpm) : bars;
  }, 0);
}

/** Where one is so many bars after a place of the recording, seconds. The inverse of `barsFrom`. */
export function secondsAfter(fromSeconds: number, bars: number, tempoChanges: TempoChanges): number {
  let left = bars;
  for (const { tempoChange, from, to } of stretches(tempoChanges)) {
    if (to <= fromSeconds) continue;
    const begin = Math.max(from, fromSeconds);
    const bar = barSeconds(tempoChange.meter, tempoChange.bpm);
    if (left * bar <= to - begin) return begin + left * bar;
    left -= (to - begin) / bar;
  }
  return fromSeconds;
}

interface Stretch {
  readonly tempoChange: TempoChange;
  readonly from: number;
  readonly to: number;
}

function stretches(tempoChanges: TempoChanges): readonly Stretch[] {
  return tempoChanges.map((tempoChange, index) => ({
    tempoChange,
    from: index === 0 ? -Infinity : tempoChange.fromSeconds,
    to: tempoChanges[index + 1]?.fromSeconds ?? Infinity,
  }));
}
