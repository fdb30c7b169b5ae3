import type { LessonDate, PlanPiece } from '@jam-ledger/contract';
import type { Needs, PieceKind } from '@jam-ledger/core/pieces';
import { replanSeries, roomForNew, type LessonMove } from '@jam-ledger/core/series';

/** What showing a new piece takes in a lesson, minutes. Our choice. */
const SHOWING: Readonly<Record<PieceKind, number>> = { drill: 3, half: 5, phrase: 8, join: 5, run: 4 };

/** A coming lesson and what is begun in it. */
export interface LessonLoad {
  readonly lesson: LessonDate;
  readonly minutes: number;
  readonly room: number;
}

/** Which coming lesson each piece is begun in, how full the lessons are, and what is not as it was accepted. */
export interface LessonsPlanned {
  readonly dayOf: ReadonlyMap<string, string>;
  readonly loads: readonly LessonLoad[];
  readonly moves: readonly LessonMove[];
  /** Pieces that find no lesson. */
  readonly left: readonly string[];
}

/** What a plan of lessons hangs on. */
export interface LessonsAround {
  readonly needs: Needs;
  readonly given: ReadonlySet<string>;
  readonly nameOf: (piece: PlanPiece) => string;
  /** Whether a piece is stuck, and whether it is to be heard again in lessons. */
  readonly stateOf: (id: string) => { readonly stuck: boolean; readonly state: string };
  readonly lessons: readonly LessonDate[];
  /** How long a lesson is. */
  readonly minutes: number;
  readonly today: string;
  /** Told after each lesson how many are filled. */
  readonly onLesson?: (done: number) => void;
}

/** Spreads the pieces that are not given yet over the coming lessons; nothing where there is none, or hand-made ones contradict. */
export function planLessons(
  pieces: readonly PlanPiece[],
  { needs, given, nameOf, stateOf, lessons, minutes, today, onLesson }: LessonsAround,
): LessonsPlanned | undefined {
  const waiting = pieces.filter(({ id }) => !given.has(id));
  const toHear = pieces.filter(({ id }) => given.has(id) && stateOf(id).state !== 'held').length;
  const room = roomForNew(minutes, toHear);
  const byId = new Map(pieces.map((piece) => [piece.id, piece]));
  const replan = replanSeries(
    waiting.map((piece) => {
      const needed = needs.get(piece.id) ?? [];
      const stuck = needed.flatMap((id) => (stateOf(id).stuck ? (byId.get(id) ?? []) : []))[0];
      return {
        id: piece.id,
        name: nameOf(piece),
        minutes: SHOWING[piece.kind],
        needs: needed.filter((id) => !given.has(id)),
        lesson: piece.lesson,
        waitsFor: stuck ? nameOf(stuck) : null,
      };
    }),
    lessons.map(({ day }) => ({ day, roomMinutes: room })),
    today,
    onLesson && { onLesson },
  );
  if (!replan) return undefined;
  const loads = lessons.map((lesson, index) => ({ lesson, minutes: replan.loads[index] ?? 0, room }));
  return { dayOf: replan.dayOf, loads, moves: replan.moves, left: replan.left };
}

/** The pieces with the lessons that a plan has for them; what a teacher put into a lesson that is to come stays by hand. */
export function acceptLessons(pieces: readonly PlanPiece[], { dayOf }: LessonsPlanned): readonly PlanPiece[] {
  return pieces.map((piece) => {
    const day = dayOf.get(piece.id);
    if (day === undefined || piece.lesson?.day === day) return piece;
    return { ...piece, lesson: { day, fixed: false } };
  });
}
