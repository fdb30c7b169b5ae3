import type { Move } from '@jam-ledger/core/notation';

/** The parts that sound at once; one of them is the student’s. */
export const LAYERS = ['lead', 'rhythm', 'overdub', 'live alternative', 'easier'] as const;
/** One of the `LAYERS`. */
export type Layer = (typeof LAYERS)[number];

/** How sure a phrase as a whole is. */
export const CERTAINTIES = ['heard', 'seen', 'likely', 'guess', 'arranged', 'optional'] as const;
/** One of the `CERTAINTIES`. */
export type Certainty = (typeof CERTAINTIES)[number];

/** A phrase: its name, its shorthand exactly as typed, and what is known of it. */
export interface PhraseBody {
  readonly name: string;
  readonly text: string;
  readonly layer: Layer;
  readonly certainty: Certainty;
  /** Why it is no surer, or where it was seen. */
  readonly reason: string;
}

/** A changed phrase; `struck` takes it out, and puts it back. */
export interface PhraseChange extends PhraseBody {
  readonly version: number;
  readonly struck: boolean;
}

/** Draft: being written. Checked: by somebody against something. Proven: played in a lesson, and right. */
export const PHRASE_STATUSES = ['draft', 'checked', 'proven'] as const;
/** One of the `PHRASE_STATUSES`. */
export type PhraseStatus = (typeof PHRASE_STATUSES)[number];

/** A phrase found right, and against what; or taken back to a draft. */
export interface PhraseMark {
  readonly version: number;
  readonly status: PhraseStatus;
  readonly against: string;
}

/** A phrase that is another one, moved over the neck; `to` null when it stands for itself again. */
export interface PhraseReference {
  readonly version: number;
  readonly to: string | null;
  readonly move: Move;
}

/** A way to play a phrase that was made from it: its text, and in words what is different. */
export interface MadeAlternate {
  readonly name: string;
  readonly text: string;
  readonly reason: string;
}

/** Only the version of the row that the person saw. */
export interface Seen {
  readonly version: number;
}

/** A phrase as it stands. */
export interface Phrase extends PhraseBody {
  readonly id: string;
  readonly version: number;
  readonly sectionId: string;
  readonly struck: boolean;
  readonly status: PhraseStatus;
  /** Who found it right, against what, and when; empty and null for a draft. */
  readonly checkedBy: string;
  readonly checkedAgainst: string;
  readonly checkedAt: string | null;
  /** The phrase beside which it is kept as an alternate, or null. */
  readonly alternateOf: string | null;
  /** Whether it is the one of its alternates that this student plays. */
  readonly chosen: boolean;
  /** The phrase it refers to instead of repeating it, or null; and how it is moved. */
  readonly refersTo: string | null;
  readonly move: Move;
}

/** An earlier text of a phrase: how it stood until then. */
export interface PhraseRevision {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly text: string;
}
