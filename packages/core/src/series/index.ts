export { practiceToday, PRACTICE_MINUTES } from './practiceToday.ts';
export type { PracticePiece, PracticePlan, PracticeTask, TaskKind } from './practiceToday.ts';
export {
  checkHolidays,
  checkRule,
  closedDays,
  holidayOn,
  lessonDates,
  LESSON_MINUTES,
  MAX_LESSONS,
  NO_CHANGES,
  overlapsOf,
} from './lessonDates.ts';
export type { Holiday, LessonChanges, LessonDate, LessonRule, RuleProblem, StudioChanges } from './lessonDates.ts';
export { costOf, MOVED_COST, planSeries } from './planSeries.ts';
export { replanSeries, roomForNew } from './replanSeries.ts';
export type { LessonMove, LessonToFill, PieceToBegin, SeriesReplan } from './replanSeries.ts';
export type { SeriesLesson, SeriesPiece, SeriesPlan } from './planSeries.ts';
export { AGENDA_KINDS, agendaFor } from './agenda.ts';
export type { Agenda, AgendaItem, AgendaKind, AgendaPiece } from './agenda.ts';
export { leaveOut, moveLesson } from './changes.ts';
export type { LessonMoment } from './changes.ts';
export { readClosedDays, writeCalendar } from './calendarFile.ts';
export type { CalendarOptions, CalendarSeries, ClosedDays } from './calendarFile.ts';
