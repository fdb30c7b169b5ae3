import type { Phrase } from './phrases.ts';

/** What can be copied for another student. */
export const COPY_KINDS = ['song', 'section', 'phrase'] as const;

/** A copy that is asked for. */
export interface CopyBody {
  readonly kind: (typeof COPY_KINDS)[number];
  readonly id: string;
  readonly studentId: string;
  /** The song of theirs that it goes into, at its end; null begins one. */
  readonly songId: string | null;
  /** Whether its phrases follow the original until they are changed. */
  readonly follows: boolean;
}

/** A phrase as it would be copied. */
export interface CopiedPhrase {
  readonly name: string;
  readonly section: string;
  readonly before: string;
  readonly after: string;
  /** What is other than in the original, and what could not be fitted, in sentences. */
  readonly changes: readonly string[];
  readonly left: readonly string[];
}

/** What a copy would come to. */
export interface CopyPreview {
  readonly title: string;
  /** The tuning it is written for. */
  readonly tuning: string;
  readonly phrases: readonly CopiedPhrase[];
}

/** A lick of a teacher’s own, for nobody yet: no student, song, clock or tempo. */
export interface LickBody {
  readonly name: string;
  readonly text: string;
  readonly key: string;
}

/** Where a lick was written down. */
export interface LickWritten {
  readonly songId: string;
  readonly phraseId: Phrase['id'];
}
