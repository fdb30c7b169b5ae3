import { MEDIA, OUTCOMES, PRACTICE_TEMPO_RANGE } from '@jam-ledger/core/pieces';
import type { Medium, NextStep, Outcome, Standing } from '@jam-ledger/core/pieces';
import type { Due, Mastery } from '@jam-ledger/core/progress';
import Joi from 'joi';
import { text, id, version } from './check.ts';
import type { GuitarAndHand } from './students.ts';
import type { SongBasics } from './transcriptions.ts';

/** Longest remark on an entry, characters. */
export const ENTRY_LIMITS = { remark: 500 } as const;

const tempo = () => Joi.number().integer().min(PRACTICE_TEMPO_RANGE.least).max(PRACTICE_TEMPO_RANGE.most).required();

/** Assigns a phrase as a practice piece. Tempos in quarter notes a minute. */
export interface PieceBody {
  readonly phraseId: string;
  readonly startBpm: number;
  readonly targetBpm: number;
}
const tempos = {
  startBpm: tempo(),
  targetBpm: tempo().custom((value: number, helpers) => {
    const ancestors: unknown = helpers.state.ancestors;
    const body: unknown = Array.isArray(ancestors) ? ancestors[0] : undefined;
    const start = typeof body === 'object' && body !== null && 'startBpm' in body ? body.startBpm : undefined;
    return typeof start === 'number' && start > value ? helpers.error('ladder.order') : value;
  }),
};
/** Checks `PieceBody`. */
export const pieceSchema: Joi.ObjectSchema<PieceBody> = Joi.object<PieceBody, true>({ phraseId: id(), ...tempos });

/** Changed tempos of a piece; `struck` takes it back, and gives it again. */
export interface PieceChange {
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `PieceChange`. */
export const pieceChangeSchema: Joi.ObjectSchema<PieceChange> = Joi.object<PieceChange, true>({
  ...tempos,
  version: version(),
  struck: Joi.boolean().required(),
});

/** One result posted. The id is made by the sender, so that sending it again posts nothing twice. */
export interface EntryBody {
  readonly id: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly remark: string;
}
/** Checks `EntryBody`. */
export const entrySchema: Joi.ObjectSchema<EntryBody> = Joi.object<EntryBody, true>({
  id: id(),
  bpm: tempo(),
  outcome: Joi.string()
    .valid(...OUTCOMES)
    .required(),
  remark: text(ENTRY_LIMITS.remark),
});

/** Strikes an entry out, or puts it back. */
export interface EntryChange {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `EntryChange`. */
export const entryChangeSchema: Joi.ObjectSchema<EntryChange> = Joi.object<EntryChange, true>({
  version: version(),
  struck: Joi.boolean().required(),
});

/** An entry as it stands. Pencil or ink follows from who posted it. */
export interface Entry {
  readonly id: string;
  readonly version: number;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
  readonly remark: string;
  readonly postedAt: string;
  /** The day in the studio's zone. */
  readonly day: string;
  readonly postedBy: { readonly id: string; readonly name: string };
  readonly struck: boolean;
}

/** A practice piece with everything needed to play it and to see where it stands. */
export interface Piece {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly student: { readonly id: string; readonly name: string };
  /** The song’s set-up; tempo and meter are those of the section. */
  readonly song: SongBasics & { readonly id: string };
  readonly section: { readonly id: string; readonly label: string; readonly role: string };
  readonly phrase: { readonly id: string; readonly name: string; readonly text: string };
  /** What of the student’s hand the page needs. */
  readonly hand: Pick<GuitarAndHand, 'leftHanded' | 'spanFrets' | 'scaleLengthMm'>;
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly assignedOn: string;
  readonly rungs: readonly number[];
  readonly entries: readonly Entry[];
  readonly standing: Standing;
  readonly next: NextStep;
  /** What is really held, and when it is to be played again before it goes. */
  readonly mastery: Mastery;
  readonly due: Due | null;
  /** When the target will be reached; null once it is. */
  readonly expected: Expected | null;
}

/** The days on which a target is reached with a chance of 10, 50 and 90 in 100; or why there is too little to say. */
export type Expected =
  | {
      readonly early: string;
      readonly middle: string;
      readonly late: string;
      /** The day it is wanted by, and the chance to be ready then, 0 to 1; null where no day was named. */
      readonly wanted: { readonly day: string; readonly chance: number } | null;
    }
  | { readonly tooLittle: string };

/** The ledger of one student: their pieces in the order of songs and sections. */
export interface Ledger {
  readonly student: { readonly id: string; readonly name: string };
  readonly today: string;
  readonly pieces: readonly Piece[];
}

/** Which student's ledger; a student may leave it out. */
export interface LedgerQuery {
  readonly studentId?: string;
}
/** Checks `LedgerQuery`. */
export const ledgerQuerySchema: Joi.ObjectSchema<LedgerQuery> = Joi.object<LedgerQuery>({
  studentId: id().optional(),
});

export { MEDIA, OUTCOMES };
export type { Due, Mastery, Medium, NextStep, Outcome, Standing };
