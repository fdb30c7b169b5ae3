import type { Store } from './database.ts';

/** A result with the piece it was posted to, and by whom. */
export interface EntryTableRow {
  readonly id: string;
  readonly pieceId: string;
  readonly day: string;
  readonly bpm: number;
  readonly outcome: string;
  readonly medium: string;
  readonly percent: number;
  readonly remark: string;
  readonly postedBy: string;
}

/** All results of a student, the newest first. SQL by hand: the day is that of the studio’s zone, beside the name of who posted it. */
export function findEntriesOf(
  store: Store,
  studioId: string,
  { studentId, zone }: { readonly studentId: string; readonly zone: string },
): Promise<readonly EntryTableRow[]> {
  return store.rows<EntryTableRow>(
    `SELECT e.id, e.piece_id AS "pieceId", (e.posted_at AT TIME ZONE $3)::date::text AS day,
            e.bpm, e.outcome, e.medium, e.percent, e.remark, w.name AS "postedBy"
       FROM entries e
       JOIN pieces p ON p.studio_id = e.studio_id AND p.id = e.piece_id
       JOIN people w ON w.studio_id = e.studio_id AND w.id = e.posted_by
      WHERE e.studio_id = $1 AND p.student_id = $2 AND NOT e.struck
      ORDER BY e.posted_at DESC, e.line DESC`,
    [studioId, studentId, zone],
  );
}

/**
 * Strikes results that somebody posted, or puts them back; the pieces whose ladders they move. SQL by hand: it counts up versions of
 * many rows at once.
 */
export async function strikeEntriesOf(
  store: Store,
  {
    studioId,
    personId,
    ids,
    struck,
  }: {
    readonly studioId: string;
    readonly personId: string;
    readonly ids: readonly string[];
    readonly struck: boolean;
  },
): Promise<readonly string[]> {
  const rows = await store.rows<{ pieceId: string }>(
    `UPDATE entries SET struck = $4, version = version + 1
      WHERE studio_id = $1 AND posted_by = $2 AND id = ANY ($3::uuid[]) AND struck <> $4
      RETURNING coalesce(counts_for, piece_id) AS "pieceId"`,
    [studioId, personId, ids, struck],
  );
  return [...new Set(rows.map(({ pieceId }) => pieceId))];
}
