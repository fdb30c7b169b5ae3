import type { LessonDate, PlanPiece } from '@jam-ledger/contract';
import { needsOf, replan, type LearningSchool, type Needs, type Replanned } from '@jam-ledger/core/pieces';
import { expose } from 'comlink';
import { propose, type LineState, type PlanMaking } from './planEdits.ts';
import { planLessons, type LessonsPlanned } from './planLessons.ts';

/** A plan as it stands, and the lessons that are to come. */
export interface PlanJob {
  readonly pieces: readonly PlanPiece[];
  /** Of each piece, in their order. */
  readonly names: readonly string[];
  readonly states: readonly Pick<LineState, 'state' | 'share' | 'stuck'>[];
  readonly given: ReadonlySet<string>;
  readonly lessons: readonly LessonDate[];
  /** How long a lesson is. */
  readonly minutes: number;
  readonly today: string;
}

/** What follows from a plan: what needs what, what it proposes itself, and which lesson each piece is begun in. */
export interface PlanConsidered {
  readonly needs: Needs;
  readonly replanned: Replanned;
  readonly planned: LessonsPlanned | undefined;
}

/** What new pieces are made with, without what makes their ids. */
export type PlanStuff = Omit<PlanMaking, 'newId'>;

const planner = {
  /** Told after each lesson that is filled: how many of how many. */
  consider(
    { pieces, names, states, given, lessons, minutes, today }: PlanJob,
    onLesson: (done: number, of: number) => void,
  ): PlanConsidered {
    const needs = needsOf(pieces);
    const byId = new Map(pieces.map(({ id }, index) => [id, { name: names[index] ?? '', state: states[index] }]));
    const nameOf = ({ id }: PlanPiece) => byId.get(id)?.name ?? '';
    const stateOf = (id: string) => byId.get(id)?.state ?? { state: 'not begun', share: 0, stuck: false };
    const replanned = replan(
      pieces.map((piece) => {
        const { state, share, stuck } = stateOf(piece.id);
        const standing = { held: state === 'held', slipping: state === 'slipping', share, stuck };
        return { ...piece, ...standing, name: nameOf(piece), given: given.has(piece.id) };
      }),
      needs,
    );
    const around = { needs, given, nameOf, stateOf, lessons, minutes, today };
    const planned = planLessons(pieces, { ...around, onLesson: (done) => onLesson(done, lessons.length) });
    return { needs, replanned, planned };
  },

  /** The plan that a school proposes. */
  propose(
    pieces: readonly PlanPiece[],
    {
      school,
      stuff,
      given,
    }: { readonly school: LearningSchool; readonly stuff: PlanStuff; readonly given: ReadonlySet<string> },
  ): readonly PlanPiece[] {
    return propose(pieces, school, { ...stuff, newId: () => crypto.randomUUID() }, given);
  },
};

/** What the page can ask of this worker. */
export type Planner = typeof planner;

expose(planner);
