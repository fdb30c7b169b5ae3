import type { Store } from './database.ts';

/** A request as work: what is known of it, and what was spent on it. */
export interface WorkRow {
  readonly id: string;
  readonly state: string;
  readonly title: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly wantedBy: string | null;
  readonly promisedFor: string | null;
  readonly fidelity: string;
  readonly parts: number;
  readonly guitarMeant: string;
  readonly spentMinutes: number;
  /** Seconds of music in its sections, each once; null before the form is laid out. */
  readonly seconds: number | null;
  /** Notes, and seconds of music, of the phrases that are written. */
  readonly notes: number | null;
  readonly written: number | null;
  /** The share of its phrases that was heard or seen for certain. */
  readonly certain: number | null;
  readonly deliveredAt: Date | null;
}

/** A forgotten timer counts until its last sign of life and so long after it, minutes. Our choice. */
export const GRACE_MINUTES = 10;

/** The end of a span that counts: its own, now while it shows life, else the last sign of it. */
const END = `CASE WHEN w.ended_at IS NOT NULL THEN w.ended_at
                  WHEN w.seen_at + interval '${GRACE_MINUTES} minutes' > $2 THEN $2::timestamptz ELSE w.seen_at END`;

/** The requests of a studio that are work, or were and have hours. SQL by hand: minutes are summed where the rows are. */
export function findWork(
  store: Store,
  studioId: string,
  { now, states }: { readonly now: Date; readonly states: readonly string[] },
): Promise<readonly WorkRow[]> {
  return store.rows<WorkRow>(
    `WITH h AS MATERIALIZED (
       SELECT w.request_id, sum(extract(epoch FROM ${END} - w.started_at)) / 60 AS minutes
         FROM work_spans w WHERE w.studio_id = $1 GROUP BY w.request_id
     ), r AS MATERIALIZED (
       SELECT q.*, s.name, s.fidelity, s.teacher_id, coalesce(h.minutes, 0) AS minutes
         FROM requests q
         JOIN people s ON s.studio_id = q.studio_id AND s.id = q.student_id
         LEFT JOIN h ON h.request_id = q.id
        WHERE q.studio_id = $1 AND s.archived_at IS NULL AND (q.state = ANY ($3::text[]) OR h.minutes IS NOT NULL)
     )
     SELECT r.id, r.state, r.title, r.student_id AS "studentId", r.name AS "studentName", r.wanted_by::text AS "wantedBy",
            r.promised_for::text AS "promisedFor", jsonb_array_length(r.wanted) AS parts, r.guitar_meant AS "guitarMeant",
            coalesce(r.fidelity, (SELECT w.fidelity FROM people w WHERE w.id = r.teacher_id),
                     (SELECT o.fidelity FROM studios o WHERE o.id = r.studio_id)) AS fidelity,
            r.minutes::float8 AS "spentMinutes", m.seconds, p.notes, p.written, p.certain,
            (SELECT max(e.at) FROM request_events e WHERE e.studio_id = r.studio_id AND e.request_id = r.id
                AND e.state = 'delivered') AS "deliveredAt"
       FROM r
       LEFT JOIN transcriptions t ON t.studio_id = r.studio_id AND t.request_id = r.id
       LEFT JOIN LATERAL (SELECT sum(c.bars) * 240.0 / t.tempo AS seconds FROM sections c
                           WHERE c.studio_id = t.studio_id AND c.transcription_id = t.id AND NOT c.struck) m ON true
       LEFT JOIN LATERAL (
         SELECT sum(array_length(string_to_array(trim(x.steps), ' '), 1) + 1)::float8 AS notes,
                sum(x.bars * 240 / x.bpm)::float8 AS written,
                avg((f.certainty IN ('heard', 'seen'))::int)::float8 AS certain
           FROM sections c
           JOIN phrases f ON f.studio_id = c.studio_id AND f.section_id = c.id AND NOT f.struck
           JOIN phrase_facts x ON x.studio_id = f.studio_id AND x.id = f.id
          WHERE c.studio_id = t.studio_id AND c.transcription_id = t.id AND NOT c.struck) p ON true
      ORDER BY r.line`,
    [studioId, now.toISOString(), states],
  );
}

/** The span of a person that runs, whatever its last sign of life. SQL by hand: the newest span that gave a sign of life. */
export async function findRunning(
  store: Store,
  studioId: string,
  personId: string,
): Promise<{ readonly requestId: string; readonly startedAt: Date; readonly seenAt: Date } | undefined> {
  const rows = await store.rows<{ requestId: string; startedAt: Date; seenAt: Date }>(
    `SELECT w.request_id AS "requestId", w.started_at AS "startedAt", w.seen_at AS "seenAt" FROM work_spans w
      WHERE w.studio_id = $1 AND w.person_id = $2 AND w.ended_at IS NULL`,
    [studioId, personId],
  );
  return rows[0];
}

/**
 * Ends the span of a person that runs: now, or at its last sign of life where it was forgotten.
 * SQL by hand: a forgotten timer ends with its last sign of life.
 */
export async function endRunning(store: Store, studioId: string, personId: string, now: Date): Promise<void> {
  await store.rows(
    `UPDATE work_spans w SET ended_at = CASE WHEN w.seen_at + interval '${GRACE_MINUTES} minutes' > $3 THEN greatest($3::timestamptz, w.started_at)
                                             ELSE w.seen_at END, version = w.version + 1
      WHERE w.studio_id = $1 AND w.person_id = $2 AND w.ended_at IS NULL RETURNING w.id`,
    [studioId, personId, now.toISOString()],
  );
}

/**
 * A sign of life of the span that runs, where it is of this request and was not forgotten; whether there is one.
 * SQL by hand: two signs at once never start two.
 */
export async function seeRunning(
  store: Store,
  studioId: string,
  { personId, requestId, now }: { readonly personId: string; readonly requestId: string; readonly now: Date },
): Promise<boolean> {
  const rows = await store.rows(
    `UPDATE work_spans w SET seen_at = greatest(w.seen_at, $4::timestamptz)
      WHERE w.studio_id = $1 AND w.person_id = $2 AND w.request_id = $3 AND w.ended_at IS NULL
        AND w.seen_at + interval '${GRACE_MINUTES} minutes' > $4 RETURNING w.id`,
    [studioId, personId, requestId, now.toISOString()],
  );
  return rows.length > 0;
}
