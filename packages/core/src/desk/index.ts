export { estimateWork } from './estimateWork.ts';
export type { DoneWork, WorkEstimate, WorkRequest } from './estimateWork.ts';
export { FARTHEST_DAYS, promiseDate, scheduleByDue, scheduleInOrder, weekLoads } from './promise.ts';
export type { DayMinutes, QueuedWork, Schedule, WeekLoad } from './promise.ts';
export { promisesOf } from './promises.ts';
export type { OpenWork, PromisedWeek, PromisedWork } from './promises.ts';
