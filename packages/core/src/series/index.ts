export { practiceToday, PRACTICE_MINUTES } from './practiceToday.ts';
export type { PracticePiece, PracticePlan, PracticeTask, TaskKind } from './practiceToday.ts';
export { checkRule, lessonDates, LESSON_MINUTES, MOST_LESSONS, NO_CHANGES, overlapsOf } from './lessonDates.ts';
export type { LessonChanges, LessonDate, LessonRule, RuleProblem } from './lessonDates.ts';
export { costOf, planSeries } from './planSeries.ts';
export type { SeriesLesson, SeriesPiece, SeriesPlan } from './planSeries.ts';
export { AGENDA_KINDS, agendaFor } from './agenda.ts';
export type { Agenda, AgendaItem, AgendaKind, AgendaPiece } from './agenda.ts';
