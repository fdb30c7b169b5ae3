/** How tempo is raised: small even steps from slow to the target. */
export type TempoSchool = 'even-steps';

/** Slowest and fastest practice tempo, quarter notes a minute. Our choice. */
export const PRACTICE_TEMPO_RANGE = { least: 20, most: 400 } as const;

/**
 * Widest step between two rungs, as a share of the target. Our choice; metronome practice commonly goes up
 * by 4 to 8 beats around 100.
 */
export const WIDEST_STEP_SHARE = 0.07;

/** What a ladder is built from. Tempos in quarter notes a minute. */
export interface LadderPlan {
  readonly start: number;
  readonly target: number;
  readonly school: TempoSchool;
}

/** The tempos of a practice piece, rising, whole quarter notes a minute; the last is the target. */
export interface Ladder {
  readonly rungs: readonly number[];
  readonly target: number;
}

/**
 * The rungs from `start` to `target` in as few even steps as keep each within `WIDEST_STEP_SHARE` of the
 * target (rounded to whole beats, so steps differ by one at most).
 *
 * @throws RangeError for tempos out of `PRACTICE_TEMPO_RANGE`, fractional ones, or a start above the target.
 */
export function tempoLadder({ start, target }: LadderPlan): Ladder {
  const { least, most } = PRACTICE_TEMPO_RANGE;
  for (const tempo of [start, target])
    if (!Number.isInteger(tempo) || tempo < least || tempo > most)
      throw new RangeError(`a practice tempo is a whole number ${least}-${most}, not ${tempo}`);
  if (start > target) throw new RangeError(`a ladder starts at or below its target: ${start} is above ${target}`);
  const widest = Math.max(1, target * WIDEST_STEP_SHARE);
  const steps = Math.ceil((target - start) / widest);
  const rungs = Array.from({ length: steps + 1 }, (_, index) =>
    Math.round(start + ((target - start) * index) / Math.max(1, steps)),
  );
  return { rungs: [...new Set(rungs)], target };
}

/** The index of the highest rung not above a tempo; -1 when the tempo is below the first. */
export function rungAt(ladder: Ladder, bpm: number): number {
  return ladder.rungs.findLastIndex((rung) => rung <= bpm);
}
