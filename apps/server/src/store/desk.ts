import type { KeptStanding } from '@jam-ledger/contract';
import type { Stretch } from '@jam-ledger/core/pieces';
import type { Store } from './database.ts';

/** A piece as far as desk and agenda need it, with where it was last reckoned to stand. */
export interface KeptPieceRow {
  readonly id: string;
  readonly kind: string;
  readonly parts: readonly Stretch[];
  readonly studentId: string;
  readonly songId: string;
  readonly kept: KeptStanding;
}

/** The given pieces of some students that were reckoned, in the order they are learned. */
export function findKeptPieces(
  store: Store,
  studioId: string,
  studentIds: readonly string[],
): Promise<readonly KeptPieceRow[]> {
  return store.rows<KeptPieceRow>(
    `SELECT p.id, p.kind, p.parts, p.student_id AS "studentId", p.song_id AS "songId", p.kept
       FROM pieces p
      WHERE p.studio_id = $1 AND p.student_id = ANY ($2::uuid[]) AND p.assigned_on IS NOT NULL AND NOT p.struck
        AND p.kept IS NOT NULL
      ORDER BY p.student_id, p.song_id, p.place, p.id`,
    [studioId, studentIds],
  );
}

/** A piece that calls for the teacher. */
export interface CallRow {
  readonly id: string;
  readonly kind: string;
  readonly parts: readonly Stretch[];
  readonly studentId: string;
  readonly studentName: string;
  readonly section: string;
  readonly song: string;
  readonly call: number;
  readonly kept: KeptStanding;
}

/** The pieces that call, of the students of one teacher or of all, the most urgent first; and how many there are. */
export async function findCalls(
  store: Store,
  studioId: string,
  { teacherId, most }: { readonly teacherId: string | undefined; readonly most: number },
): Promise<{ readonly rows: readonly CallRow[]; readonly count: number }> {
  const rows = await store.rows<CallRow & { readonly count: number }>(
    `WITH calling AS MATERIALIZED (
       SELECT p.id, p.kind, p.parts, p.student_id, p.song_id, p.call, p.kept, s.name AS student_name, n.label AS section
         FROM pieces p
         JOIN phrases f ON f.studio_id = p.studio_id AND f.id = p.phrase_id AND NOT f.struck
         JOIN sections n ON n.studio_id = f.studio_id AND n.id = f.section_id AND NOT n.struck
         JOIN people s ON s.studio_id = p.studio_id AND s.id = p.student_id
        WHERE p.studio_id = $1 AND p.call IS NOT NULL AND p.assigned_on IS NOT NULL AND NOT p.struck
          AND s.archived_at IS NULL AND ($2::uuid IS NULL OR s.teacher_id = $2 OR s.teacher_id IS NULL)
     )
     SELECT c.id, c.kind, c.parts, c.student_id AS "studentId", c.student_name AS "studentName", c.call, c.kept,
            c.section, t.title AS song, (SELECT count(*)::int FROM calling) AS count
       FROM (SELECT * FROM calling ORDER BY call, id LIMIT $3) c
       JOIN transcriptions t ON t.studio_id = $1 AND t.id = c.song_id
      ORDER BY c.call, c.id`,
    [studioId, teacherId ?? null, most],
  );
  return { rows, count: rows[0]?.count ?? 0 };
}

/** Names of phrases by their ids. */
export async function findPhraseNames(
  store: Store,
  studioId: string,
  ids: readonly string[],
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return store.rows('SELECT f.id, f.name FROM phrases f WHERE f.studio_id = $1 AND f.id = ANY ($2::uuid[])', [
    studioId,
    [...new Set(ids)],
  ]);
}

/** Something a student wrote: a note pinned to a piece’s phrase, or a remark on an entry. */
export interface StudentNoteRow {
  readonly id: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly pieceId: string | null;
  readonly phrase: string;
  readonly song: string;
  readonly text: string;
  readonly at: Date;
}

/** What students wrote from a moment on and since the last lesson with them, the newest first. */
export function findStudentNotes(
  store: Store,
  studioId: string,
  { since, teacherId, most }: { readonly since: Date; readonly teacherId: string | undefined; readonly most: number },
): Promise<readonly StudentNoteRow[]> {
  return store.rows<StudentNoteRow>(
    `SELECT n.id, s.id AS "studentId", s.name AS "studentName", n.piece_id AS "pieceId", f.name AS phrase, t.title AS song,
            n.text, n.at
       FROM (
         (SELECT i.id, i.person_id AS student_id, i.phrase_id, NULL::uuid AS piece_id, i.text, i.pinned_at AS at
            FROM pins i WHERE i.studio_id = $1 AND i.pinned_at > $2 AND NOT i.struck)
         UNION ALL
         (SELECT e.id, e.posted_by, p.phrase_id, p.id, e.remark, e.posted_at
            FROM entries e JOIN pieces p ON p.studio_id = e.studio_id AND p.id = e.piece_id
           WHERE e.studio_id = $1 AND e.posted_at > $2 AND e.remark <> '' AND NOT e.struck AND e.medium = 'pencil')
       ) n
       JOIN people s ON s.studio_id = $1 AND s.id = n.student_id AND s.role = 'student' AND s.archived_at IS NULL
       JOIN phrases f ON f.studio_id = $1 AND f.id = n.phrase_id
       JOIN sections c ON c.studio_id = $1 AND c.id = f.section_id
       JOIN transcriptions t ON t.studio_id = $1 AND t.id = c.transcription_id
      WHERE ($3::uuid IS NULL OR s.teacher_id = $3 OR s.teacher_id IS NULL)
        AND n.at > coalesce((SELECT max(l.ends_at) FROM series x JOIN lessons l ON l.studio_id = x.studio_id AND l.series_id = x.id
                              WHERE x.studio_id = $1 AND x.student_id = s.id AND NOT x.struck AND l.ends_at < $5), $2)
      ORDER BY n.at DESC, n.id LIMIT $4`,
    [studioId, since.toISOString(), teacherId ?? null, most, new Date(since.getTime() + NOTES_MS).toISOString()],
  );
}

/** Notes are looked for so far back, milliseconds; `since` is now less this. */
export const NOTES_MS = 21 * 24 * 60 * 60 * 1000;

/** Students with given pieces whose standing is to be reckoned anew, at most so many. */
export async function findNotReckoned(store: Store, studioId: string | undefined, most: number) {
  return store.rows<{ studioId: string; studentId: string }>(
    `SELECT DISTINCT p.studio_id AS "studioId", p.student_id AS "studentId" FROM pieces p
       JOIN phrases f ON f.studio_id = p.studio_id AND f.id = p.phrase_id AND NOT f.struck
       JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id AND NOT c.struck
      WHERE p.kept IS NULL AND p.assigned_on IS NOT NULL AND NOT p.struck AND ($1::uuid IS NULL OR p.studio_id = $1) LIMIT $2`,
    [studioId ?? null, most],
  );
}

/** Where a piece stands, to be kept beside it. */
export interface StandingToKeep {
  readonly id: string;
  readonly kept: KeptStanding;
  readonly call: number | null;
  /** Grows with every change it was reckoned from; what was reckoned from fewer never takes the place of more. */
  readonly seen: number;
}

/** Keeps where pieces stand. A version is not counted up: nobody changed anything. */
export async function keepStandings(
  store: Store,
  studioId: string,
  standings: readonly StandingToKeep[],
): Promise<void> {
  if (standings.length === 0) return;
  await store.rows(
    `UPDATE pieces p SET kept = r.kept || jsonb_build_object('seen', r.seen), call = r.call
       FROM jsonb_to_recordset($2::jsonb) AS r (id uuid, kept jsonb, call smallint, seen integer)
      WHERE p.studio_id = $1 AND p.id = r.id AND (p.kept IS NULL OR (p.kept ->> 'seen')::int <= r.seen)
      RETURNING p.id`,
    [studioId, JSON.stringify(standings)],
  );
}

/** Lets what was reckoned be reckoned anew: of a phrase, a song, a student, of the students of a teacher, or of all the studio. */
export async function forgetStandings(
  store: Store,
  studioId: string,
  of: {
    readonly phraseId?: string;
    readonly songId?: string;
    readonly studentId?: string;
    readonly teacherId?: string;
  },
): Promise<void> {
  await store.rows(
    `UPDATE pieces p SET kept = NULL
      WHERE p.studio_id = $1 AND p.kept IS NOT NULL
        AND ($2::uuid IS NULL OR p.phrase_id = $2) AND ($3::uuid IS NULL OR p.song_id = $3)
        AND ($4::uuid IS NULL OR p.student_id = $4)
        AND ($5::uuid IS NULL OR p.student_id IN (SELECT s.id FROM people s WHERE s.studio_id = $1 AND s.teacher_id = $5))
      RETURNING p.id`,
    [studioId, of.phraseId ?? null, of.songId ?? null, of.studentId ?? null, of.teacherId ?? null],
  );
}
