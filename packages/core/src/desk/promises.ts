import { dayAfter, daysBetween } from '../progress/index.ts';
import { promiseDate, scheduleByDue, weekLoads, type QueuedWork } from './promise.ts';

/** Work on the desk. Days `2026-03-14`, in the studio’s zone. */
export interface OpenWork {
  readonly id: string;
  readonly title: string;
  /** What is left of it. */
  readonly minutesLeft: number;
  /** The day it is promised for, else wanted by; null where no day is named. */
  readonly due: string | null;
  /** The lessons in which parts of it are to be handed out, where there are any; equal parts. */
  readonly instalments: readonly string[];
}

/** What the hours there are mean for one work. */
export interface PromisedWork {
  readonly minutesLeft: number;
  /** The day it is done, working by the day due; null where there are no hours. */
  readonly doneOn: string | null;
  /** The earliest day for which it could be promised without breaking another; null where there is none. */
  readonly earliest: string | null;
  /** Whether all of it is done by the day it is due; true where no day is named. */
  readonly isInTime: boolean;
}

/** A week’s work against its hours. */
export interface PromisedWeek {
  readonly from: string;
  readonly minutes: number;
  readonly room: number;
  /** What would have to move, by its title. */
  readonly over: readonly string[];
}

/** Where no day is named there is time, days. Our choice. */
const SOMETIME_DAYS = 365;

/** Weeks that are shown. Our choice. */
const WEEKS = 4;

/** Transcribing is done on so many days of the week, Monday first. Common practice. */
const WORK_DAYS = 5;

/** The work on the desk against the minutes there are in a week: each promise, and how full the coming weeks are. */
export function promisesOf(
  works: readonly OpenWork[],
  { today, workMinutes }: { readonly today: string; readonly workMinutes: number },
): { readonly byId: ReadonlyMap<string, PromisedWork>; readonly weeks: readonly PromisedWeek[] } {
  const weekday = new Date(`${today}T12:00:00Z`).getUTCDay();
  const minutesOn = (day: number) => ((weekday + day + 6) % 7 < WORK_DAYS ? workMinutes / WORK_DAYS : 0);
  const partsOf = new Map(works.map((work) => [work.id, queued(work, today)]));
  const queue = [...partsOf.values()].flat();
  const { done } = scheduleByDue(queue, 0, minutesOn);
  const byId = new Map(
    works.map(({ id, minutesLeft }): [string, PromisedWork] => {
      const own = partsOf.get(id) ?? [];
      const others = queue.filter((one) => !own.includes(one));
      const earliest = promiseDate(others, { id, minutes: minutesLeft }, { today: 0, minutesOn });
      const end = Math.max(0, ...own.map((part) => done.get(part.id) ?? 0));
      const isInTime = workMinutes > 0 && own.every((part) => (done.get(part.id) ?? Infinity) <= part.due);
      return [
        id,
        {
          minutesLeft,
          doneOn: workMinutes === 0 ? null : dayAfter(today, end),
          earliest: earliest === undefined ? null : dayAfter(today, earliest),
          isInTime,
        },
      ];
    }),
  );
  const titles = new Map(works.flatMap(({ id, title }) => (partsOf.get(id) ?? []).map((part) => [part.id, title])));
  const weeks = weekLoads(queue, { today: 0, weeks: WEEKS, minutesOn }).map(({ from, over, ...load }) => ({
    ...load,
    from: dayAfter(today, from),
    over: [...new Set(over.map((id) => titles.get(id) ?? ''))],
  }));
  return { byId, weeks };
}

function queued({ id, minutesLeft, due, instalments }: OpenWork, today: string): readonly QueuedWork[] {
  if (instalments.length === 0)
    return [{ id, minutes: minutesLeft, due: due === null ? SOMETIME_DAYS : daysBetween(today, due) }];
  const minutes = minutesLeft / instalments.length;
  return instalments.toSorted().map((day, index) => ({ id: `${id} ${index}`, minutes, due: daysBetween(today, day) }));
}
