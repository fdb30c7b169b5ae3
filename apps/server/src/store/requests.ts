import type { Store } from './database.ts';
import type { RequestEventModel, WithPerson } from './models.ts';

/** A request with its student's name, the transcription begun for it, and which part of the whole it is. */
export interface RequestRow {
  readonly id: string;
  readonly version: number;
  readonly studentId: string;
  readonly studentName: string;
  readonly title: string;
  readonly whose: string;
  readonly wanted: readonly string[];
  readonly notWanted: readonly string[];
  readonly rendition: string;
  readonly guitarMeant: string;
  readonly guitar: string;
  readonly scope: string;
  readonly followsId: string | null;
  readonly wantedBy: string | null;
  readonly promisedFor: string | null;
  readonly remarks: string;
  readonly state: string;
  readonly askedAt: Date;
  readonly transcriptionId: string | null;
  readonly part: number;
}

/**
 * Requests of a studio, open ones first, by the day promised, else wanted; those of students who left aside; of some students, or the one with an id.
 * SQL by hand: the list has its song, its part and its numbers in one query.
 */
export function findRequests(
  store: Store,
  studioId: string,
  only: { readonly studentIds?: readonly string[] | undefined; readonly id?: string },
): Promise<readonly RequestRow[]> {
  return store.rows<RequestRow>(
    `SELECT r.id, r.version, r.student_id AS "studentId", s.name AS "studentName", r.title, r.whose,
            r.wanted, r.not_wanted AS "notWanted", r.rendition, r.guitar_meant AS "guitarMeant", r.guitar,
            r.scope, r.follows_id AS "followsId",
            r.wanted_by::text AS "wantedBy", r.promised_for::text AS "promisedFor", r.remarks, r.state, r.asked_at AS "askedAt",
            t.id AS "transcriptionId",
            CASE WHEN r.follows_id IS NULL THEN 1 ELSE 1 + (
              SELECT count(*)::int FROM requests e
               WHERE e.studio_id = r.studio_id AND e.follows_id = r.follows_id AND e.line <= r.line
            ) END AS part
       FROM requests r
       JOIN people s ON s.studio_id = r.studio_id AND s.id = r.student_id
       LEFT JOIN transcriptions t ON t.studio_id = r.studio_id AND t.request_id = coalesce(r.follows_id, r.id)
      WHERE r.studio_id = $1 AND ($2::uuid[] IS NULL OR r.student_id = ANY ($2)) AND ($3::uuid IS NULL OR r.id = $3)
        AND ($3::uuid IS NOT NULL OR s.archived_at IS NULL)
      ORDER BY (r.state IN ('declined', 'withdrawn', 'closed')), (r.state = 'asked') DESC,
               coalesce(r.promised_for, r.wanted_by) NULLS LAST, r.line`,
    [studioId, only.studentIds ?? null, only.id ?? null],
  );
}

/** One line of the history of a request. */
export interface RequestEventRow {
  readonly requestId: string;
  readonly at: Date;
  readonly by: string;
  readonly state: string;
  readonly note: string;
}

/** The histories of some requests, oldest line first. */
export async function findRequestEvents(
  store: Store,
  studioId: string,
  requestIds: readonly string[],
): Promise<readonly RequestEventRow[]> {
  const rows: readonly (RequestEventModel & Partial<WithPerson>)[] = await store.requestEvents.findAll({
    where: { studioId, requestId: [...requestIds] },
    include: { model: store.people, as: 'person', attributes: ['name'] },
    order: [['line', 'ASC']],
  });
  return rows.map(({ requestId, at, state, note, person }) => ({ requestId, at, state, note, by: person?.name ?? '' }));
}

/**
 * How many pieces of a song are not held: those not given, too; 1 where there is none at all. SQL by hand: what is held is read of what is
 * kept beside each.
 */
export async function countUnheld(store: Store, studioId: string, songId: string): Promise<number> {
  const rows = await store.rows<{ pieces: number; held: number }>(
    `SELECT count(*)::int AS pieces,
            count(*) FILTER (WHERE p.assigned_on IS NOT NULL AND p.kept -> 'mastery' ->> 'heldSince' IS NOT NULL)::int AS held
       FROM pieces p WHERE p.studio_id = $1 AND p.song_id = $2 AND NOT p.struck`,
    [studioId, songId],
  );
  const { pieces = 0, held = 0 } = rows[0] ?? {};
  return pieces === 0 ? 1 : pieces - held;
}

/**
 * How much of a song is still to be given: phrases that are written and in no piece that was given, and instalments of its requests that
 * are to be delivered. SQL by hand: two counts over the whole song.
 */
export async function countUngiven(store: Store, studioId: string, songId: string): Promise<number> {
  const rows = await store.rows<{ count: number }>(
    `SELECT (SELECT count(*) FROM phrases f JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
              WHERE f.studio_id = $1 AND c.transcription_id = $2 AND NOT f.struck AND NOT c.struck AND f.chosen AND f.text <> ''
                AND NOT EXISTS (SELECT 1 FROM pieces p WHERE p.studio_id = $1 AND p.song_id = $2 AND p.assigned_on IS NOT NULL AND NOT p.struck
                                   AND p.parts @> jsonb_build_array(jsonb_build_object('phraseId', f.id))))::int
          + (SELECT count(*) FROM transcriptions t
               JOIN requests r ON r.studio_id = t.studio_id AND coalesce(r.follows_id, r.id) = t.request_id
               JOIN series e ON e.studio_id = r.studio_id AND e.student_id = r.student_id AND NOT e.struck
               CROSS JOIN LATERAL jsonb_array_elements(e.instalments) part
              WHERE t.studio_id = $1 AND t.id = $2 AND part ->> 'requestId' = r.id::text AND NOT (part ->> 'delivered')::boolean)::int AS count`,
    [studioId, songId],
  );
  return rows[0]?.count ?? 0;
}
