import type { Medium, Outcome } from './pieces.ts';

/** Most results that are brought in together. */
export const ENTRIES_LIMITS = { together: 5000 } as const;

/** A result with what it was played on, as a line of a table. */
export interface EntryRow {
  readonly id: string;
  readonly day: string;
  readonly song: string;
  readonly section: string;
  readonly piece: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
  readonly percent: number;
  readonly remark: string;
  readonly postedBy: string;
}

/** Whose results; a student may leave it out. */
export interface EntriesQuery {
  readonly studentId?: string;
}

/** A result of an older book, on its day. */
export interface OldEntry {
  readonly pieceId: string;
  readonly day: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly remark: string;
}

/** Results of an older book, all of one student: all of them, or none. */
export interface EntriesBody {
  readonly studentId: string;
  readonly entries: readonly OldEntry[];
}

/** What was brought in. */
export interface EntriesBrought {
  readonly ids: readonly string[];
}

/** Results that are struck out together, or put back, by whoever brought them in. */
export interface EntriesStruck {
  readonly ids: readonly string[];
  readonly struck: boolean;
}
