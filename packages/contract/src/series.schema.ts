import { LESSON_MINUTES, MAX_LESSONS, type LessonChanges, type LessonRule } from '@jam-ledger/core/series';
import Joi from 'joi';
import {
  SERIES_LIMITS,
  type Instalment,
  type LessonQuery,
  type LessonSwap,
  type SeriesBody,
  type SeriesChange,
  type SeriesQuery,
  type SwappedLesson,
} from './series.ts';
import {
  asText,
  day,
  flag,
  id,
  line,
  list,
  moment,
  optional,
  orNull,
  shape,
  text,
  typed,
  version,
  whole,
  type FieldsOf,
  type SchemaOf,
} from './typed.ts';

const time = () => typed<string>(Joi.string().max(5));
const changes = <T>(item: SchemaOf<T>) => list(item, { max: SERIES_LIMITS.changes });

const series: FieldsOf<SeriesBody> = {
  studentId: id(),
  title: line(SERIES_LIMITS.title),
  rule: shape<LessonRule>({
    firstDay: day(),
    time: time(),
    minutes: whole(LESSON_MINUTES),
    everyWeeks: whole({ min: 1, max: 52 }),
    weekdays: list(whole({ min: 1, max: 7 }), { max: 7, unique: true }),
    count: orNull(whole({ min: 0, max: MAX_LESSONS })),
    until: orNull(day()),
  }),
  changes: shape<LessonChanges>({
    skips: changes(day()),
    moves: changes(shape<LessonChanges['moves'][number]>({ from: day(), day: day(), time: time() })),
    extras: changes(shape<LessonChanges['extras'][number]>({ day: day(), time: time() })),
  }),
  goal: text(SERIES_LIMITS.goal),
  goalDay: orNull(day()),
  instalments: list(
    shape<Instalment>({ requestId: id(), part: text(SERIES_LIMITS.part), day: orNull(day()), delivered: flag() }),
    { max: SERIES_LIMITS.instalments },
  ),
};

/** Checks `SeriesBody`; what makes a rule sound the core says, in the zone of the studio. */
export const seriesSchema = shape<SeriesBody>(series);

/** Checks `SeriesChange`. */
export const seriesChangeSchema = shape<SeriesChange>({ ...series, version: version(), struck: flag() });

/** Checks `SeriesQuery`. */
export const seriesQuerySchema = shape<SeriesQuery>({
  studentId: optional(id()),
  from: optional(asText(whole({ min: 0, max: 1_000_000 }))),
});

/** Checks `LessonSwap`. */
export const lessonSwapSchema = shape<LessonSwap>({
  lessons: typed<LessonSwap['lessons']>(
    Joi.array()
      .items(shape<SwappedLesson>({ seriesId: id(), version: version(), startsAt: moment() }))
      .length(2)
      .unique('seriesId'),
  ),
});

/** Checks `LessonQuery`. */
export const lessonQuerySchema = shape<LessonQuery>({ days: asText(whole({ min: 1, max: 60 })) });
