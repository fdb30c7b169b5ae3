import type { WorkEstimate } from '@jam-ledger/core/desk';
import type { Excerpt, LadderRules, NextStep, Rung, Shown, Standing } from '@jam-ledger/core/pieces';
import type { Due, Mastery, SinceLesson } from '@jam-ledger/core/progress';
import type { Holiday, LessonChanges, LessonDate, LessonRule } from '@jam-ledger/core/series';
import { MEDIA } from './pieces.ts';
import { anyNumber, anyText, day, id, list, oneOf, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `Holiday` as it is answered. */
export const holidayAnswer: SchemaOf<Holiday> = shape<Holiday>({
  from: anyText(),
  to: anyText(),
  name: anyText(),
});

/** Checks `WorkEstimate` as it is answered. */
export const workEstimateAnswer: SchemaOf<WorkEstimate> = shape<WorkEstimate>({
  minutes: anyNumber(),
  low: anyNumber(),
  high: anyNumber(),
  from: anyNumber(),
});

/** Checks `Shown` as it is answered. */
export const shownAnswer: SchemaOf<Shown> = shape<Shown>({
  difficulty: anyNumber(),
  share: anyNumber(),
});

/** Checks `Excerpt` as it is answered. */
export const excerptAnswer: SchemaOf<Excerpt> = shape<Excerpt>({
  phraseId: id(),
  from: anyNumber(),
  to: orNull(anyNumber()),
});

/** Checks `LadderRules` as it is answered. */
export const ladderRulesAnswer: SchemaOf<LadderRules> = shape<LadderRules>({
  cleanNeeded: anyNumber(),
  fallsAfter: anyNumber(),
  restMinutes: anyNumber(),
});

/** Checks `Rung` as it is answered. */
export const rungAnswer: SchemaOf<Rung> = shape<Rung>({
  bpm: anyNumber(),
  percent: anyNumber(),
});

/** Checks `Standing` as it is answered. */
export const standingAnswer: SchemaOf<Standing> = shape<Standing>({
  inkBpm: orNull(anyNumber()),
  pencilBpm: orNull(anyNumber()),
  share: anyNumber(),
  by: orNull(oneOf(MEDIA)),
});

/** Checks `NextStep` as it is answered. */
export const nextStepAnswer: SchemaOf<NextStep> = shape<NextStep>({
  move: oneOf(['up', 'down', 'join', 'begin', 'stay', 'show', 'keep', 'split', 'rest', 'call']),
  reason: anyText(),
  bpm: anyNumber(),
  percent: anyNumber(),
});

/** Checks `Mastery` as it is answered. */
export const masteryAnswer: SchemaOf<Mastery> = shape<Mastery>({
  state: oneOf(['not begun', 'building', 'at target in pencil', 'at target in ink', 'held', 'slipping']),
  reason: anyText(),
  heldSince: orNull(anyText()),
});

/** Checks `Due` as it is answered. */
export const dueAnswer: SchemaOf<Due> = shape<Due>({
  recall: anyNumber(),
  day: day(),
  lastDay: day(),
  intervalDays: anyNumber(),
  stabilityDays: anyNumber(),
});

/** Checks `LessonDate` as it is answered. */
export const lessonDateAnswer: SchemaOf<LessonDate> = shape<LessonDate>({
  day: day(),
  time: anyText(),
  startsAt: anyText(),
  endsAt: anyText(),
  why: oneOf(['rule', 'moved', 'extra']),
});

/** Checks `LessonRule` as it is answered. */
export const lessonRuleAnswer: SchemaOf<LessonRule> = shape<LessonRule>({
  firstDay: day(),
  time: anyText(),
  minutes: anyNumber(),
  everyWeeks: anyNumber(),
  weekdays: list(anyNumber()),
  count: orNull(anyNumber()),
  until: orNull(anyText()),
});

/** Checks `LessonChanges` as it is answered. */
export const lessonChangesAnswer: SchemaOf<LessonChanges> = shape<LessonChanges>({
  skips: list(anyText()),
  moves: list(
    shape<LessonChanges['moves'][number]>({
      from: anyText(),
      day: day(),
      time: anyText(),
    }),
  ),
  extras: list(
    shape<LessonChanges['extras'][number]>({
      day: day(),
      time: anyText(),
    }),
  ),
});

/** Checks `SinceLesson` as it is answered. */
export const sinceLessonAnswer: SchemaOf<SinceLesson> = shape<SinceLesson>({
  before: orNull(anyNumber()),
  since: orNull(anyNumber()),
  results: anyNumber(),
  misses: anyNumber(),
});
