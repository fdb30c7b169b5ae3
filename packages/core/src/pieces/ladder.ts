/** How a piece is brought to its tempo. */
export const TEMPO_SCHOOLS = ['small even steps', 'short fragments', 'past and back'] as const;
/** One of the `TEMPO_SCHOOLS`. */
export type TempoSchool = (typeof TEMPO_SCHOOLS)[number];

/** Slowest and fastest practice tempo, quarter notes a minute. Our choice. */
export const PRACTICE_TEMPO_RANGE = { min: 20, max: 400 } as const;

/** Widest step between two rungs, as a ratio. Common practice: one or two marks of a metronome, 4 to 8 in 100. */
export const WIDEST_STEP_RATIO = 1.08;

/** So far past the target, as a ratio, before coming back to it. Common practice: about one mark of a metronome. */
export const PAST_RATIO = 1.05;

/** How much of a piece is played at full speed, in hundredths, shortest first. Our choice. */
export const FRAGMENTS = [25, 50, 75, 100] as const;

/** What a rung asks for. */
export interface LadderRules {
  /** Clean results in pencil; one in ink is enough. */
  readonly cleanNeeded: number;
  /** Misses in a row after which it goes down a rung. */
  readonly fallsAfter: number;
  /** Unbroken practice after which a rest is due, minutes. */
  readonly restMinutes: number;
}

/** Where nobody says otherwise. Common practice: twice is no accident; ten minutes unbroken is the customary caution. */
export const USUAL_RULES: LadderRules = { cleanNeeded: 2, fallsAfter: 2, restMinutes: 10 };

/** What a ladder is built from. Tempos in quarter notes a minute. */
export interface LadderPlan {
  readonly start: number;
  readonly target: number;
  readonly school: TempoSchool;
  readonly rules?: LadderRules;
}

/** One thing to play clean: a tempo, and how much of the piece from its beginning, in hundredths. */
export interface Rung {
  readonly bpm: number;
  readonly percent: number;
}

/** The rungs of a practice piece in the order they are climbed; the last is the whole piece at the target. */
export interface Ladder {
  readonly rungs: readonly Rung[];
  readonly target: number;
  readonly school: TempoSchool;
  readonly rules: LadderRules;
}

/**
 * The rungs of a piece. Small even steps: from start to target, even in ratio, as few as keep each within `WIDEST_STEP_RATIO`
 * (tempos are whole, so that a step may be half a beat wider). Short fragments: `FRAGMENTS` at the target. Past and back: the
 * even steps, then one past the target, then the target.
 *
 * @throws RangeError for tempos out of `PRACTICE_TEMPO_RANGE`, fractional ones, or a start above the target.
 */
export function tempoLadder({ start, target, school, rules = USUAL_RULES }: LadderPlan): Ladder {
  const { min, max } = PRACTICE_TEMPO_RANGE;
  for (const tempo of [start, target])
    if (!Number.isInteger(tempo) || tempo < min || tempo > max)
      throw new RangeError(`a practice tempo is a whole number ${min}-${max}, not ${tempo}`);
  if (start > target) throw new RangeError(`a ladder starts at or below its target: ${start} is above ${target}`);
  if (school === 'short fragments')
    return { rungs: FRAGMENTS.map((percent) => ({ bpm: target, percent })), target, school, rules };
  const tempos = evenSteps(start, target);
  if (school === 'past and back')
    tempos.push(Math.min(max, Math.max(target + 1, Math.round(target * PAST_RATIO))), target);
  return { rungs: tempos.map((bpm) => ({ bpm, percent: 100 })), target, school, rules };
}

function evenSteps(start: number, target: number): number[] {
  const steps = Math.ceil(Math.log(target / start) / Math.log(WIDEST_STEP_RATIO) - 1e-9);
  const tempos = Array.from({ length: steps + 1 }, (_, index) =>
    Math.round(start * (target / start) ** (index / Math.max(1, steps))),
  );
  return [...new Set(tempos)];
}

/** A rung in words: `84`, `the first 25 % at 120`. */
export function sayRung({ bpm, percent }: Rung): string {
  return percent === 100 ? String(bpm) : `the first ${percent} % at ${bpm}`;
}
