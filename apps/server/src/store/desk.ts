import { CALL_KINDS, MAX_CALLING, type CallKind, type KeptStanding } from '@jam-ledger/contract';
import type { Excerpt } from '@jam-ledger/core/pieces';
import type { Store } from './database.ts';
import { IN_PHRASES, STANDS } from './pieces.ts';

/** A piece as far as desk and agenda need it, with where it was last computed to stand. */
export interface KeptPieceRow {
  readonly id: string;
  readonly kind: string;
  readonly parts: readonly Excerpt[];
  readonly studentId: string;
  readonly songId: string;
  readonly kept: KeptStanding;
}

/**
 * Of the given pieces of some students those that a lesson may open with, a few of each, the most urgent first as an agenda
 * has it: to be shown, slipping, stuck, due, growing, then joins, new ones and runs.
 * SQL by hand: the desk reads it for each coming lesson.
 */
export function findOpening(
  store: Store,
  studioId: string,
  { studentIds, today }: { readonly studentIds: readonly string[]; readonly today: string },
): Promise<readonly KeptPieceRow[]> {
  return store.rows<KeptPieceRow>(
    `SELECT o.id, o.kind, o.parts, w.id AS "studentId", o.song_id AS "songId", o.kept
       FROM unnest($2::uuid[]) w (id)
       CROSS JOIN LATERAL (
         SELECT p.id, p.kind, p.parts, p.song_id, p.kept
           FROM pieces p
           ${IN_PHRASES}
          WHERE p.studio_id = $1 AND p.student_id = w.id AND p.assigned_on IS NOT NULL AND p.kept IS NOT NULL AND ${STANDS}
          ORDER BY CASE WHEN p.kind = 'run' OR p.kept -> 'next' ->> 'move' = 'begin' THEN 8
                        WHEN p.call = ${callOf('wants to be heard')} THEN 0 WHEN p.call = ${callOf('slipping')} THEN 1 WHEN p.call = ${callOf('stuck')} THEN 2
                        WHEN p.kept -> 'memory' ->> 'day' <= $3 THEN 3
                        WHEN p.kept -> 'mastery' ->> 'state' = 'building' AND p.kind <> 'join' THEN 5 - (p.kept ->> 'share')::float8
                        ELSE 7 END, p.kept -> 'memory' ->> 'day', p.position, p.id
          LIMIT $4) o`,
    [studioId, studentIds, today, MAX_OPENING],
  );
}

const callOf = (kind: CallKind) => CALL_KINDS.indexOf(kind);

/** So many pieces of a student are looked at for what a lesson opens with. Our choice. */
const MAX_OPENING = 6;

/** A piece that calls for the teacher. */
export interface CallRow {
  readonly id: string;
  readonly kind: string;
  readonly parts: readonly Excerpt[];
  readonly studentId: string;
  readonly studentName: string;
  readonly section: string;
  readonly song: string;
  readonly call: number;
  readonly kept: KeptStanding;
}

/** Which pieces call: given, of students who did not leave, of one teacher’s or of all, in phrases that are still there. */
const CALLING = `
       FROM pieces p
       JOIN people s ON s.studio_id = p.studio_id AND s.id = p.student_id
       ${IN_PHRASES}
      WHERE p.studio_id = $1 AND p.call IS NOT NULL AND p.assigned_on IS NOT NULL AND ${STANDS}
        AND s.archived_at IS NULL AND ($2::uuid IS NULL OR s.teacher_id = $2 OR s.teacher_id IS NULL)`;

/**
 * The pieces that call, the most urgent first; and how many there are, up to `MAX_CALLING`.
 * SQL by hand: the desk reads it, by one walk over the index of pieces that call.
 */
export async function findCalls(
  store: Store,
  studioId: string,
  { teacherId, max }: { readonly teacherId: string | undefined; readonly max: number },
): Promise<{ readonly rows: readonly CallRow[]; readonly count: number }> {
  const rows = await store.rows<CallRow & { readonly count: number }>(
    `WITH calling AS MATERIALIZED (
       SELECT p.id, p.call, s.name, c.label ${CALLING} ORDER BY p.call, p.id LIMIT $4
     )
     SELECT p.id, p.kind, p.parts, p.student_id AS "studentId", n.name AS "studentName", p.call, p.kept, n.label AS section,
            (SELECT t.title FROM transcriptions t WHERE t.studio_id = p.studio_id AND t.id = p.song_id) AS song,
            (SELECT count(*)::int FROM calling) AS count
       FROM (SELECT * FROM calling ORDER BY call, id LIMIT $3) n
       JOIN pieces p ON p.studio_id = $1 AND p.id = n.id
      ORDER BY n.call, n.id`,
    [studioId, teacherId ?? null, max, MAX_CALLING],
  );
  return { rows, count: rows[0]?.count ?? 0 };
}

/** Names of phrases by their ids. */
export async function findPhraseNames(
  store: Store,
  studioId: string,
  ids: readonly string[],
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return store.phrases.findAll({ where: { studioId, id: [...new Set(ids)] }, attributes: ['id', 'name'] });
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

/**
 * What students wrote from a moment on and since the last lesson with them, the newest first.
 * SQL by hand: the desk reads it, from two tables since the last lesson.
 */
export function findStudentNotes(
  store: Store,
  studioId: string,
  {
    since,
    now,
    teacherId,
    max,
  }: { readonly since: Date; readonly now: Date; readonly teacherId: string | undefined; readonly max: number },
): Promise<readonly StudentNoteRow[]> {
  return store.rows<StudentNoteRow>(
    `WITH had AS MATERIALIZED (
       SELECT x.student_id, max(l.ends_at) AS last
         FROM lessons l JOIN series x ON x.studio_id = l.studio_id AND x.id = l.series_id
        WHERE l.studio_id = $1 AND l.starts_at > $2 AND l.starts_at < $5 AND l.ends_at < $5 AND NOT x.struck
        GROUP BY x.student_id
     ), notes AS MATERIALIZED (
       SELECT n.*, s.name
         FROM (
           (SELECT i.id, i.person_id AS student_id, i.phrase_id, NULL::uuid AS piece_id, i.text, i.pinned_at AS at
              FROM pins i WHERE i.studio_id = $1 AND i.pinned_at > $2 AND NOT i.struck)
           UNION ALL
           (SELECT e.id, e.posted_by, NULL, e.piece_id, e.remark, e.posted_at
              FROM entries e
             WHERE e.studio_id = $1 AND e.posted_at > $2 AND e.remark <> '' AND NOT e.struck AND e.medium = 'pencil')
         ) n
         JOIN people s ON s.studio_id = $1 AND s.id = n.student_id AND s.role = 'student' AND s.archived_at IS NULL
         LEFT JOIN had h ON h.student_id = s.id
        WHERE ($3::uuid IS NULL OR s.teacher_id = $3 OR s.teacher_id IS NULL) AND (h.last IS NULL OR n.at > h.last)
        ORDER BY n.at DESC, n.id LIMIT $4
     )
     SELECT n.id, n.student_id AS "studentId", n.name AS "studentName", n.piece_id AS "pieceId", f.name AS phrase, t.title AS song,
            n.text, n.at
       FROM notes n
       LEFT JOIN pieces p ON p.studio_id = $1 AND p.id = n.piece_id
       JOIN phrases f ON f.studio_id = $1 AND f.id = coalesce(n.phrase_id, p.phrase_id)
       JOIN sections c ON c.studio_id = $1 AND c.id = f.section_id
       JOIN transcriptions t ON t.studio_id = $1 AND t.id = c.transcription_id
      ORDER BY n.at DESC, n.id`,
    [studioId, since.toISOString(), teacherId ?? null, max, now.toISOString()],
  );
}

/** Notes are looked for so far back, milliseconds. Our choice: three weekly lessons. */
export const NOTES_MS = 21 * 24 * 60 * 60 * 1000;

/**
 * Students with given pieces, of all songs or of one, whose standing is to be computed anew, at most so many.
 * SQL by hand: the desk asks it first, by an index over what is missing.
 */
export async function findNotComputed(
  store: Store,
  { studioId, songId, max }: { readonly studioId?: string; readonly songId?: string; readonly max: number },
) {
  return store.rows<{ studioId: string; studentId: string }>(
    `SELECT DISTINCT p.studio_id AS "studioId", p.student_id AS "studentId" FROM pieces p
       ${IN_PHRASES}
      WHERE p.kept IS NULL AND p.assigned_on IS NOT NULL AND ${STANDS} AND ($1::uuid IS NULL OR p.studio_id = $1)
        AND ($2::uuid IS NULL OR p.song_id = $2) LIMIT $3`,
    [studioId ?? null, songId ?? null, max],
  );
}

/** Where a piece stands, to be kept beside it. */
export interface StandingToKeep {
  readonly id: string;
  readonly kept: KeptStanding;
  readonly call: number | null;
  /** Grows with every change it was computed from; what was computed from fewer never takes the place of more. */
  readonly seen: number;
}

/**
 * Keeps where pieces stand. A version is not counted up: nobody changed anything. Pieces that somebody else keeps just now are left to
 * them: were they waited for, two who keep many would wait for each other.
 * SQL by hand: many pieces are kept at once, and never over what has seen more.
 */
export async function keepStandings(
  store: Store,
  studioId: string,
  standings: readonly StandingToKeep[],
): Promise<void> {
  if (standings.length === 0) return;
  await store.rows(
    `UPDATE pieces p SET kept = r.kept || jsonb_build_object('seen', r.seen), call = r.call
       FROM (SELECT n.* FROM jsonb_to_recordset($2::jsonb) AS n (id uuid, kept jsonb, call smallint, seen integer)
               JOIN pieces free ON free.studio_id = $1 AND free.id = n.id
                FOR NO KEY UPDATE OF free SKIP LOCKED) r
      WHERE p.studio_id = $1 AND p.id = r.id AND (p.kept IS NULL OR (p.kept ->> 'seen')::int <= r.seen)
      RETURNING p.id`,
    [studioId, JSON.stringify(standings)],
  );
}

/**
 * Keeps where a piece stands by all its entries, within its turn; whether it was held before. What hangs on it is forgotten, where it is
 * a seam or a half. SQL by hand: a result is posted with as few ways to the database as can be.
 */
export async function keepComputed(
  store: Store,
  studioId: string,
  {
    id,
    kept,
    call,
    learningRate,
    hangingOn,
  }: Pick<StandingToKeep, 'id' | 'kept' | 'call'> & {
    readonly learningRate: number | null;
    readonly hangingOn: { readonly phraseId: string; readonly studentId: string } | null;
  },
): Promise<{ readonly wasHeld: boolean }> {
  const rows = await store.rows<{ wasHeld: boolean }>(
    `WITH forgotten AS (
       UPDATE pieces o SET kept = NULL
        WHERE o.studio_id = $1 AND o.phrase_id = $6 AND o.student_id = $7 AND o.id <> $2 AND o.kept IS NOT NULL RETURNING 1
     )
     UPDATE pieces p
        SET kept = $3::jsonb || jsonb_build_object('seen', p.version + (
              SELECT coalesce(sum(e.version), 0) FROM entries e WHERE e.studio_id = $1 AND (e.piece_id = $2 OR e.counts_for = $2))),
            call = $4, learning_rate = $5
       FROM pieces b
      WHERE p.studio_id = $1 AND p.id = $2 AND b.studio_id = $1 AND b.id = $2
     RETURNING b.kept -> 'mastery' ->> 'heldSince' IS NOT NULL AS "wasHeld"`,
    [studioId, id, JSON.stringify(kept), call, learningRate, hangingOn?.phraseId ?? null, hangingOn?.studentId ?? null],
  );
  return { wasHeld: rows[0]?.wasHeld ?? false };
}

/**
 * Lets what was computed be computed anew: of a phrase, a song, a student, of the students of a teacher, or of all the studio.
 * SQL by hand: all pieces of a phrase, song, student or teacher at once.
 */
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
