import { tempoAt, barsFrom, secondsAfter, type TempoChanges } from './tempoChanges.ts';
import { playForm, type FormSection, type PlayedSection } from './playForm.ts';
import { quartersOf } from './tempo.ts';

/** One time round a section, with its place in the recording, seconds. */
export interface TimedRound extends PlayedSection {
  readonly fromSeconds: number;
  readonly toSeconds: number;
}

/** A place in the song as musicians name it; bars and beats from 1, the beat with its fraction. */
export interface SongPlace {
  readonly id: string;
  readonly label: string;
  readonly pass: number;
  /** Bar of this time round the section, and of the whole song written out. */
  readonly bar: number;
  readonly songBar: number;
  readonly beat: number;
}

/**
 * The playing order against the clock: where a section is first heard, its stamp counts, if it is known; the rounds after it follow
 * one another by their bars, but for those that have a stamp of their own.
 */
export function timeForm(sections: readonly FormSection[], tempoChanges: TempoChanges): readonly TimedRound[] {
  const stamps = new Map(
    sections.flatMap(({ id, startSeconds, startKnown }, index) =>
      startKnown === false && index > 0 ? [] : [[id, startSeconds] as const],
    ),
  );
  const returns = new Map(sections.map((section) => [section.id, section.returns]));
  let now = 0;
  return playForm(sections).rounds.map((round) => {
    const stamp = round.visit === 1 ? stamps.get(round.id) : returns.get(round.id)?.get(round.visit);
    const fromSeconds = stamp ?? now;
    const toSeconds = secondsAfter(fromSeconds, round.bars, tempoChanges);
    now = toSeconds;
    return { ...round, fromSeconds, toSeconds };
  });
}

/** The section, bar and beat at a place of the recording; undefined before the first section and after the last. */
export function placeAt(
  seconds: number,
  rounds: readonly TimedRound[],
  tempoChanges: TempoChanges,
): SongPlace | undefined {
  const round = rounds.findLast(({ fromSeconds }) => fromSeconds <= seconds);
  if (!round || (round === rounds.at(-1) && seconds > round.toSeconds)) return undefined;
  const { meter } = tempoAt(seconds, tempoChanges);
  const bars = barsFrom(round.fromSeconds, seconds, tempoChanges);
  // A stamp that is a rounding error short of a bar line is that bar line.
  const whole = Math.floor(bars + 1e-9);
  const beat = 1 + Math.max(0, bars - whole) * quartersOf(meter) * (meter.unit / 4);
  const { id, label, pass, firstBar } = round;
  return { id, label, pass, bar: whole + 1, songBar: firstBar + whole, beat };
}
