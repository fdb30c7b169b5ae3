import type { Store } from './database.ts';

/** Something that was struck out, and who wrote it where that matters. */
export interface StruckRow {
  readonly kind: string;
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly place: string;
  readonly at: Date | null;
  readonly by: string | null;
}

/** Most lines of one list; the newest where there are more. Our choice. */
const MAX = 300;

/**
 * What was struck out of what is one student’s, or of one of their songs. SQL by hand: rows of seven tables in one list.
 */
export function findStruck(
  store: Store,
  studioId: string,
  { studentId, songId }: { readonly studentId: string | null; readonly songId: string | null },
): Promise<readonly StruckRow[]> {
  return store.rows<StruckRow>(
    `WITH songs AS MATERIALIZED (
       SELECT t.id, t.title, t.student_id FROM transcriptions t
        WHERE t.studio_id = $1 AND ($2::uuid IS NULL OR t.student_id = $2) AND ($3::uuid IS NULL OR t.id = $3)
     ), phrase AS (
       SELECT f.*, c.label, t.title, t.id AS song_id FROM phrases f
         JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
         JOIN songs t ON t.id = c.transcription_id WHERE f.studio_id = $1
     ), piece AS (
       SELECT i.*, f.name, f.title FROM pieces i JOIN phrase f ON f.id = i.phrase_id WHERE i.studio_id = $1
     )
     SELECT kind, id, version, name, place, at, by FROM (
       SELECT 'section' AS kind, c.id, c.version, c.label || ' ' || c.role AS name, t.title AS place, NULL::timestamptz AS at, NULL::uuid AS by
         FROM sections c JOIN songs t ON t.id = c.transcription_id WHERE c.studio_id = $1 AND c.struck
       UNION ALL
       SELECT 'phrase', f.id, f.version, f.name, f.label || ', ' || f.title, NULL, NULL FROM phrase f WHERE f.struck
       UNION ALL
       SELECT 'piece', i.id, i.version, i.name, i.kind || ', ' || i.title, i.assigned_on::timestamptz, NULL FROM piece i WHERE i.struck
       UNION ALL
       SELECT 'result', e.id, e.version, e.bpm || CASE e.outcome WHEN 'clean' THEN ' clean' ELSE ' not yet' END, i.name || ', ' || i.title, e.posted_at, e.posted_by
         FROM entries e JOIN piece i ON i.id = e.piece_id WHERE e.studio_id = $1 AND e.struck
       UNION ALL
       SELECT 'point', h.id, h.version, h.kind || CASE WHEN h.remark = '' THEN '' ELSE ': ' || h.remark END, i.name || ', ' || i.title, h.day::timestamptz, NULL
         FROM hearings h JOIN piece i ON i.id = h.piece_id WHERE h.studio_id = $1 AND h.struck
       UNION ALL
       SELECT 'note', n.id, n.version, n.text, f.name || ', ' || f.title, n.pinned_at, n.person_id
         FROM pins n JOIN phrase f ON f.id = n.phrase_id
        WHERE n.studio_id = $1 AND n.struck AND NOT EXISTS (SELECT 1 FROM hearings h WHERE h.studio_id = $1 AND h.id = n.id)
       UNION ALL
       SELECT 'series', s.id, s.version, s.title, p.name, NULL, NULL
         FROM series s JOIN people p ON p.studio_id = s.studio_id AND p.id = s.student_id
        WHERE s.studio_id = $1 AND s.struck AND ($2::uuid IS NULL OR s.student_id = $2) AND $3::uuid IS NULL
     ) found ORDER BY at DESC NULLS LAST, place, name, id LIMIT ${MAX}`,
    [studioId, studentId, songId],
  );
}

/** What is new on the lists of somebody. */
export interface CountsRow {
  readonly desk: number;
  readonly requests: number;
  readonly practice: number;
  readonly home: number;
}

/**
 * Counts what came since somebody last looked at each of their lists: of a teacher notes of students and requests that nobody answered, of
 * a student what their requests came to and pieces they were given, of them and those at home what went home.
 * SQL by hand: four counts in one query.
 */
export async function findCounts(
  store: Store,
  studioId: string,
  who: {
    readonly personId: string;
    readonly isTeacher: boolean;
    /** The students that are meant: those of a teacher, null for all; of others themselves, or their wards. */
    readonly teacherId: string | null;
    readonly studentIds: readonly string[];
    readonly since: Date;
  },
): Promise<CountsRow> {
  const rows = await store.rows<CountsRow>(
    `WITH seen AS MATERIALIZED (SELECT list, at FROM seen_lists WHERE studio_id = $1 AND person_id = $2),
     mine AS MATERIALIZED (
       SELECT p.id FROM people p WHERE p.studio_id = $1 AND p.role = 'student' AND p.archived_at IS NULL
          AND CASE WHEN $3 THEN $4::uuid IS NULL OR p.teacher_id = $4 OR p.teacher_id IS NULL ELSE p.id = ANY ($5::uuid[]) END
     ), since AS MATERIALIZED (
       SELECT coalesce((SELECT at FROM seen WHERE list = 'desk'), $6) AS desk,
              coalesce((SELECT at FROM seen WHERE list = 'requests'), $6) AS requests,
              coalesce((SELECT at FROM seen WHERE list = 'practice'), $6) AS practice,
              coalesce((SELECT at FROM seen WHERE list = 'home'), $6) AS home
     )
     SELECT CASE WHEN $3 THEN
              (SELECT count(*)::int FROM pins i WHERE i.studio_id = $1 AND i.pinned_at > s.desk AND NOT i.struck AND i.person_id IN (SELECT id FROM mine))
              + (SELECT count(*)::int FROM entries e WHERE e.studio_id = $1 AND e.posted_at > s.desk AND e.remark <> '' AND NOT e.struck
                    AND e.medium = 'pencil' AND e.posted_by IN (SELECT id FROM mine)) ELSE 0 END AS desk,
            CASE WHEN $3 THEN (SELECT count(*)::int FROM requests r WHERE r.studio_id = $1 AND r.state = 'asked' AND r.student_id IN (SELECT id FROM mine))
                 ELSE (SELECT count(DISTINCT e.request_id)::int FROM request_events e JOIN requests r ON r.studio_id = e.studio_id AND r.id = e.request_id
                        WHERE e.studio_id = $1 AND e.at > s.requests AND e.person_id <> $2 AND r.student_id IN (SELECT id FROM mine)) END AS requests,
            CASE WHEN $3 THEN 0 ELSE (SELECT count(*)::int FROM pins i JOIN phrases f ON f.studio_id = i.studio_id AND f.id = i.phrase_id
                   JOIN pieces p ON p.studio_id = i.studio_id AND p.phrase_id = f.id AND p.kind = 'phrase' AND NOT p.struck
                  WHERE i.studio_id = $1 AND i.pinned_at > s.practice AND NOT i.struck AND i.person_id <> $2 AND p.student_id IN (SELECT id FROM mine)) END AS practice,
            CASE WHEN $3 THEN 0 ELSE (SELECT count(*)::int FROM lesson_notes n WHERE n.studio_id = $1 AND n.written_at > s.home AND n.home <> ''
                    AND n.student_id IN (SELECT id FROM mine)) END AS home
       FROM since s`,
    [studioId, who.personId, who.isTeacher, who.teacherId, who.studentIds, who.since.toISOString()],
  );
  return rows[0] ?? { desk: 0, requests: 0, practice: 0, home: 0 };
}

/** Notes when somebody looked at a list. SQL by hand: one statement, whether they had before or not. */
export async function seeList(
  store: Store,
  studioId: string,
  { personId, list, now }: { readonly personId: string; readonly list: string; readonly now: Date },
): Promise<void> {
  await store.rows(
    `INSERT INTO seen_lists (studio_id, person_id, list, at) VALUES ($1, $2, $3, $4)
     ON CONFLICT (person_id, list) DO UPDATE SET at = greatest(seen_lists.at, excluded.at) RETURNING id`,
    [studioId, personId, list, now.toISOString()],
  );
}

/** Something that was corrected, with the name of its row and of who did it. */
export interface CorrectionRow {
  readonly id: string;
  readonly at: Date;
  readonly by: string;
  readonly kind: string;
  readonly field: string;
  readonly name: string;
  readonly was: string;
  readonly became: string;
}

/** What was corrected of a row, and of a song with what is in it, the last first. SQL by hand: rows of four kinds in one list. */
export function findCorrections(store: Store, studioId: string, id: string): Promise<readonly CorrectionRow[]> {
  return store.rows<CorrectionRow>(
    `SELECT x.id, x.at, p.name AS by, x.kind, x.field, coalesce(f.name, c.label, t.title, w.name, '') AS name, x.was, x.became
       FROM corrections x
       JOIN people p ON p.studio_id = x.studio_id AND p.id = x.person_id
       LEFT JOIN phrases f ON f.studio_id = x.studio_id AND f.id = x.row_id
       LEFT JOIN sections c ON c.studio_id = x.studio_id AND c.id = x.row_id
       LEFT JOIN sections fc ON fc.studio_id = x.studio_id AND fc.id = f.section_id
       LEFT JOIN transcriptions t ON t.studio_id = x.studio_id AND t.id = x.row_id
       LEFT JOIN people w ON w.studio_id = x.studio_id AND w.id = x.row_id
      WHERE x.studio_id = $1 AND (x.row_id = $2 OR c.transcription_id = $2 OR fc.transcription_id = $2)
      ORDER BY x.line DESC LIMIT ${MAX}`,
    [studioId, id],
  );
}
