export { DAYS_AWAY, daysBetween, masteryOf, NEAR_TARGET } from './mastery.ts';
export type { DatedResult, Mastery, MasteryState } from './mastery.ts';
export { forecast, paceOf } from './forecast.ts';
export type { Forecast, Forecasted, ForecastOptions, Pace } from './forecast.ts';
export { dueAgain } from './dueAgain.ts';
export type { Due } from './dueAgain.ts';
export { lastLesson, sinceLesson, songProgress } from './songProgress.ts';
export type { SinceLesson, SongPart, SongProgress } from './songProgress.ts';
