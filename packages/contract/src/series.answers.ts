import { lessonChangesAnswer, lessonDateAnswer, lessonRuleAnswer } from './standings.answers.ts';
import type { Instalment, Lesson, Series, SeriesLine, SeriesList } from './series.ts';
import { anyNumber, anyText, day, flag, id, list, named, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `SeriesLine` as it is answered. */
export const seriesLineAnswer: SchemaOf<SeriesLine> = shape<SeriesLine>({
  id: id(),
  title: anyText(),
  student: named(),
  teacher: named(),
  lessons: anyNumber(),
  next: orNull(
    shape<NonNullable<SeriesLine['next']>>({
      day: day(),
      time: anyText(),
    }),
  ),
});

/** Checks `SeriesList` as it is answered. */
export const seriesListAnswer: SchemaOf<SeriesList> = shape<SeriesList>({
  total: anyNumber(),
  series: list(seriesLineAnswer),
});

/** Checks `Instalment` as it is answered. */
export const instalmentAnswer: SchemaOf<Instalment> = shape<Instalment>({
  requestId: id(),
  part: anyText(),
  day: orNull(day()),
  delivered: flag(),
});

/** Checks `Series` as it is answered. */
export const seriesAnswer: SchemaOf<Series> = shape<Series>({
  id: id(),
  version: anyNumber(),
  struck: flag(),
  student: named(),
  teacher: named(),
  lessons: list(lessonDateAnswer),
  closed: list(
    shape<Series['closed'][number]>({
      day: day(),
      name: anyText(),
    }),
  ),
  studentId: id(),
  title: anyText(),
  rule: lessonRuleAnswer,
  changes: lessonChangesAnswer,
  goal: anyText(),
  goalDay: orNull(day()),
  instalments: list(instalmentAnswer),
});

/** Checks `Lesson` as it is answered. */
export const lessonAnswer: SchemaOf<Lesson> = shape<Lesson>({
  id: id(),
  series: shape<Lesson['series']>({
    id: id(),
    title: anyText(),
  }),
  student: named(),
  day: day(),
  time: anyText(),
  minutes: anyNumber(),
  why: oneOf(['rule', 'moved', 'extra']),
  number: anyNumber(),
  of: anyNumber(),
});
