import type { CalendarFeed, CalendarFeedMade } from './calendar.ts';
import { nothing, one, route, words } from './route.ts';
import { ALL } from './who.ts';

/** Lessons in one’s own calendar. */
export const calendarRoutes = {
  calendarFeed: route({
    method: 'GET',
    path: '/calendar',
    who: ALL,
    of: 'self',
    does: 'tells since when one’s own calendars may ask for one’s lessons',
    answer: one<CalendarFeed>(),
  }),
  openCalendarFeed: route({
    method: 'POST',
    path: '/calendar',
    who: ALL,
    of: 'self',
    does: 'makes a secret address for one’s own calendars, and ends the one before',
    answer: one<CalendarFeedMade>(),
    creates: true,
  }),
  closeCalendarFeed: route({
    method: 'DELETE',
    path: '/calendar',
    who: ALL,
    of: 'self',
    does: 'ends the secret address of one’s own calendars',
    answer: nothing,
  }),
  readCalendarFeed: route({
    method: 'GET',
    path: '/calendar/:token/lessons.ics',
    who: 'anybody',
    of: 'self',
    does: 'gives the lessons as a calendar, when and where, to whoever has the address',
    answer: words,
    type: 'text/calendar; charset=utf-8',
  }),
} as const;
