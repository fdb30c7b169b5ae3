import { planSeries, type PlanningOptions } from './planSeries.ts';

/** A piece that is still to be begun. Pieces stand in the order they are learned. Days `2026-03-14`. */
export interface PieceToBegin {
  readonly id: string;
  readonly name: string;
  readonly minutes: number;
  /** Pieces still to be begun that must be begun in an earlier lesson. */
  readonly needs: readonly string[];
  /** The lesson that was accepted for it, and whether a teacher chose it by hand; null where none was. */
  readonly lesson: { readonly day: string; readonly fixed: boolean } | null;
  /** A piece it needs that is stuck, by name; null where none is. */
  readonly waitsFor: string | null;
}

/** A coming lesson. */
export interface LessonToFill {
  readonly day: string;
  /** Minutes there are for something new. */
  readonly roomMinutes: number;
}

/** A piece that is to be begun in another lesson than was accepted, and why. */
export interface LessonMove {
  readonly id: string;
  /** Null where none was accepted before. */
  readonly from: string | null;
  readonly to: string;
  readonly why: string;
}

/** Which lesson each piece is begun in by now. */
export interface SeriesReplan {
  /** Days of lessons. */
  readonly dayOf: ReadonlyMap<string, string>;
  /** Minutes of each lesson, in their order. */
  readonly loads: readonly number[];
  readonly moves: readonly LessonMove[];
  /** Pieces that find no lesson, since the lessons are too few for what is built on one another; the last in the order. */
  readonly left: readonly string[];
}

/** Minutes of a lesson there are for something new, where so many given pieces are to be heard again. */
export function roomForNew(minutes: number, toHear: number): number {
  const { talkShare, again, mostAgainShare } = LESSON_SPENDS;
  return Math.max(0, Math.floor(minutes * (1 - talkShare) - Math.min(minutes * mostAgainShare, again * toHear)));
}

/** What of a lesson goes to arriving and talk, minutes to hear a piece again, and the most that goes to that. Our choice, as the agenda has it. */
const LESSON_SPENDS = { talkShare: 0.1, again: 3, mostAgainShare: 0.5 } as const;

/**
 * Spreads the pieces that are still to be begun over the coming lessons anew. What a teacher put into a lesson by hand stays there
 * while that lesson is to come. What was accepted stays where that costs little. What needs a stuck piece waits a lesson. Where the
 * lessons are too few, the last pieces are left. Undefined where hand-made places contradict what needs what, or there is no lesson.
 * Exact as `planSeries` for what is not left; asks it a logarithmic number of times.
 */
export function replanSeries(
  pieces: readonly PieceToBegin[],
  lessons: readonly LessonToFill[],
  today: string,
  options: PlanningOptions = {},
): SeriesReplan | undefined {
  const all = replanAll(pieces, { lessons, today, options });
  if (all) return { ...all, left: [] };
  const movable = pieces.filter(({ lesson }) => lesson?.fixed !== true);
  if (lessons.length === 0) return undefined;
  /** With the last so many left. Whoever finds a way for some finds one for fewer, so that halving finds the fewest. */
  const without = (count: number) => {
    const left = new Set(movable.slice(movable.length - count));
    const some = pieces.filter((piece) => !left.has(piece));
    const replan = replanAll(some, { lessons, today, options });
    return replan && { ...replan, left: [...left].map(({ id }) => id) };
  };
  let [none, enough] = [0, movable.length];
  let found = without(enough);
  while (found && enough - none > 1) {
    const middle = Math.floor((none + enough) / 2);
    const fewer = without(middle);
    if (fewer) [enough, found] = [middle, fewer];
    else none = middle;
  }
  return found;
}

function replanAll(
  pieces: readonly PieceToBegin[],
  {
    lessons,
    today,
    options,
  }: { readonly lessons: readonly LessonToFill[]; readonly today: string; readonly options: PlanningOptions },
): Omit<SeriesReplan, 'left'> | undefined {
  const indexOf = new Map(lessons.map(({ day }, index) => [day, index]));
  const accepted = ({ lesson }: PieceToBegin) => (lesson === null ? undefined : indexOf.get(lesson.day));
  const plan = planSeries(
    pieces.map((piece) => {
      const place = accepted(piece) ?? null;
      const isFixed = piece.lesson?.fixed === true;
      const earliest = piece.waitsFor !== null && !isFixed ? 1 : 0;
      return {
        id: piece.id,
        minutes: piece.minutes,
        needs: piece.needs,
        fixed: isFixed ? place : null,
        prefer: place,
        // With a single lesson left there is nothing to wait for.
        earliest: Math.min(earliest, Math.max(0, lessons.length - 1)),
      };
    }),
    lessons,
    options,
  );
  if (!plan) return undefined;
  const dayOf = new Map(pieces.map(({ id }) => [id, lessons[plan.lessonOf.get(id) ?? 0]?.day ?? '']));
  const moves = pieces.flatMap((piece): readonly LessonMove[] => {
    const [from, to] = [piece.lesson?.day ?? null, dayOf.get(piece.id) ?? ''];
    if (from === to) return [];
    return [
      {
        id: piece.id,
        from,
        to,
        why: whyMoved(piece, { to, isThere: accepted(piece) !== undefined, today }),
      },
    ];
  });
  return { dayOf, loads: plan.loads, moves };
}

function whyMoved(
  { lesson, waitsFor, needs }: PieceToBegin,
  { to, isThere, today }: { readonly to: string; readonly isThere: boolean; readonly today: string },
): string {
  if (waitsFor !== null && lesson?.fixed !== true) return `“${waitsFor}” is stuck; this waits for it.`;
  if (lesson === null) return 'It had no lesson yet.';
  const hand = lesson.fixed ? ' It was put there by hand.' : '';
  if (!isThere && lesson.day < today) return `It was not begun then.${hand}`;
  if (!isThere) return `There is no lesson on that day any more.${hand}`;
  if (to < lesson.day) return 'There is room earlier, since others are begun or gone.';
  return needs.length > 0 ? 'What it needs is begun later, or the load stays even so.' : 'The load stays even so.';
}
