import { LESSON_MINUTES, MAX_LESSONS } from '@jam-ledger/core/series';
import type { LessonChanges, LessonDate, LessonRule } from '@jam-ledger/core/series';
import Joi from 'joi';
import { day, id, line, text, version } from './check.ts';

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

const time = () => Joi.string().max(5).required();
const count = (min: number, max: number) => Joi.number().integer().min(min).max(max).required();
const list = (item: Joi.Schema) => Joi.array().items(item).max(SERIES_LIMITS.changes).required();
const fields = {
  studentId: id(),
  title: line(SERIES_LIMITS.title),
  rule: Joi.object<LessonRule>({
    firstDay: day(),
    time: time(),
    minutes: count(LESSON_MINUTES.min, LESSON_MINUTES.max),
    everyWeeks: count(1, 52),
    weekdays: Joi.array().items(Joi.number().integer().min(1).max(7)).max(7).unique().required(),
    count: count(0, MAX_LESSONS).allow(null),
    until: day().allow(null),
  }).required(),
  changes: Joi.object<LessonChanges>({
    skips: list(day().optional()),
    moves: list(Joi.object({ from: day(), day: day(), time: time() })),
    extras: list(Joi.object({ day: day(), time: time() })),
  }).required(),
  goal: text(SERIES_LIMITS.goal),
  goalDay: day().allow(null),
  instalments: Joi.array()
    .items(
      Joi.object({
        requestId: id(),
        part: text(SERIES_LIMITS.part),
        day: day().allow(null),
        delivered: Joi.boolean().required(),
      }).optional(),
    )
    .max(SERIES_LIMITS.instalments)
    .required(),
};
/** Checks `SeriesBody`; what makes a rule sound the core says, in the zone of the studio. */
export const seriesSchema: Joi.ObjectSchema<SeriesBody> = Joi.object<SeriesBody>(fields);

/** A changed series; `struck` ends it, and takes that back. */
export interface SeriesChange extends SeriesBody {
  readonly version: number;
  readonly struck: boolean;
}
/** Checks `SeriesChange`. */
export const seriesChangeSchema: Joi.ObjectSchema<SeriesChange> = Joi.object<SeriesChange>({
  ...fields,
  version: version(),
  struck: Joi.boolean().required(),
});

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
/** Checks `SeriesQuery`. */
export const seriesQuerySchema: Joi.ObjectSchema<SeriesQuery> = Joi.object<SeriesQuery>({
  studentId: id().optional(),
  from: Joi.number().prefs({ convert: true }).integer().min(0).max(1_000_000).optional(),
});

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
/** Checks `LessonSwap`. */
export const lessonSwapSchema: Joi.ObjectSchema<LessonSwap> = Joi.object<LessonSwap>({
  lessons: Joi.array()
    .items(Joi.object({ seriesId: id(), version: version(), startsAt: Joi.string().isoDate().required() }))
    .length(2)
    .unique('seriesId')
    .required(),
});

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
/** Checks `LessonQuery`. */
export const lessonQuerySchema: Joi.ObjectSchema<LessonQuery> = Joi.object<LessonQuery>({
  days: Joi.number().prefs({ convert: true }).integer().min(1).max(60).required(),
});

export type { LessonChanges, LessonDate, LessonRule };
