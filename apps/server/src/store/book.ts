import type { Store } from './database.ts';
import type { BookJobModel } from './models.ts';

/** A line of the trail with the names of those who are still there. */
export interface TrailRow {
  readonly line: number;
  readonly at: Date;
  readonly by: string | null;
  readonly act: string;
  readonly about: string | null;
  readonly detail: string;
}

/** The newest lines of the trail of a studio, before one where that is named. SQL by hand: names of two people beside each line. */
export function findTrail(
  store: Store,
  studioId: string,
  { before, max }: { readonly before: number | null; readonly max: number },
): Promise<readonly TrailRow[]> {
  return store.rows<TrailRow>(
    `SELECT t.line::float8 AS line, t.at, p.name AS by, t.act, a.name AS about, t.detail
       FROM trail t
       LEFT JOIN people p ON p.studio_id = t.studio_id AND p.id = t.person_id
       LEFT JOIN people a ON a.studio_id = t.studio_id AND a.id = t.about_id
      WHERE t.studio_id = $1 AND ($2::bigint IS NULL OR t.line < $2)
      ORDER BY t.line DESC LIMIT $3`,
    [studioId, before, max],
  );
}

/** A job that gave no sign of life for so long was cut. Our choice. */
const CUT_AFTER = '60 seconds';

/** Ends jobs that were cut with their server. SQL by hand: by the clock of the database, which all servers share. */
export async function endCutJobs(store: Store): Promise<void> {
  await store.rows(
    `UPDATE book_jobs SET state = 'failed', says = 'The server was stopped meanwhile; nothing was changed.', version = version + 1
      WHERE state = 'running' AND seen_at < now() - interval '${CUT_AFTER}' RETURNING id`,
    [],
  );
}

/** The newest job of a studio; undefined where there was none. */
export async function findNewestJob(store: Store, studioId: string): Promise<BookJobModel | undefined> {
  return (await store.bookJobs.findOne({ where: { studioId }, order: [['startedAt', 'DESC']] })) ?? undefined;
}

/** Writes down how far a job is; whether it is still to go on. SQL by hand: one statement that tells whether it was stopped. */
export async function seeJob(
  store: Store,
  id: string,
  { done, total }: { readonly done: number; readonly total: number },
): Promise<boolean> {
  const rows = await store.rows<{ state: string }>(
    `UPDATE book_jobs SET done = $2, total = $3, seen_at = now() WHERE id = $1 RETURNING state`,
    [id, done, total],
  );
  return rows[0]?.state === 'running';
}

/** Ends a job in some state, unless it was ended before. */
export async function setJobAside(store: Store, id: string, state: string, says: string): Promise<void> {
  await store.bookJobs.update({ state, says }, { where: { id, state: 'running' } });
}
