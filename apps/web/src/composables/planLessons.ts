import type { LessonDate, PlanPiece } from '@jam-ledger/contract';
import type { Needs, PieceKind } from '@jam-ledger/core/pieces';
import { planSeries } from '@jam-ledger/core/series';

/** What showing a new piece takes in a lesson, minutes. Our choice. */
const SHOWING: Readonly<Record<PieceKind, number>> = { drill: 3, half: 5, phrase: 8, join: 5, run: 4 };

/** The share of a lesson there is for something new; the rest hears again. Our choice. */
const NEW_SHARE = 0.5;

/** A coming lesson and what is begun in it. */
export interface LessonLoad {
  readonly lesson: LessonDate;
  readonly minutes: number;
  readonly room: number;
}

/** Which coming lesson each piece is begun in, and how full the lessons are; nothing where they are too few. */
export interface LessonsPlanned {
  readonly lessonOf: ReadonlyMap<string, LessonDate>;
  readonly loads: readonly LessonLoad[];
}

/** Spreads the pieces that are not given yet over the coming lessons, in the order of the plan, evenly. */
export function planLessons(
  pieces: readonly PlanPiece[],
  {
    needs,
    given,
    lessons,
    minutes,
  }: {
    readonly needs: Needs;
    readonly given: ReadonlySet<string>;
    readonly lessons: readonly LessonDate[];
    /** How long a lesson is. */
    readonly minutes: number;
  },
): LessonsPlanned | undefined {
  const waiting = pieces.filter(({ id }) => !given.has(id));
  const room = minutes * NEW_SHARE;
  const plan = planSeries(
    waiting.map(({ id, kind }) => ({ id, minutes: SHOWING[kind], needs: needs.get(id) ?? [], fixed: null })),
    lessons.map(() => ({ roomMinutes: room })),
  );
  if (!plan) return undefined;
  const lessonOf = new Map(
    [...plan.lessonOf].flatMap(([id, index]) => {
      const lesson = lessons[index];
      return lesson ? [[id, lesson] as const] : [];
    }),
  );
  return { lessonOf, loads: lessons.map((lesson, index) => ({ lesson, minutes: plan.loads[index] ?? 0, room })) };
}
