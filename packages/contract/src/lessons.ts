import type { HearingKind } from '@jam-ledger/core/hearing';
import type { Ledger, LedgerPiece } from './pieces.ts';
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

/** A point as it stands; of one point and day there is one. */
export interface Hearing extends HearingBody {
  readonly version: number;
  readonly pieceId: string;
}

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
  readonly student: Ledger['student'];
  /** The pieces that were given, in the order of the ledger. */
  readonly pieces: readonly LedgerPiece[];
  /** Pieces not given yet that were planned to be begun by this lesson. */
  readonly planned: readonly LedgerPiece[];
  readonly inked: readonly InkedLine[];
  readonly hearings: readonly Hearing[];
  readonly note: LessonNote | null;
  /** The summary of the lesson before. */
  readonly last: LessonNote | null;
}
