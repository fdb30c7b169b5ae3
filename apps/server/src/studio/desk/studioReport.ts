import type { StudioReport } from '@jam-ledger/contract';
import { estimateWork } from '@jam-ledger/core/desk';
import { DateTime } from 'luxon';
import { findHeldBands, findWeeks } from '../../store/index.ts';
import { computeMissing } from '../pieces/keptStandings.ts';
import { openWork, workPast } from '../requests/requestWork.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/** Bands of difficulty, and weeks back and ahead, that are shown. Our choice. */
const SHOWN = { bands: 5, back: 8, ahead: 4 } as const;

/** Hours per request against the estimate, time to held per difficulty, and the load of the weeks. @throws Forbidden */
export async function reportStudio(context: RequestContext): Promise<StudioReport> {
  const { store, studio, now } = context;
  await computeMissing(store, { studioId: studio.id });
  const today = dayOf(context);
  const monday = DateTime.fromISO(today, { zone: studio.zone }).startOf('week');
  const span = { from: iso(monday.minus({ weeks: SHOWN.back })), to: iso(monday.plus({ weeks: SHOWN.ahead })) };
  const [work, bands, weeks, open] = await Promise.all([
    workPast(context),
    findHeldBands(store, studio.id, SHOWN.bands),
    findWeeks(store, studio.id, { ...span, zone: studio.zone, now }),
    openWork(context),
  ]);
  const width = 100 / SHOWN.bands;
  return {
    today,
    work,
    onePart: estimateWork({ parts: 1, layers: 1, seconds: null, density: null, certainty: null }, open.past),
    held: bands.map(({ band, medianDays, ...counts }) => ({
      from: band * width,
      to: (band + 1) * width,
      medianDays: medianDays === null ? null : Math.round(medianDays),
      ...counts,
    })),
    weeks: weeks.map(({ from, lessons, lessonMinutes, workMinutes }) => ({
      from,
      lessons,
      lessonMinutes: Math.round(lessonMinutes),
      workMinutes: Math.round(from > iso(monday) ? dueIn(open.works, from) : workMinutes),
    })),
    workMinutes: open.workMinutes,
  };
}

/** Minutes of work that are due in the week from a Monday on. */
function dueIn(works: Awaited<ReturnType<typeof openWork>>['works'], monday: string): number {
  const end = iso(DateTime.fromISO(monday).plus({ weeks: 1 }));
  return works.reduce((sum, { minutesLeft, due, instalments }) => {
    const days = instalments.length > 0 ? instalments : due === null ? [] : [due];
    const inside = days.filter((day) => day >= monday && day < end).length;
    return sum + (inside * minutesLeft) / Math.max(1, days.length);
  }, 0);
}

function iso(day: DateTime): string {
  return day.toISODate() ?? '';
}
