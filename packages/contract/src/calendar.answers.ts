import type { CalendarFeed, CalendarFeedMade } from './calendar.ts';
import { anyText, orNull, shape, type SchemaOf } from './typed.ts';

/** Checks `CalendarFeed` as it is answered. */
export const calendarFeedAnswer: SchemaOf<CalendarFeed> = shape<CalendarFeed>({ madeAt: orNull(anyText()) });

/** Checks `CalendarFeedMade` as it is answered. */
export const calendarFeedMadeAnswer: SchemaOf<CalendarFeedMade> = shape<CalendarFeedMade>({ path: anyText() });
