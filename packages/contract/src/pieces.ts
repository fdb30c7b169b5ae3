import {
  MEDIA,
  OUTCOMES,
  type CleanSchool,
  type LadderRules,
  type Medium,
  type NextStep,
  type Outcome,
  type PieceKind,
  type Rung,
  type Standing,
  type Excerpt,
  type TempoSchool,
} from '@jam-ledger/core/pieces';
import type { Due, Mastery, SinceLesson, SongProgress } from '@jam-ledger/core/progress';
import type { FidelitySchool, GuitarAndHand, HearingSchool, NamingSchool } from './schools.ts';
import type { SongBasics } from './songs.ts';

/** Longest remark on an entry, characters. */
export const ENTRY_LIMITS = { remark: 500, pin: 500 } as const;

/** Assigns a phrase as a practice piece. Tempos in quarter notes a minute. */
export interface PieceBody {
  readonly phraseId: string;
  readonly startBpm: number;
  readonly targetBpm: number;
  /** Slower than this the phrase loses its sense; null or left out where slower is only slower. */
  readonly floorBpm?: number | null;
  /** How hard it is for the student at the target, 0 to 100; null or left out where nobody computed it. */
  readonly difficulty?: number | null;
}

/**
 * Changed tempos of a piece; `given` whether the student has it or it is only planned, `struck` takes it out of the plan
 * altogether, and puts it back.
 */
export interface PieceChange {
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly version: number;
  readonly given: boolean;
  readonly struck: boolean;
}

/**
 * One result posted. The id is made by the sender, so that sending it again posts nothing twice. What waited on a device tells
 * when it was played and when it is sent, both by the clock of that device; what is left out was played just now.
 */
export interface EntryBody {
  readonly id: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly remark: string;
  /** How much of the piece was played, in hundredths, as a rung asks for it; all of it when left out. */
  readonly percent?: number;
  /**
   * What of the piece went round and round, where somebody chose that; null or left out for all of it. Such a result moves
   * no ladder but that of a piece that was cut there.
   */
  readonly loop?: Loop | null;
  readonly playedAt?: string;
  readonly sentAt?: string;
}

/** From where to where of a piece, ticks as played. */
export interface Loop {
  readonly from: number;
  readonly to: number;
}

/** Strikes out an entry, a pinned note or a point that was inspected; or puts it back. */
export interface Strike {
  readonly version: number;
  readonly struck: boolean;
}

/** An entry as it stands. Pencil or ink follows from who posted it. */
export interface Entry {
  readonly id: string;
  readonly version: number;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
  readonly percent: number;
  /** What of the piece it was posted to went round and round; null for all of it. */
  readonly loop: Loop | null;
  /** Whether it moves the ladder of the piece it is shown with. */
  readonly counts: boolean;
  readonly remark: string;
  readonly postedAt: string;
  /** The day in the studio's zone. */
  readonly day: string;
  readonly postedBy: { readonly id: string; readonly name: string };
  readonly struck: boolean;
}

/** What counts of a line that is not shown. */
export type EarlierResult = Pick<Entry, 'day' | 'bpm' | 'outcome' | 'medium' | 'percent'>;

/** Most lines of a piece that are answered at once. */
export const ENTRIES_SHOWN = 50;

/** A note pinned to an event of a phrase: a watch-out where a teacher wrote it, else a note to the teacher. */
export interface PinBody {
  readonly id: string;
  readonly phraseId: string;
  /** Ticks of the phrase as played. */
  readonly at: number;
  readonly text: string;
}

/** A pinned note as it stands. */
export interface Pin extends PinBody {
  readonly version: number;
  readonly by: { readonly id: string; readonly name: string; readonly teaches: boolean };
  readonly pinnedAt: string;
}

/** A stretch of a piece, and where in the piece it begins; ticks as played. */
export interface PiecePart extends Excerpt {
  readonly name: string;
  readonly at: number;
  readonly length: number;
}

/** A practice piece with everything needed to play it and to see where it stands. */
export interface Piece {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly kind: PieceKind;
  readonly student: { readonly id: string; readonly name: string };
  /** The song’s set-up; tempo and meter are those of the section. */
  readonly song: SongBasics & { readonly id: string };
  readonly section: { readonly id: string; readonly label: string; readonly role: string };
  /** What is played, put together from its parts; its name is the piece’s. */
  readonly phrase: { readonly id: string; readonly name: string; readonly text: string };
  readonly parts: readonly PiecePart[];
  /** What of the student’s hand the page needs. */
  readonly hand: Pick<GuitarAndHand, 'leftHanded' | 'spanFrets' | 'scaleLengthMm'>;
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly floorBpm: number | null;
  /** The day it was given; null while it is planned. */
  readonly assignedOn: string | null;
  readonly raising: TempoSchool;
  readonly hearing: HearingSchool;
  readonly naming: NamingSchool;
  readonly fidelity: FidelitySchool;
  readonly clean: CleanSchool;
  readonly rules: LadderRules;
  readonly rungs: readonly Rung[];
  /** The newest lines posted, at most `ENTRIES_SHOWN`, oldest first; whether there are earlier ones, and what of those counts. */
  readonly entries: readonly Entry[];
  readonly hasEarlier: boolean;
  readonly before: readonly EarlierResult[];
  readonly pins: readonly Pin[];
  readonly standing: Standing;
  readonly next: NextStep;
  /** What next steps hang on besides what is posted. */
  readonly around: { readonly canSplit: boolean; readonly join: string | null };
  /** What is really held, and when it is to be played again before it goes. */
  readonly mastery: Mastery;
  readonly due: Due | null;
  /** When the target will be reached; null once it is. */
  readonly expected: Expected | null;
}

/** What posting a result changes of a piece: the line itself, and where the piece stands by it. No larger for a long history. */
export interface Posted extends Pick<
  Piece,
  'id' | 'version' | 'standing' | 'next' | 'around' | 'mastery' | 'due' | 'expected'
> {
  readonly entry: Entry;
}

/** Lines posted before others, oldest first, and whether there are still earlier ones. */
export interface EarlierEntries {
  readonly entries: readonly Entry[];
  readonly hasEarlier: boolean;
}

/** Before which line of a piece. */
export interface EarlierQuery {
  readonly before: string;
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

/** What stands in one cell of the ledger: the day’s line, ink before pencil, and how many were posted that day. */
export interface LedgerCell {
  readonly day: string;
  readonly bpm: number;
  readonly outcome: Outcome;
  readonly medium: Medium;
  readonly percent: number;
  readonly results: number;
}

/** Where a piece stands, without its music. */
export interface LedgerPiece extends Pick<
  Piece,
  | 'id'
  | 'version'
  | 'kind'
  | 'startBpm'
  | 'targetBpm'
  | 'assignedOn'
  | 'standing'
  | 'next'
  | 'mastery'
  | 'due'
  | 'expected'
  | 'section'
> {
  readonly song: { readonly id: string; readonly title: string };
  readonly phrase: { readonly id: string; readonly name: string };
  /** The day of the newest line; null for none. */
  readonly lastDay: string | null;
  /** What stands of that day; null for nothing. */
  readonly last: Pick<LedgerCell, 'bpm' | 'outcome' | 'medium'> | null;
  /** What was posted since the last lesson; null for nothing. */
  readonly since: SinceLesson | null;
}

/** One row of the ledger with what stands in it. */
export interface LedgerRow extends LedgerPiece {
  readonly cells: readonly LedgerCell[];
}

/** How much of a song stands, by the bars of all its phrases. */
export interface LedgerSong extends SongProgress {
  readonly id: string;
  readonly title: string;
  readonly bars: number;
}

/** The ledger of one student: their pieces in the order of songs and sections, over some of the days with lines. */
export interface Ledger {
  readonly student: { readonly id: string; readonly name: string };
  readonly today: string;
  /** The days shown, oldest first, and which of them were lessons. */
  readonly days: readonly string[];
  readonly lessons: readonly string[];
  /** The newest day before those shown; null where there is none. */
  readonly earlier: string | null;
  /** The day of the last lesson; null for none yet. */
  readonly lastLesson: string | null;
  readonly songs: readonly LedgerSong[];
  readonly pieces: readonly LedgerRow[];
}

/** Most days that a ledger shows at once. */
export const LEDGER_DAYS = 30;

/** Which student's ledger; a student may leave it out. Days up to and with `until`; the newest when left out. */
export interface LedgerQuery {
  readonly studentId?: string;
  readonly until?: string;
}

export { MEDIA, OUTCOMES };
export type { Due, LadderRules, Mastery, Medium, NextStep, Outcome, PieceKind, Rung, Standing, Excerpt, TempoSchool };
