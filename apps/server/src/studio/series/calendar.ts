import type { CalendarFeed, CalendarFeedMade } from '@jam-ledger/contract';
import { writeCalendar } from '@jam-ledger/core/series';
import {
  addRow,
  closeFeeds,
  findFeedOf,
  findFeedPerson,
  findSeries,
  type SeriesRow,
  type Store,
} from '../../store/index.ts';
import { visibleStudents, type RequestContext } from '../context/context.ts';
import { NotFound } from '../context/errors.ts';
import { digestOf, makeToken } from '../context/tokens.ts';
import { contextOf } from '../people/signIn.ts';

/** Since when one’s own calendars may ask for one’s lessons. */
export async function showCalendarFeed({ store, studio, person }: RequestContext): Promise<CalendarFeed> {
  const madeAt = await findFeedOf(store, studio.id, person.id);
  return { madeAt: madeAt?.toISOString() ?? null };
}

/** Makes a secret address for one’s own calendars; one that was there before ends. It is told once, and only a digest is kept. */
export async function openCalendarFeed(context: RequestContext): Promise<CalendarFeedMade> {
  const { store, studio, person, now } = context;
  await store.lock(`calendar feed of ${person.id}`);
  await closeFeeds(store, studio.id, person.id, now);
  const token = makeToken();
  const row = { studioId: studio.id, personId: person.id, tokenHash: digestOf(token), madeAt: now };
  await addRow(store.calendarFeeds, row);
  return { path: `/api/calendar/${token}/lessons.ics` };
}

/** Ends the secret address of one’s own calendars. */
export async function closeCalendarFeed({ store, studio, person, now }: RequestContext): Promise<null> {
  await closeFeeds(store, studio.id, person.id, now);
  return null;
}

/**
 * The lessons of whoever has an address, as a calendar: when and where, no names and no notes. @throws NotFound where the address
 * was ended, or its person put away
 */
export async function readCalendarFeed(store: Store, token: string, now: Date): Promise<string> {
  const personId = await findFeedPerson(store, digestOf(token));
  const context = personId === undefined ? undefined : await contextOf(store, { personId, now });
  if (!context) throw new NotFound();
  const { studio } = context;
  const series = (await seriesOf(context)).map(({ id, rule, changes }) => ({
    ...{ id, rule, summary: 'Lesson' },
    changes: { ...changes, holidays: studio.holidays },
  }));
  const stamp = `${now.toISOString().slice(0, 19)}Z`;
  return writeCalendar(series, { name: `Lessons, ${studio.name}`, place: studio.name, zone: studio.zone, stamp });
}

/** The series of a student or of a guardian’s wards; those that a teacher teaches. */
async function seriesOf(context: RequestContext): Promise<readonly SeriesRow[]> {
  const studentIds = visibleStudents(context);
  const rows = await findSeries(context.store, context.studio.id, { studentIds });
  return studentIds === undefined ? rows.filter(({ teacherId }) => teacherId === context.person.id) : rows;
}
