import type { Store } from './database.ts';

/** A row of a studio. */
interface Of {
  readonly studioId: string;
  readonly id: string;
}

/** How many parts and bytes of sounds are here, by their ids. */
export async function partsHere(
  store: Store,
  studioId: string,
  ids: readonly string[],
): Promise<ReadonlyMap<string, { readonly parts: number; readonly bytes: number }>> {
  const rows = await store.rows<{ id: string; parts: number; bytes: number }>(
    `SELECT sound_id AS id, count(*)::int AS parts, sum(length(data))::int AS bytes FROM sound_parts
      WHERE studio_id = $1 AND sound_id = ANY ($2::uuid[]) GROUP BY sound_id`,
    [studioId, ids],
  );
  return new Map(rows.map(({ id, parts, bytes }) => [id, { parts, bytes }]));
}

/** How many bytes of sound a studio keeps. */
export async function bytesKept(store: Store, studioId: string): Promise<number> {
  const rows = await store.rows<{ bytes: string }>(
    'SELECT coalesce(sum(length(data)), 0) AS bytes FROM sound_parts WHERE studio_id = $1',
    [studioId],
  );
  return Number(rows[0]?.bytes ?? 0);
}

/** Keeps a part; one that is here already stays. SQL by hand: models write bytes three times slower. */
export async function keepPart(store: Store, { studioId, id }: Of, part: number, data: Buffer): Promise<void> {
  await store.rows(
    `INSERT INTO sound_parts (studio_id, sound_id, part, data) VALUES ($1, $2, $3, $4)
     ON CONFLICT (sound_id, part) DO NOTHING RETURNING 1`,
    [studioId, id, part, data],
  );
}

/** One part; undefined where it is not here. */
export async function readPart(store: Store, { studioId, id }: Of, part: number): Promise<Buffer | undefined> {
  const rows = await store.rows<{ data: Buffer }>(
    'SELECT data FROM sound_parts WHERE studio_id = $1 AND sound_id = $2 AND part = $3',
    [studioId, id, part],
  );
  return rows[0]?.data;
}

/** Drops all parts of a sound. */
export async function dropParts(store: Store, { studioId, id }: Of): Promise<void> {
  await store.rows('DELETE FROM sound_parts WHERE studio_id = $1 AND sound_id = $2 RETURNING 1', [studioId, id]);
}

/** Deletes a sound with its parts. */
export async function dropSound(store: Store, { studioId, id }: Of): Promise<void> {
  await store.rows('DELETE FROM sounds WHERE studio_id = $1 AND id = $2 RETURNING 1', [studioId, id]);
}

/** Deletes the sounds whose day has come in their studio. How many. */
export async function dropOldSounds(store: Store, now: Date): Promise<number> {
  const rows = await store.rows<{ id: string }>(
    `DELETE FROM sounds s USING studios o WHERE o.id = s.studio_id AND s.goes_on <= ($1::timestamptz AT TIME ZONE o.zone)::date
     RETURNING s.id`,
    [now],
  );
  return rows.length;
}
