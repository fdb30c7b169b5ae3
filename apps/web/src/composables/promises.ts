import type { RequestState, SongRequest } from '@jam-ledger/contract';
import {
  estimateWork,
  promiseDate,
  scheduleByDue,
  weekLoads,
  type QueuedWork,
  type WorkEstimate,
} from '@jam-ledger/core/desk';
import { daysBetween } from './useDays.ts';

/** What the hours there are mean for one request. */
export interface RequestPromise {
  readonly work: WorkEstimate;
  /** The day it is done, working by the day wanted; null where there are no hours. */
  readonly doneOn: string | null;
  /** The earliest day for which it could be promised without breaking another; null where there is none. */
  readonly earliest: string | null;
  /** Whether it is done by the day it is wanted; true where no day is named. */
  readonly isInTime: boolean;
}

/** A week's work against its hours. */
export interface RequestWeek {
  readonly from: string;
  readonly minutes: number;
  readonly room: number;
  /** Titles that would have to move. */
  readonly over: readonly string[];
}

/** What still is work. */
const TO_DO: readonly RequestState[] = ['asked', 'agreed', 'in work', 'to be checked'];

/** Where no day is named there is time, days. Our choice. */
const SOMETIME_DAYS = 365;

/** Weeks that are shown. */
const WEEKS = 4;

/** Transcribing is done on so many days of the week, Monday first. Common practice. */
const WORK_DAYS = 5;

/** The work on the desk against the hours there are: each request's promise, and how full the coming weeks are. */
export function promisesOf(
  requests: readonly SongRequest[],
  { today, workMinutes }: { readonly today: string; readonly workMinutes: number },
): { readonly byId: ReadonlyMap<string, RequestPromise>; readonly weeks: readonly RequestWeek[] } {
  const open = requests.filter(({ state }) => TO_DO.includes(state));
  const works = new Map(open.map((request) => [request.id, estimateOf(request)]));
  const queue = open.map(({ id, wantedBy }): QueuedWork => {
    const due = wantedBy === null ? SOMETIME_DAYS : daysBetween(today, wantedBy);
    return { id, due, minutes: works.get(id)?.minutes ?? 0 };
  });
  const weekday = new Date(`${today}T12:00:00Z`).getUTCDay();
  const minutesOn = (day: number) => ((weekday + day + 6) % 7 < WORK_DAYS ? workMinutes / WORK_DAYS : 0);
  const dayAt = (day: number) =>
    new Date(Date.parse(`${today}T12:00:00Z`) + day * 86_400_000).toISOString().slice(0, 10);
  const { done } = scheduleByDue(queue, 0, minutesOn);
  const byId = new Map(
    queue.map(({ id, due, minutes }): [string, RequestPromise] => {
      const others = queue.filter((one) => one.id !== id);
      const earliest = promiseDate(others, { id, minutes }, { today: 0, minutesOn });
      const end = done.get(id);
      const isInTime = end !== undefined && workMinutes > 0 && end <= due;
      return [
        id,
        {
          work: works.get(id) ?? estimateWork({ parts: 1, ...UNKNOWN, layers: 1 }),
          doneOn: end === undefined || workMinutes === 0 ? null : dayAt(end),
          earliest: earliest === undefined ? null : dayAt(earliest),
          isInTime,
        },
      ];
    }),
  );
  const titles = new Map(open.map(({ id, title }) => [id, title]));
  const weeks = weekLoads(queue, { today: 0, weeks: WEEKS, minutesOn }).map(({ from, over, ...load }) => ({
    ...load,
    from: dayAt(from),
    over: over.map((id) => titles.get(id) ?? ''),
  }));
  return { byId, weeks };
}

/** Before anybody listened, length, density and certainty are not known. */
const UNKNOWN = { seconds: null, density: null, certainty: null } as const;

function estimateOf({ wanted, guitarMeant }: SongRequest): WorkEstimate {
  return estimateWork({
    parts: Math.max(1, wanted.length),
    layers: guitarMeant === 'blended into one' ? 2 : 1,
    ...UNKNOWN,
  });
}
