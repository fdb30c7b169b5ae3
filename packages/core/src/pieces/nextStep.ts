import { rungAt, type Ladder } from './ladder.ts';

/** How a take went: played clean, or not yet. */
export const OUTCOMES = ['clean', 'not-yet'] as const;
/** One of the `OUTCOMES`. */
export type Outcome = (typeof OUTCOMES)[number];

/** Pencil: logged by the student alone. Ink: heard by the teacher in a lesson. */
export const MEDIA = ['pencil', 'ink'] as const;
/** One of the `MEDIA`. */
export type Medium = (typeof MEDIA)[number];

/** One result posted for a piece. Tempo in quarter notes a minute. */
export interface Result {
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
}

/** Where to go next. `keep`: the target is reached and the teacher heard it; now it only wants to be kept. */
export interface NextStep {
  readonly move: 'begin' | 'up' | 'stay' | 'down' | 'show' | 'keep';
  readonly bpm: number;
  /** Why, in words for the student. */
  readonly reason: string;
}

/** Clean results in pencil that a rung asks for; one in ink is enough. Common practice: twice is no accident. */
export const CLEAN_TO_MOVE_UP = 2;

/** Misses in a row after which the tempo comes down. Common practice. */
export const MISSES_TO_MOVE_DOWN = 2;

/**
 * What to practise next, from the results in the order they were posted. A rung is done after one clean
 * result in ink or `CLEAN_TO_MOVE_UP` in pencil at its tempo or faster since the last miss at or below it;
 * after `MISSES_TO_MOVE_DOWN` misses in a row the tempo comes down a rung.
 */
export function nextStep(history: readonly Result[], ladder: Ladder): NextStep {
  const first = ladder.rungs[0] ?? ladder.target;
  const last = history.at(-1);
  if (!last) return { move: 'begin', bpm: first, reason: `Nothing is posted yet; begin slowly at ${first}.` };
  return last.outcome === 'clean' ? afterClean(history, last, ladder) : afterMiss(history, last, ladder);
}

function afterClean(history: readonly Result[], last: Result, ladder: Ladder): NextStep {
  const index = rungAt(ladder, last.bpm);
  const bpm = ladder.rungs[index];
  if (bpm === undefined) {
    const first = ladder.rungs[0] ?? ladder.target;
    return { move: 'up', bpm: first, reason: `${last.bpm} was clean; the ladder begins at ${first}.` };
  }
  const inked = cleanSinceMiss(history, bpm).some(({ medium }) => medium === 'ink');
  const count = cleanSinceMiss(history, bpm).length;
  if (index === ladder.rungs.length - 1) return atTarget(ladder.target, inked, count);
  const next = ladder.rungs[index + 1] ?? ladder.target;
  if (inked) return { move: 'up', bpm: next, reason: `${last.bpm} was clean in a lesson; go up to ${next}.` };
  if (count >= CLEAN_TO_MOVE_UP)
    return { move: 'up', bpm: next, reason: `${bpm} was clean ${times(count)} in a row; go up to ${next}.` };
  return {
    move: 'stay',
    bpm,
    reason: `${last.bpm} was clean once; play ${bpm} clean once more, then go up to ${next}.`,
  };
}

function atTarget(target: number, inked: boolean, count: number): NextStep {
  if (inked)
    return {
      move: 'keep',
      bpm: target,
      reason: `Clean at the target of ${target} in a lesson; play it again now and then.`,
    };
  if (count >= CLEAN_TO_MOVE_UP)
    return {
      move: 'show',
      bpm: target,
      reason: `Clean at ${target} ${times(count)} at home; play it in the next lesson.`,
    };
  return { move: 'stay', bpm: target, reason: `The target of ${target} was clean once; play it clean once more.` };
}

function afterMiss(history: readonly Result[], last: Result, ladder: Ladder): NextStep {
  const index = Math.max(0, rungAt(ladder, last.bpm));
  const bpm = ladder.rungs[index] ?? ladder.target;
  const misses = history.length - 1 - history.findLastIndex(({ outcome }) => outcome === 'clean');
  const below = ladder.rungs[index - 1];
  if (misses >= MISSES_TO_MOVE_DOWN && below !== undefined)
    return {
      move: 'down',
      bpm: below,
      reason: `${misses} takes in a row were not clean, the last at ${last.bpm}; go down to ${below}.`,
    };
  const best = Math.max(
    0,
    ...history.filter(({ outcome, bpm: at }) => outcome === 'clean' && at < last.bpm).map((r) => r.bpm),
  );
  const ground = rungAt(ladder, best) < 0 || best === 0 ? undefined : ladder.rungs[rungAt(ladder, best)];
  if (ground !== undefined && ground < bpm) {
    const between = ladder.rungs[rungAt(ladder, best) + 1] ?? ground;
    const step = Math.min(between, bpm);
    return {
      move: 'stay',
      bpm: step,
      reason: `${best} was clean and ${last.bpm} not yet; stay at ${step} until it is clean.`,
    };
  }
  return { move: 'stay', bpm, reason: `${last.bpm} was not clean yet; stay at ${bpm}, slower if it takes.` };
}

/** Clean results at a tempo or faster, since the last miss at that tempo or slower. */
function cleanSinceMiss(history: readonly Result[], bpm: number): readonly Result[] {
  const missed = history.findLastIndex((result) => result.outcome === 'not-yet' && result.bpm <= bpm);
  return history.slice(missed + 1).filter((result) => result.outcome === 'clean' && result.bpm >= bpm);
}

function times(count: number): string {
  return count === 2 ? 'twice' : `${count} times`;
}

/** How fast a piece has been played clean, told apart by medium; null where nothing clean is posted. */
export interface Standing {
  readonly inkBpm: number | null;
  readonly pencilBpm: number | null;
  /** Share of the target reached, 0 to 1: by ink where there is any, else by pencil. */
  readonly share: number;
  readonly by: Medium | null;
}

/**
 * The best clean tempo in ink and in pencil, and the share of the target that counts.
 *
 * @throws RangeError when the target is not above 0.
 */
export function standingOf(history: readonly Result[], target: number): Standing {
  if (!(target > 0)) throw new RangeError(`a target tempo is above 0, not ${target}`);
  const best = (medium: Medium): number | null => {
    const clean = history.filter((result) => result.medium === medium && result.outcome === 'clean');
    return clean.length === 0 ? null : Math.max(...clean.map(({ bpm }) => bpm));
  };
  const inkBpm = best('ink');
  const pencilBpm = best('pencil');
  const by = inkBpm !== null ? 'ink' : pencilBpm !== null ? 'pencil' : null;
  return { inkBpm, pencilBpm, share: Math.min(1, (inkBpm ?? pencilBpm ?? 0) / target), by };
}
