import type { WorkEstimate } from '@jam-ledger/core/desk';
import type { PieceKind } from '@jam-ledger/core/pieces';
import type { MasteryState } from '@jam-ledger/core/progress';
import type { HomeNote } from './lessons.ts';
import type { LedgerSong } from './pieces.ts';
import type { WorkPast } from './requests.ts';
import type { Series } from './series.ts';

/** A piece in a report. */
export interface ReportPiece {
  readonly id: string;
  readonly name: string;
  readonly song: string;
  readonly kind: PieceKind;
  readonly targetBpm: number;
  /** The best clean tempo in ink, and in pencil; null for none. */
  readonly inkBpm: number | null;
  readonly pencilBpm: number | null;
  readonly share: number;
  readonly state: MasteryState;
  /** What comes next, in words; empty while it is only planned. */
  readonly next: string;
  /** The day it was given; null while it is planned. */
  readonly assignedOn: string | null;
  /** The days on which its target is reached with a chance of 10, 50 and 90 in 100; null where there is too little to say. */
  readonly expected: { readonly early: string; readonly middle: string; readonly late: string } | null;
}

/** How much of everything stood on a day: by what the teacher heard, and with what was claimed at home. Shares, 0 to 1. */
export interface ReportDay {
  readonly day: string;
  readonly ink: number;
  readonly all: number;
}

/** The chance that all of it is ready by the goal day. */
export interface Readiness {
  readonly by: string;
  /** 0 to 1; null where nothing is cut yet. */
  readonly chance: number | null;
  readonly pieces: number;
  readonly ready: number;
  /** The pieces that hold it back, the least likely first. */
  readonly holdingBack: readonly { readonly name: string; readonly chance: number }[];
}

/** A series as student and guardian read it, on one page. */
export interface SeriesReport {
  readonly series: Series;
  readonly today: string;
  readonly songs: readonly LedgerSong[];
  readonly pieces: readonly ReportPiece[];
  readonly days: readonly ReportDay[];
  /** Null where no goal day is named. */
  readonly readiness: Readiness | null;
  /** What went home from its last lessons, the newest first. */
  readonly notes: readonly HomeNote[];
  /** Titles of its instalments, in their order. */
  readonly instalments: readonly {
    readonly title: string;
    readonly part: string;
    readonly day: string | null;
    readonly delivered: boolean;
  }[];
}

/** How long pieces of some difficulty took from being given until they were held. */
export interface HeldBand {
  /** From and to on the scale of difficulty, 0 to 100. */
  readonly from: number;
  readonly to: number;
  readonly pieces: number;
  readonly held: number;
  /** Half of those held were held after so many days; null for none. */
  readonly medianDays: number | null;
}

/** A week of the studio. */
export interface StudioWeek {
  /** Its Monday. */
  readonly from: string;
  readonly lessons: number;
  readonly lessonMinutes: number;
  /** What was spent on requests, of weeks that are over or begun; what is due, of those to come. */
  readonly workMinutes: number;
}

/** How the studio does. */
export interface StudioReport {
  readonly today: string;
  readonly work: readonly WorkPast[];
  /** What a request of one part is estimated at by now, from all that is past. */
  readonly onePart: WorkEstimate;
  readonly held: readonly HeldBand[];
  readonly weeks: readonly StudioWeek[];
  /** For transcribing, a week. */
  readonly workMinutes: number;
}
