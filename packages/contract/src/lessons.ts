import { HEARING_KINDS, type HearingKind } from '@jam-ledger/core/hearing';
import Joi from 'joi';
import { id, line, oneOf, text, version } from './check.ts';
import { tempo, type Ledger, type LedgerPiece } from './pieces.ts';
import type { Lesson } from './series.ts';

/** Longest texts of a lesson’s summary, characters; most pieces assigned. */
export const LESSON_LIMITS = { words: 4000, home: 4000, assigned: 60, name: 300, remark: 500 } as const;

/** A piece that is assigned, at a tempo; its name as it was then. */
export interface AssignedTempo {
  readonly pieceId: string;
  readonly name: string;
  readonly bpm: number;
}

/** What a lesson came to. */
export interface LessonNoteBody {
  /** The version seen; 0 where none was kept yet. */
  readonly version: number;
  /** For the studio. */
  readonly words: string;
  /** What the student takes home. */
  readonly home: string;
  readonly assigned: readonly AssignedTempo[];
  /** Whether it is written to those at home now. */
  readonly send: boolean;
}
/** Checks `LessonNoteBody`. */
export const lessonNoteSchema: Joi.ObjectSchema<LessonNoteBody> = Joi.object<LessonNoteBody>({
  version: Joi.number().integer().min(0).max(2_000_000_000).required(),
  words: text(LESSON_LIMITS.words),
  home: text(LESSON_LIMITS.home),
  assigned: Joi.array()
    .items(Joi.object({ pieceId: id(), name: line(LESSON_LIMITS.name), bpm: tempo() }).optional())
    .max(LESSON_LIMITS.assigned)
    .unique('pieceId')
    .required(),
  send: Joi.boolean().required(),
});

/** How a summary stood at some time. */
export interface LessonNoteText {
  readonly words: string;
  readonly home: string;
  readonly assigned: readonly AssignedTempo[];
  readonly writtenBy: string;
  readonly writtenAt: string;
}

/** A summary as it stands, and what it was before, the newest first. */
export interface LessonNote extends LessonNoteText {
  readonly version: number;
  readonly day: string;
  /** Whether it can still be changed: until the next lesson has begun. */
  readonly isOpen: boolean;
  readonly before: readonly LessonNoteText[];
}

/** A summary as those at home read it. */
export interface HomeNote {
  readonly day: string;
  readonly student: { readonly id: string; readonly name: string };
  readonly home: string;
  readonly assigned: readonly AssignedTempo[];
  readonly writtenBy: string;
}

/** Whose summaries; one’s own, or those of one’s children, when left out. */
export interface HomeQuery {
  readonly studentId?: string;
}
/** Checks `HomeQuery`. */
export const homeQuerySchema: Joi.ObjectSchema<HomeQuery> = Joi.object<HomeQuery>({ studentId: id().optional() });

/** A point of a piece that was inspected. */
export interface HearingBody {
  readonly id: string;
  /** Ticks of the piece as played. */
  readonly at: number;
  readonly kind: HearingKind;
  readonly isRight: boolean;
  /** Where it was not right, perhaps empty; pinned to the event for the student. */
  readonly remark: string;
}
/** Checks `HearingBody`. */
export const hearingSchema: Joi.ObjectSchema<HearingBody> = Joi.object<HearingBody>({
  id: id(),
  at: Joi.number().integer().min(0).max(2_000_000_000).required(),
  kind: oneOf(HEARING_KINDS),
  isRight: Joi.boolean().required(),
  remark: text(LESSON_LIMITS.remark),
});

/** A point as it stands; of one point and day there is one. */
export interface Hearing extends HearingBody {
  readonly version: number;
  readonly pieceId: string;
}

/** Takes a point back, or puts it there again. */
export interface HearingChange {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `HearingChange`. */
export const hearingChangeSchema: Joi.ObjectSchema<HearingChange> = Joi.object<HearingChange>({
  version: version(),
  struck: Joi.boolean().required(),
});

/** One line inked in a lesson. */
export interface InkedLine {
  readonly entryId: string;
  readonly pieceId: string;
  readonly bpm: number;
  readonly outcome: 'clean' | 'not-yet';
  readonly percent: number;
}

/** Everything a lesson is held from: today’s lesson of a student, else the next. */
export interface LessonDay {
  /** The day the lesson counts for: today. */
  readonly day: string;
  readonly lesson: Lesson | null;
  /** The one after it. */
  readonly next: Lesson | null;
  readonly ledger: Ledger;
  /** Pieces not given yet that were planned to be begun by this lesson. */
  readonly planned: readonly LedgerPiece[];
  readonly inked: readonly InkedLine[];
  readonly hearings: readonly Hearing[];
  readonly note: LessonNote | null;
  /** The summary of the lesson before. */
  readonly last: LessonNote | null;
}
