/** A piece of work on the desk. Days as whole numbers, any day 0. */
export interface QueuedWork {
  readonly id: string;
  readonly minutes: number;
  /** The day it is promised for. */
  readonly due: number;
}

/** Minutes of work there are on a day. */
export type DayMinutes = (day: number) => number;

/** When each work is done, and by how many days the latest is late; 0 where none is. */
export interface Schedule {
  readonly done: ReadonlyMap<string, number>;
  readonly lateDays: number;
}

/** Farther ahead nobody promises, days. Our choice. */
export const FARTHEST_DAYS = 730;

/**
 * Works one after the other, by the day promised. No other order makes the latest work less late.
 *
 * Source: earliest due date first is optimal for the greatest lateness on one machine (Jackson 1955).
 */
export function scheduleByDue(queue: readonly QueuedWork[], today: number, minutesOn: DayMinutes): Schedule {
  return scheduleInOrder(
    queue.toSorted((a, b) => a.due - b.due),
    today,
    minutesOn,
  );
}

/** Works one after the other as they stand. A work that never gets done within `FARTHEST_DAYS` is done on the last of them. */
export function scheduleInOrder(queue: readonly QueuedWork[], today: number, minutesOn: DayMinutes): Schedule {
  const done = new Map<string, number>();
  let day = today;
  let left = minutesOn(day);
  let lateDays = 0;
  for (const { id, minutes, due } of queue) {
    let wanted = minutes;
    while (wanted > left && day < today + FARTHEST_DAYS) {
      wanted -= left;
      day += 1;
      left = minutesOn(day);
    }
    left = Math.max(0, left - wanted);
    done.set(id, day);
    lateDays = Math.max(lateDays, day - due);
  }
  return { done, lateDays };
}

/**
 * The earliest day for which new work can be promised without breaking another promise that can be kept; undefined where
 * there is none within `FARTHEST_DAYS`. What is late already stays as late as it is.
 */
export function promiseDate(
  queue: readonly QueuedWork[],
  work: Omit<QueuedWork, 'due'>,
  { today, minutesOn }: { readonly today: number; readonly minutesOn: DayMinutes },
): number | undefined {
  const before = scheduleByDue(queue, today, minutesOn);
  const lateBefore = (id: string, due: number) => Math.max(0, (before.done.get(id) ?? due) - due);
  for (const due of daysToTry(queue, { today, minutesOn, work })) {
    const all = [...queue, { ...work, due }];
    const { done } = scheduleByDue(all, today, minutesOn);
    const own = done.get(work.id) ?? Infinity;
    const kept = queue.every(
      ({ id, due: promised }) => Math.max(0, (done.get(id) ?? 0) - promised) <= lateBefore(id, promised),
    );
    if (own <= due && own < today + FARTHEST_DAYS && kept) return due;
  }
  return undefined;
}

/** Its own end wherever it comes in the queue: no other day is the earliest. */
function daysToTry(
  queue: readonly QueuedWork[],
  {
    today,
    minutesOn,
    work,
  }: { readonly today: number; readonly minutesOn: DayMinutes; readonly work: Omit<QueuedWork, 'due'> },
): readonly number[] {
  const sorted = queue.toSorted((a, b) => a.due - b.due);
  const ends = Array.from({ length: sorted.length + 1 }, (_, place) => {
    const all = [...sorted.slice(0, place), { ...work, due: today }];
    return scheduleInOrder(all, today, minutesOn).done.get(work.id) ?? today;
  });
  // Work due the same day as others is done after them.
  return [...new Set([...ends, ...sorted.map(({ due }) => due)])].filter((day) => day >= today).sort((a, b) => a - b);
}

/** A week’s work against its hours. */
export interface WeekLoad {
  /** The first day of the week. */
  readonly from: number;
  readonly minutes: number;
  readonly room: number;
  /** What would have to move for the week to fit, the latest promised first. */
  readonly over: readonly string[];
}

/** How full the coming weeks are, by what is promised for each; what is overdue counts to the first. */
export function weekLoads(
  queue: readonly QueuedWork[],
  { today, weeks, minutesOn }: { readonly today: number; readonly weeks: number; readonly minutesOn: DayMinutes },
): readonly WeekLoad[] {
  return Array.from({ length: weeks }, (_, week) => {
    const from = today + week * 7;
    const inside = queue.filter(({ due }) => (week === 0 ? due < from + 7 : due >= from && due < from + 7));
    const room = Array.from({ length: 7 }, (__, day) => minutesOn(from + day)).reduce((sum, one) => sum + one, 0);
    const minutes = inside.reduce((sum, work) => sum + work.minutes, 0);
    let excess = minutes - room;
    const over: string[] = [];
    for (const work of inside.toSorted((a, b) => b.due - a.due)) {
      if (excess <= 0) break;
      over.push(work.id);
      excess -= work.minutes;
    }
    return { from, minutes, room, over };
  });
}
