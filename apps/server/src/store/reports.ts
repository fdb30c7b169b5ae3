import type { Store } from './database.ts';
import { IN_PHRASES, STANDS } from './pieces.ts';

/** Pieces of some difficulty, and how long those held took. */
export interface HeldBandRow {
  readonly band: number;
  readonly pieces: number;
  readonly held: number;
  readonly medianDays: number | null;
}

/**
 * Pieces given, in so many bands of difficulty from 0 to 100; by what is kept beside each of where it stands.
 * SQL by hand: counts and medians are computed where the rows are.
 */
export function findHeldBands(store: Store, studioId: string, bands: number): Promise<readonly HeldBandRow[]> {
  return store.rows<HeldBandRow>(
    `SELECT least($2 - 1, floor(p.difficulty * $2 / 100.0))::int AS band, count(*)::int AS pieces,
            count(p.kept -> 'mastery' ->> 'heldSince')::int AS held,
            percentile_cont(0.5) WITHIN GROUP (ORDER BY ((p.kept -> 'mastery' ->> 'heldSince')::date - p.assigned_on))::float8 AS "medianDays"
       FROM pieces p
       ${IN_PHRASES}
      WHERE p.studio_id = $1 AND p.assigned_on IS NOT NULL AND p.difficulty IS NOT NULL AND ${STANDS}
      GROUP BY 1 ORDER BY 1`,
    [studioId, bands],
  );
}

/** A week of lessons and work. */
export interface WeekRow {
  readonly from: string;
  readonly lessons: number;
  readonly lessonMinutes: number;
  readonly workMinutes: number;
}

/**
 * Lessons and hours of work in each week from one Monday to another, days in the zone of the studio.
 * SQL by hand: sums over weeks of the studio’s zone.
 */
export function findWeeks(
  store: Store,
  studioId: string,
  { from, to, zone, now }: { readonly from: string; readonly to: string; readonly zone: string; readonly now: Date },
): Promise<readonly WeekRow[]> {
  return store.rows<WeekRow>(
    `WITH weeks AS (SELECT w::date AS day FROM generate_series($2::date, $3::date, interval '7 days') w)
     SELECT w.day::text AS "from", coalesce(l.lessons, 0)::int AS lessons, coalesce(l.minutes, 0)::float8 AS "lessonMinutes",
            coalesce(h.minutes, 0)::float8 AS "workMinutes"
       FROM weeks w
       LEFT JOIN (SELECT date_trunc('week', l.starts_at AT TIME ZONE $4)::date AS day, count(*) AS lessons,
                         sum(extract(epoch FROM l.ends_at - l.starts_at)) / 60 AS minutes
                    FROM (SELECT l.starts_at, l.ends_at FROM lessons l
                            JOIN series e ON e.studio_id = l.studio_id AND e.id = l.series_id AND NOT e.struck
                            JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id AND s.archived_at IS NULL
                           WHERE l.studio_id = $1
                           UNION ALL SELECT x.started_at, x.ended_at FROM erased_hours x WHERE x.studio_id = $1 AND x.kind = 'lesson') l
                   WHERE l.starts_at >= $2::date - interval '1 day' AND l.starts_at < $3::date + interval '8 days'
                   GROUP BY 1) l ON l.day = w.day
       LEFT JOIN (SELECT date_trunc('week', s.started_at AT TIME ZONE $4)::date AS day,
                         sum(extract(epoch FROM s.ended_at - s.started_at)) / 60 AS minutes
                    FROM (SELECT w.started_at, coalesce(w.ended_at, least(w.seen_at, $5::timestamptz)) AS ended_at
                            FROM work_spans w WHERE w.studio_id = $1
                           UNION ALL SELECT x.started_at, x.ended_at FROM erased_hours x WHERE x.studio_id = $1 AND x.kind = 'work') s
                   WHERE s.started_at >= $2::date - interval '1 day' GROUP BY 1) h ON h.day = w.day
      ORDER BY w.day`,
    [studioId, from, to, zone, now.toISOString()],
  );
}

/**
 * The songs of some requests, and of all of a student where none is named; with the titles of their requests.
 * SQL by hand: sums over pieces of several songs.
 */
export function findSongsOf(
  store: Store,
  studioId: string,
  { studentId, requestIds }: { readonly studentId: string; readonly requestIds: readonly string[] },
): Promise<readonly { readonly requestId: string; readonly songId: string | null; readonly title: string }[]> {
  return store.rows(
    `SELECT r.id AS "requestId", t.id AS "songId", r.title
       FROM requests r
       LEFT JOIN transcriptions t ON t.studio_id = r.studio_id AND t.request_id = coalesce(r.follows_id, r.id)
      WHERE r.studio_id = $1 AND r.student_id = $2 AND (cardinality($3::uuid[]) = 0 OR r.id = ANY ($3)) ORDER BY r.line`,
    [studioId, studentId, requestIds],
  );
}
