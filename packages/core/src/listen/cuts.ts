import type { Onset } from './onsets.ts';
import { medianOf, rowsBetween, type PitchTrack } from './pitchTrack.ts';

/** Where something new sounds, and what it is until the next. */
export interface Cut {
  readonly seconds: number;
  /** Until the next cut, or until it is silent. */
  readonly until: number;
  /** How strong its attack is; 0 where the pitch alone changed. */
  readonly strength: number;
  /** The pitch it settles at, MIDI with a fraction; NaN where there is no one pitch. */
  readonly midi: number;
  /** Share of its rows that have one pitch, 0 to 1. */
  readonly voiced: number;
  /** Loudness at its loudest. */
  readonly level: number;
  /** Whether the pitch is what it was just before: a string beside it stopped, or the same note is played again. */
  readonly again: boolean;
}

/** A change of pitch between two steady stretches of so many rows, so many rows apart, of at least so many semitones. Our choice. */
const STEP = { rows: 4, gap: 5, semitones: 0.8, steady: 0.35 } as const;
/** A step so near to an onset is that onset, seconds. */
const SAME_SECONDS = 0.055;
/** The attack itself has no pitch yet, seconds; then so much is looked at. */
const ATTACK_SECONDS = 0.028;
const LOOK_SECONDS = 0.3;
const BEFORE_SECONDS = 0.07;

/** Onsets and sudden steps of pitch, as hammers, pulls and slides make them, each with what sounds from there on. Linear. */
export function cutsOf(onsets: readonly Onset[], track: PitchTrack): readonly Cut[] {
  const starts = [
    ...onsets,
    ...stepsOf(track)
      .filter((step) => !onsets.some(({ seconds }) => near(seconds, step)))
      .map((seconds) => ({ seconds, strength: 0 })),
  ].sort((a, b) => a.seconds - b.seconds);
  const end = track.firstSeconds + track.midis.length * track.hopSeconds;
  return starts.map(({ seconds, strength }, index) => {
    const until = starts[index + 1]?.seconds ?? end;
    const sound = soundOf(track, seconds, until);
    const before = medianOf([
      ...track.midis.subarray(...rowsBetween(track, seconds - BEFORE_SECONDS, seconds - 0.015)),
    ]);
    return { seconds, until, strength, ...sound, again: Math.abs(before - sound.midi) < 0.4 };
  });
}

const near = (a: number, b: number) => Math.abs(a - b) < SAME_SECONDS;

/** Times at which the pitch jumps. */
function stepsOf({ midis, hopSeconds, firstSeconds }: PitchTrack): readonly number[] {
  const steps: number[] = [];
  for (let row = STEP.rows; row + STEP.gap + STEP.rows < midis.length; row += 1) {
    const before = steadyOf(midis, row - STEP.rows);
    const after = steadyOf(midis, row + STEP.gap);
    if (!(Math.abs(after - before) >= STEP.semitones)) continue;
    const half = (before + after) / 2;
    let at = row;
    while (at < row + STEP.gap && Math.sign((midis[at] ?? NaN) - half) !== Math.sign(after - half)) at += 1;
    steps.push(firstSeconds + at * hopSeconds);
    row += STEP.gap;
  }
  return steps;
}

/** The pitch of a stretch that stays where it is; NaN of any other. */
function steadyOf(midis: Float32Array, from: number): number {
  let low = Infinity;
  let high = -Infinity;
  for (let row = from; row < from + STEP.rows; row += 1) {
    const midi = midis[row] ?? NaN;
    if (Number.isNaN(midi)) return NaN;
    low = Math.min(low, midi);
    high = Math.max(high, midi);
  }
  return high - low <= STEP.steady ? (low + high) / 2 : NaN;
}

function soundOf(track: PitchTrack, seconds: number, until: number): Pick<Cut, 'midi' | 'voiced' | 'level'> {
  const to = Math.min(until, seconds + LOOK_SECONDS);
  const [from, end] = rowsBetween(track, Math.min(seconds + ATTACK_SECONDS, (seconds + to) / 2), to - 0.012);
  const midis: number[] = [];
  let level = 0;
  for (let row = from; row < Math.max(end, from + 1); row += 1) {
    const midi = track.midis[row] ?? NaN;
    if (!Number.isNaN(midi)) midis.push(midi);
    level = Math.max(level, track.levels[row] ?? 0);
  }
  return { midi: medianOf(midis), voiced: midis.length / Math.max(1, end - from), level };
}
