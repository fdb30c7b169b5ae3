import type { Store } from './database.ts';

/** When the address was made that somebody’s calendars ask at; undefined where there is none. */
export async function findFeedOf(store: Store, studioId: string, personId: string): Promise<Date | undefined> {
  const row = await store.calendarFeeds.findOne({
    where: { studioId, personId, closedAt: null },
    attributes: ['madeAt'],
  });
  return row?.madeAt;
}

/** Ends the addresses of somebody. SQL by hand: it counts up versions of all of them at once. */
export async function closeFeeds(store: Store, studioId: string, personId: string, now: Date): Promise<void> {
  await store.rows(
    `UPDATE calendar_feeds SET closed_at = $3, version = version + 1
      WHERE studio_id = $1 AND person_id = $2 AND closed_at IS NULL RETURNING id`,
    [studioId, personId, now.toISOString()],
  );
}

/** Whose address it is, by the digest of its secret; undefined where it was ended, or never made. */
export async function findFeedPerson(store: Store, tokenHash: string): Promise<string | undefined> {
  const row = await store.calendarFeeds.findOne({ where: { tokenHash, closedAt: null }, attributes: ['personId'] });
  return row?.personId;
}
