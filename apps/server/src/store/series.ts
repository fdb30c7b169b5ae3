import type { Instalment } from '@jam-ledger/contract';
import type { LessonChanges, LessonDate, LessonRule } from '@jam-ledger/core/series';
import type { Store } from './database.ts';

/** A series with the names of its people. */
export interface SeriesRow {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly title: string;
  readonly rule: LessonRule;
  readonly changes: LessonChanges;
  readonly goal: string;
  readonly goalDay: string | null;
  readonly instalments: readonly Instalment[];
  readonly studentId: string;
  readonly studentName: string;
  readonly teacherId: string;
  readonly teacherName: string;
}

/** A lesson of a series, and the how-many-eth of how many it is. */
export interface LessonRow {
  readonly id: string;
  readonly seriesId: string;
  readonly title: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly teacherId: string;
  readonly startsAt: Date;
  readonly endsAt: Date;
  readonly why: string;
  readonly number: number;
  readonly of: number;
}

/**
 * The series of a studio, those struck and those of students who left aside: of some students, or the one with an id, whatever became of it.
 * SQL by hand: names of both people in one query.
 */
export function findSeries(
  store: Store,
  studioId: string,
  only: { readonly studentIds?: readonly string[] | undefined; readonly id?: string },
): Promise<readonly SeriesRow[]> {
  return store.rows<SeriesRow>(
    `SELECT e.id, e.version, e.struck, e.title, e.rule, e.changes, e.goal, e.goal_day::text AS "goalDay", e.instalments,
            e.student_id AS "studentId", s.name AS "studentName", e.teacher_id AS "teacherId", t.name AS "teacherName"
       FROM series e
       JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
       JOIN people t ON t.studio_id = e.studio_id AND t.id = e.teacher_id
      WHERE e.studio_id = $1 AND ($2::uuid[] IS NULL OR e.student_id = ANY ($2)) AND ($3::uuid IS NULL OR e.id = $3)
        AND ($3::uuid IS NOT NULL OR NOT e.struck AND s.archived_at IS NULL)
      ORDER BY s.name, e.title, e.id`,
    [studioId, only.studentIds ?? null, only.id ?? null],
  );
}

/** A line of the list of series; day and time of the next lesson are null where it is over. */
export interface SeriesLineRow {
  readonly total: number;
  readonly id: string;
  readonly title: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly teacherId: string;
  readonly teacherName: string;
  readonly lessons: number;
  readonly day: string | null;
  readonly time: string | null;
}

/**
 * A page of the series of a studio, those struck and those of students who left aside, with the lessons kept of each.
 * SQL by hand: a page of the list, with counts and the next lesson of each.
 */
export function findSeriesLines(
  store: Store,
  studioId: string,
  {
    studentIds,
    from,
    max,
    since,
    zone,
  }: {
    readonly studentIds: readonly string[] | undefined;
    readonly from: number;
    readonly max: number;
    /** The next lesson is the first from this moment on. */
    readonly since: Date;
    readonly zone: string;
  },
): Promise<readonly SeriesLineRow[]> {
  return store.rows<SeriesLineRow>(
    `SELECT p.*, (SELECT count(*)::int FROM lessons l WHERE l.series_id = p.id) AS lessons,
            to_char(n.starts_at, 'YYYY-MM-DD') AS day, to_char(n.starts_at, 'HH24:MI') AS time
       FROM (SELECT count(*) OVER ()::int AS total, e.id, e.title, e.student_id AS "studentId", s.name AS "studentName",
                    e.teacher_id AS "teacherId", t.name AS "teacherName"
               FROM series e
               JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
               JOIN people t ON t.studio_id = e.studio_id AND t.id = e.teacher_id
              WHERE e.studio_id = $1 AND ($2::uuid[] IS NULL OR e.student_id = ANY ($2)) AND NOT e.struck AND s.archived_at IS NULL
              ORDER BY s.name, e.title, e.id LIMIT $4 OFFSET $3) p
       LEFT JOIN LATERAL (SELECT min(l.starts_at) AT TIME ZONE $6 AS starts_at
                            FROM lessons l WHERE l.series_id = p.id AND l.starts_at >= $5) n ON true
      ORDER BY p."studentName", p.title, p.id`,
    [studioId, studentIds ?? null, from, max, since.toISOString(), zone],
  );
}

/**
 * The lessons of a series in the order of the clock, as they are kept.
 * SQL by hand: days and times are told in the studio’s zone by the database.
 */
export function findLessonDates(
  store: Store,
  studioId: string,
  { seriesId, zone }: { readonly seriesId: string; readonly zone: string },
): Promise<readonly LessonDate[]> {
  const utc = (column: string) => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`;
  return store.rows<LessonDate>(
    `SELECT to_char(l.starts_at AT TIME ZONE $3, 'YYYY-MM-DD') AS day, to_char(l.starts_at AT TIME ZONE $3, 'HH24:MI') AS time,
            ${utc('l.starts_at')} AS "startsAt", ${utc('l.ends_at')} AS "endsAt", l.why
       FROM lessons l WHERE l.studio_id = $1 AND l.series_id = $2 ORDER BY l.starts_at`,
    [studioId, seriesId, zone],
  );
}

/**
 * What is still to be handed out of the series of a studio, those struck and of students who left aside.
 * SQL by hand: what is handed out already is left out where it lies.
 */
export async function findInstalments(store: Store, studioId: string): Promise<readonly Instalment[]> {
  const rows = await store.rows<{ instalments: readonly Instalment[] }>(
    `SELECT e.instalments FROM series e JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
      WHERE e.studio_id = $1 AND NOT e.struck AND s.archived_at IS NULL AND e.instalments <> '[]'`,
    [studioId],
  );
  return rows.flatMap(({ instalments }) => instalments.filter(({ delivered }) => !delivered));
}

/** No lesson is longer than this, so that the index over beginnings finds those that reach into a stretch. */
const LONGEST_LESSON = '1 day';

/**
 * The lessons of a studio that touch a stretch of time, in the order of the clock, those of struck series and of students who left aside.
 * SQL by hand: desk and home read it, by the index over beginnings.
 */
export function findLessons(
  store: Store,
  studioId: string,
  {
    from,
    to,
    teacherId,
    studentId,
    after,
    max,
  }: {
    readonly from: string;
    readonly to: string;
    /** Only those of one teacher, or one student. */
    readonly teacherId?: string | undefined;
    readonly studentId?: string | undefined;
    /** Only those that end later, and at most so many. */
    readonly after?: Date;
    readonly max?: number;
  },
): Promise<readonly LessonRow[]> {
  return store.rows<LessonRow>(
    `SELECT l.id, l.series_id AS "seriesId", e.title, e.student_id AS "studentId", s.name AS "studentName",
            e.teacher_id AS "teacherId", l.starts_at AS "startsAt", l.ends_at AS "endsAt", l.why,
            (SELECT count(*)::int FROM lessons o WHERE o.series_id = l.series_id AND o.starts_at <= l.starts_at) AS number,
            (SELECT count(*)::int FROM lessons o WHERE o.series_id = l.series_id) AS of
       FROM lessons l
       JOIN series e ON e.studio_id = l.studio_id AND e.id = l.series_id
       JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
      WHERE l.studio_id = $1 AND l.starts_at < $3 AND l.starts_at > $2::timestamptz - $4::interval AND l.ends_at > $2
        AND NOT e.struck AND s.archived_at IS NULL AND ($5::uuid IS NULL OR e.teacher_id = $5)
        AND ($6::uuid IS NULL OR e.student_id = $6) AND ($7::timestamptz IS NULL OR l.ends_at > $7)
      ORDER BY l.starts_at, l.id LIMIT $8`,
    [
      studioId,
      from,
      to,
      LONGEST_LESSON,
      teacherId ?? null,
      studentId ?? null,
      after?.toISOString() ?? null,
      max ?? null,
    ],
  );
}

/** When somebody is taken: a lesson with the people it takes. */
export interface TakenRow {
  readonly seriesId: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly teacherId: string;
  readonly startsAt: Date;
  readonly endsAt: Date;
}

/**
 * The lessons in a stretch of time that take some people, whether they give or have them, some series left out.
 * SQL by hand: overlaps are looked for among all lessons of some people.
 */
export function findTaken(
  store: Store,
  studioId: string,
  {
    from,
    to,
    people,
    but,
  }: {
    readonly from: string;
    readonly to: string;
    readonly people: readonly string[];
    /** Series that are left out. */
    readonly but: readonly string[];
  },
): Promise<readonly TakenRow[]> {
  return store.rows<TakenRow>(
    `SELECT l.series_id AS "seriesId", e.student_id AS "studentId", s.name AS "studentName", e.teacher_id AS "teacherId",
            l.starts_at AS "startsAt", l.ends_at AS "endsAt"
       FROM series e
       JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
       JOIN lessons l ON l.studio_id = e.studio_id AND l.series_id = e.id
      WHERE e.studio_id = $1 AND NOT e.struck AND s.archived_at IS NULL
        AND (e.student_id = ANY ($4::uuid[]) OR e.teacher_id = ANY ($4::uuid[]))
        AND NOT (e.id = ANY ($5::uuid[])) AND l.starts_at < $3 AND l.ends_at > $2`,
    [studioId, from, to, people, but],
  );
}

/** A lesson as it is kept. */
export interface KeptLesson {
  readonly startsAt: string;
  readonly endsAt: string;
  readonly why: string;
}

/**
 * Makes the lessons of a series those given; one that begins at the same moment stays the same lesson.
 * SQL by hand: a series of lessons is kept by two statements.
 */
export async function keepLessons(
  store: Store,
  { studioId, seriesId }: { readonly studioId: string; readonly seriesId: string },
  lessons: readonly KeptLesson[],
): Promise<void> {
  await store.rows(
    `INSERT INTO lessons (studio_id, series_id, starts_at, ends_at, why)
     SELECT $1, $2, r."startsAt", r."endsAt", r.why
       FROM jsonb_to_recordset($3::jsonb) AS r ("startsAt" timestamptz, "endsAt" timestamptz, why text)
     ON CONFLICT (series_id, starts_at) DO UPDATE SET ends_at = EXCLUDED.ends_at, why = EXCLUDED.why
     RETURNING id`,
    [studioId, seriesId, JSON.stringify(lessons)],
  );
  await store.rows(
    `DELETE FROM lessons WHERE studio_id = $1 AND series_id = $2 AND NOT (starts_at = ANY ($3::timestamptz[])) RETURNING id`,
    [studioId, seriesId, lessons.map(({ startsAt }) => startsAt)],
  );
}
