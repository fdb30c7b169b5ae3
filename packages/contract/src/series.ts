import type { LessonChanges, LessonDate, LessonRule } from '@jam-ledger/core/series';

/** Longest texts of a series, characters; most changes of one kind, and most instalments; series on one page of their list. */
export const SERIES_LIMITS = { title: 120, goal: 120, changes: 100, part: 120, instalments: 24, page: 100 } as const;

/** A song of a series, or a part of it, and the lesson it is to be handed out in. */
export interface Instalment {
  readonly requestId: string;
  /** The part, in words; empty for all that was agreed. */
  readonly part: string;
  /** The day of that lesson; null where it is open. */
  readonly day: string | null;
  readonly delivered: boolean;
}

/** Lessons of a student by a rule, and where they lead. */
export interface SeriesBody {
  readonly studentId: string;
  readonly title: string;
  readonly rule: LessonRule;
  readonly changes: LessonChanges;
  /** What it is for: a recital, “by summer”; perhaps empty. */
  readonly goal: string;
  readonly goalDay: string | null;
  /** In the order they are handed out. */
  readonly instalments: readonly Instalment[];
}

/** A changed series; `struck` ends it, and takes that back. */
export interface SeriesChange extends SeriesBody {
  readonly version: number;
  readonly struck: boolean;
}

/** A series as it stands, with its lessons in the order of the clock. */
export interface Series extends SeriesBody {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly student: { readonly id: string; readonly name: string };
  readonly teacher: { readonly id: string; readonly name: string };
  readonly lessons: readonly LessonDate[];
  /** Lessons of the rule that fall out since the studio is closed. */
  readonly closed: readonly { readonly day: string; readonly name: string }[];
}

/** A series in a list. */
export interface SeriesLine {
  readonly id: string;
  readonly title: string;
  readonly student: { readonly id: string; readonly name: string };
  readonly teacher: { readonly id: string; readonly name: string };
  /** How many lessons it has, and the next from today on, by the clock on the studio’s wall; null where it is over. */
  readonly lessons: number;
  readonly next: { readonly day: string; readonly time: string } | null;
}

/** A page of the list of series by the names of their students, and how many there are on all of them. */
export interface SeriesList {
  readonly total: number;
  readonly series: readonly SeriesLine[];
}

/** Which series: of one student where one is named, so many of the list left out before the first. */
export interface SeriesQuery {
  readonly studentId?: string;
  readonly from?: number;
}

/** Two lessons of two series that change places. */
export interface LessonSwap {
  readonly lessons: readonly [SwappedLesson, SwappedLesson];
}
/** One of them, by the moment it begins. */
export interface SwappedLesson {
  readonly seriesId: string;
  readonly version: number;
  readonly startsAt: string;
}

/** A lesson on the desk. */
export interface Lesson {
  readonly id: string;
  readonly series: { readonly id: string; readonly title: string };
  readonly student: { readonly id: string; readonly name: string };
  /** By the clock on the studio’s wall. */
  readonly day: string;
  readonly time: string;
  readonly minutes: number;
  readonly why: LessonDate['why'];
  /** The how-many-eth of how many. */
  readonly number: number;
  readonly of: number;
}

/** Which lessons: those of so many days from today on. */
export interface LessonQuery {
  readonly days: number;
}

export type { LessonChanges, LessonDate, LessonRule };
