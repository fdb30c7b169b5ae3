import { sayRung, type Ladder, type Rung } from './ladder.ts';
import { isWhole, NEAR_TARGET, type Result } from './result.ts';

/**
 * What to do next. `show`: clean at home, the teacher is to hear it. `keep`: heard at the target, it only wants to be kept.
 * `split`: shorter pieces first. `join`: on into the piece after it. `call`: it takes the teacher.
 */
export type Move = 'begin' | 'up' | 'stay' | 'down' | 'show' | 'keep' | 'split' | 'join' | 'rest' | 'call';

/** Where to go next: a rung of the ladder, and why. */
export interface NextStep extends Rung {
  readonly move: Move;
  /** Why, in words for the student. */
  readonly reason: string;
}

/** Whether more of the same does not help: it wants to be split, or the teacher. */
export function isStuck({ move }: Pick<NextStep, 'move'>): boolean {
  return move === 'split' || move === 'call';
}

/** What stands around a piece. */
export interface StepContext {
  /** Whether it could be cut into shorter ones. */
  readonly canSplit?: boolean;
  /** The piece that leads from this one into the next, by name, where one waits. */
  readonly join?: string | undefined;
  /** Minutes of unbroken practice so far. */
  readonly minutes?: number;
}

/** Misses since it last got better, after which more of the same does not help. Our choice. */
export const MISSES_WHEN_STUCK = 5;

/**
 * What to practise next, from the results in the order they were posted. A rung is done after one clean result in ink or
 * `cleanNeeded` in pencil on it or above since the last miss on it or below; after `fallsAfter` misses in a row it goes down
 * a rung; a result below the ladder changes nothing of where it stands; after `MISSES_WHEN_STUCK` misses without a new best the piece is split, or the teacher is called. The same history
 * always gives the same answer. Linear in the results.
 */
export function nextStep(history: readonly Result[], ladder: Ladder, context: StepContext = {}): NextStep {
  return new Climb(history, ladder, context).next();
}

class Climb {
  readonly #history: readonly Result[];
  readonly #ladder: Ladder;
  readonly #context: StepContext;
  /** Rungs by rising height; the way back to the target at the end of “past and back” is no rung of its own here. */
  readonly #rungs: readonly Rung[];

  constructor(history: readonly Result[], ladder: Ladder, context: StepContext) {
    this.#history = history;
    this.#ladder = ladder;
    this.#context = context;
    this.#rungs = ladder.school === 'past and back' ? ladder.rungs.slice(0, -1) : ladder.rungs;
  }

  next(): NextStep {
    const last = this.#history.at(-1);
    const step = this.#climb(last);
    const { minutes = 0 } = this.#context;
    const { restMinutes } = this.#ladder.rules;
    if (minutes < restMinutes) return step;
    const reason = `${Math.floor(minutes)} minutes without a break: shake the hands out and rest, then go on at ${step.bpm}.`;
    return { ...step, move: 'rest', reason };
  }

  #climb(last: Result | undefined): NextStep {
    const below = this.#belowTheLadder(last);
    if (below) return below;
    const first = this.#rung(0);
    if (!last) {
      const how = this.#ladder.school === 'short fragments' ? 'begin with' : 'begin slowly at';
      return go('begin', first, `Nothing is posted yet; ${how} ${sayRung(first)}.`);
    }
    if (last.outcome === 'clean') return this.#afterClean(last);
    return this.#whenStuck(last) ?? this.#afterMiss(last);
  }

  /**
   * What to do after a result below the first rung, where there was one on the ladder before: a slow take says nothing of the rung
   * that was reached. It goes on where it stood, and down a rung only after as many misses in a row as take it down anywhere.
   */
  #belowTheLadder(last: Result | undefined): NextStep | undefined {
    const onLadder = this.#history.filter((result) => this.#rungOf(result) >= 0);
    const reached = onLadder.at(-1);
    if (!last || !reached || this.#rungOf(last) >= 0) return undefined;
    const stood = new Climb(onLadder, this.#ladder, this.#context).#climb(reached);
    const index = this.#rungOf(stood);
    if (index <= 0) return undefined;
    if (last.outcome === 'clean') return stood;
    const misses = this.#missesInARow();
    return this.#whenStuck(last) ?? (misses >= this.#ladder.rules.fallsAfter ? this.#fall(last, index, misses) : stood);
  }

  /** Misses since the last clean result. */
  #missesInARow(): number {
    return this.#history.length - 1 - this.#history.findLastIndex(({ outcome }) => outcome === 'clean');
  }

  #fall(last: Result, index: number, misses: number): NextStep {
    const below = this.#rung(index - 1);
    const row = misses === 1 ? 'The last take was' : `${misses} takes in a row were`;
    return go('down', below, `${row} not clean, the last at ${last.bpm}; go down to ${sayRung(below)}.`);
  }

  #rung(index: number): Rung {
    return this.#rungs[index] ?? { bpm: this.#ladder.target, percent: 100 };
  }

  /** How high a result is, in the measure of the rungs: hundredths at full speed, or tempo. */
  #height({ bpm, percent = 100 }: Rung | Result): number {
    if (this.#ladder.school !== 'short fragments') return percent === 100 ? bpm : 0;
    return bpm >= this.#ladder.target * NEAR_TARGET ? percent : 0;
  }

  /** The highest rung not above a result; -1 when it is below the first. */
  #rungOf(result: Rung | Result): number {
    const height = this.#height(result);
    return this.#rungs.findLastIndex((rung) => this.#height(rung) <= height);
  }

  /** Clean results on a rung or above, since the last miss on it or below. */
  #cleanOn(rung: Rung): readonly Result[] {
    const height = this.#height(rung);
    const missed = this.#history.findLastIndex((one) => one.outcome === 'not-yet' && this.#height(one) <= height);
    return this.#history.slice(missed + 1).filter((one) => one.outcome === 'clean' && this.#height(one) >= height);
  }

  #afterClean(last: Result): NextStep {
    const played = sayRung({ bpm: last.bpm, percent: last.percent ?? 100 });
    const index = this.#rungOf(last);
    if (index < 0) {
      const first = this.#rung(0);
      return go('up', first, `${played} was clean; the ladder begins at ${sayRung(first)}.`);
    }
    const rung = this.#rung(index);
    const clean = this.#cleanOn(rung);
    const inked = clean.some(({ medium }) => medium === 'ink');
    const { cleanNeeded } = this.#ladder.rules;
    const enough = inked || clean.length >= cleanNeeded;
    if (this.#isTarget(rung) && this.#hasBeenPast()) return this.#atTarget(clean);
    if (index === this.#rungs.length - 1)
      return this.#ladder.school === 'past and back' ? this.#past(enough, clean.length) : this.#atTarget(clean);
    const next = this.#rung(index + 1);
    if (inked) return go('up', next, `${played} was clean in a lesson; go up to ${sayRung(next)}.`);
    if (enough)
      return go('up', next, `${sayRung(rung)} was clean ${times(clean.length)} in a row; go up to ${sayRung(next)}.`);
    const more = cleanNeeded - clean.length;
    return go(
      'stay',
      rung,
      `${played} was clean ${times(clean.length)}; play ${sayRung(rung)} clean ${more === 1 ? 'once' : times(more)} more, then go up to ${sayRung(next)}.`,
    );
  }

  #isTarget({ bpm, percent }: Rung): boolean {
    return bpm === this.#ladder.target && percent === 100;
  }

  /** Whether it was clean past the target, where that is the way. */
  #hasBeenPast(): boolean {
    if (this.#ladder.school !== 'past and back') return true;
    const past = this.#rung(this.#rungs.length - 1).bpm;
    return this.#history.some((one) => one.outcome === 'clean' && isWhole(one) && one.bpm >= past);
  }

  #past(enough: boolean, count: number): NextStep {
    const { target } = this.#ladder;
    const past = this.#rung(this.#rungs.length - 1);
    if (enough)
      return go(
        'down',
        { bpm: target, percent: 100 },
        `${past.bpm} was clean, past the target; back to ${target}, which is easy now.`,
      );
    return go('stay', past, `${past.bpm} was clean ${times(count)}; once more, then back to ${target}.`);
  }

  #atTarget(clean: readonly Result[]): NextStep {
    const { target, rules } = this.#ladder;
    const whole: Rung = { bpm: target, percent: 100 };
    const { join } = this.#context;
    if (clean.some(({ medium }) => medium === 'ink')) {
      const heard = `Clean at the target of ${target} in a lesson`;
      if (join !== undefined) return go('join', whole, `${heard}; go on with “${join}”, without stopping at the seam.`);
      return go('keep', whole, `${heard}; play it again now and then.`);
    }
    if (clean.length >= rules.cleanNeeded)
      return go('show', whole, `Clean at ${target} ${times(clean.length)} at home; play it in the next lesson.`);
    const more = rules.cleanNeeded - clean.length;
    const again = more === 1 ? 'once' : times(more);
    return go('stay', whole, `The target of ${target} was clean ${times(clean.length)}; play it clean ${again} more.`);
  }

  /** Split or call, where misses pile up and nothing gets better. */
  #whenStuck(last: Result): NextStep | undefined {
    let best = 0;
    let misses = 0;
    for (const result of this.#history) {
      if (result.outcome === 'not-yet') misses += 1;
      else if (this.#height(result) > best) {
        best = this.#height(result);
        misses = 0;
      }
    }
    if (misses < MISSES_WHEN_STUCK) return undefined;
    const index = Math.max(
      0,
      this.#rungs.findLastIndex((rung) => this.#height(rung) <= best),
    );
    const rung = this.#rung(index);
    const stuck = `${misses} takes were not clean since it last got better, the last at ${last.bpm}`;
    if (this.#context.canSplit)
      return go('split', rung, `${stuck}; play it in halves, each alone, then together at ${sayRung(rung)}.`);
    return go('call', rung, `${stuck}; leave it at ${sayRung(rung)} and ask your teacher.`);
  }

  #afterMiss(last: Result): NextStep {
    const { fallsAfter } = this.#ladder.rules;
    const index = Math.max(0, this.#rungOf(last));
    const rung = this.#rung(index);
    const misses = this.#missesInARow();
    const played = sayRung({ bpm: last.bpm, percent: last.percent ?? 100 });
    if (misses >= fallsAfter && index > 0) return this.#fall(last, index, misses);
    const between = this.#between(last, index);
    if (between)
      return go(
        'stay',
        between.rung,
        `${between.clean} was clean and ${played} not yet; stay at ${sayRung(between.rung)} until it is clean.`,
      );
    return go('stay', rung, `${played} was not clean yet; stay at ${sayRung(rung)}, slower if it takes.`);
  }

  /** The rung after what was clean below a miss, where that is below the miss. */
  #between(last: Result, index: number): { readonly rung: Rung; readonly clean: string } | undefined {
    const under = this.#history.filter((one) => one.outcome === 'clean' && this.#height(one) < this.#height(last));
    const best = under.reduce<Result | undefined>(
      (top, one) => (top === undefined || this.#height(one) > this.#height(top) ? one : top),
      undefined,
    );
    const ground = best === undefined ? -1 : this.#rungOf(best);
    if (best === undefined || ground < 0 || ground >= index) return undefined;
    return { rung: this.#rung(ground + 1), clean: sayRung({ bpm: best.bpm, percent: best.percent ?? 100 }) };
  }
}

function go(move: Move, { bpm, percent }: Rung, reason: string): NextStep {
  return { move, bpm, percent, reason };
}

function times(count: number): string {
  return count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`;
}
