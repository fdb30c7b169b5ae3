/** Whether one’s own calendars may ask for one’s lessons, and since when; null where they may not. */
export interface CalendarFeed {
  readonly madeAt: string | null;
}

/** The secret address, told once. */
export interface CalendarFeedMade {
  readonly path: string;
}
