import type { AssignedTempo } from '@jam-ledger/contract';
import type { Store } from './database.ts';

/** A summary of a lesson with the name of who wrote it. */
export interface LessonNoteRow {
  readonly id: string;
  readonly version: number;
  readonly day: string;
  readonly studentId: string;
  readonly studentName: string;
  readonly words: string;
  readonly home: string;
  readonly assigned: readonly AssignedTempo[];
  readonly writtenBy: string;
  readonly writtenAt: Date;
}

const NOTE = `SELECT n.id, n.version, n.day::text AS day, n.student_id AS "studentId", s.name AS "studentName", n.words, n.home,
                     n.assigned, w.name AS "writtenBy", n.written_at AS "writtenAt"
                FROM lesson_notes n
                JOIN people s ON s.studio_id = n.studio_id AND s.id = n.student_id
                JOIN people w ON w.studio_id = n.studio_id AND w.id = n.written_by`;

/**
 * The summaries of some students up to a day, the newest first, at most so many.
 * SQL by hand: the name of whoever wrote it, the newest first.
 */
export function findLessonNotes(
  store: Store,
  studioId: string,
  { studentIds, until, max }: { readonly studentIds: readonly string[]; readonly until: string; readonly max: number },
): Promise<readonly LessonNoteRow[]> {
  return store.rows<LessonNoteRow>(
    `${NOTE} WHERE n.studio_id = $1 AND n.student_id = ANY ($2::uuid[]) AND n.day <= $3 ORDER BY n.day DESC, n.id LIMIT $4`,
    [studioId, studentIds, until, max],
  );
}

/** What a summary was before, the newest first. SQL by hand: several notes at once, in the order they were written. */
export function findLessonNoteRevisions(
  store: Store,
  studioId: string,
  noteId: string,
): Promise<readonly Omit<LessonNoteRow, 'version' | 'day' | 'studentId' | 'studentName'>[]> {
  return store.rows(
    `SELECT r.id, r.words, r.home, r.assigned, w.name AS "writtenBy", r.written_at AS "writtenAt"
       FROM lesson_note_revisions r JOIN people w ON w.studio_id = r.studio_id AND w.id = r.written_by
      WHERE r.studio_id = $1 AND r.note_id = $2 ORDER BY r.line DESC`,
    [studioId, noteId],
  );
}

/** What was inked for a student in a stretch of time, the first first. SQL by hand: days are those of the studio’s zone. */
export function findInked(
  store: Store,
  studioId: string,
  { studentId, from, to }: { readonly studentId: string; readonly from: string; readonly to: string },
): Promise<
  readonly {
    readonly entryId: string;
    readonly pieceId: string;
    readonly bpm: number;
    readonly outcome: string;
    readonly percent: number;
  }[]
> {
  return store.rows(
    `SELECT e.id AS "entryId", e.counts_for AS "pieceId", e.bpm, e.outcome, e.percent
       FROM pieces p
       JOIN entries e ON e.studio_id = p.studio_id AND e.counts_for = p.id AND e.posted_at >= $3 AND e.posted_at < $4
      WHERE p.studio_id = $1 AND p.student_id = $2 AND e.medium = 'ink' AND NOT e.struck
      ORDER BY e.posted_at, e.line`,
    [studioId, studentId, from, to],
  );
}

/** A point that was inspected. */
export interface HearingRow {
  readonly id: string;
  readonly version: number;
  readonly pieceId: string;
  readonly at: number;
  readonly kind: string;
  readonly isRight: boolean;
  readonly remark: string;
}

/** The points inspected with a student on a day. SQL by hand: a lesson reads it. */
export function findHearings(
  store: Store,
  studioId: string,
  { studentId, day }: { readonly studentId: string; readonly day: string },
): Promise<readonly HearingRow[]> {
  return store.rows<HearingRow>(
    `SELECT h.id, h.version, h.piece_id AS "pieceId", h.at, h.kind, h.is_right AS "isRight", h.remark
       FROM pieces p JOIN hearings h ON h.studio_id = p.studio_id AND h.piece_id = p.id
      WHERE p.studio_id = $1 AND p.student_id = $2 AND h.day = $3 AND NOT h.struck ORDER BY h.at, h.id`,
    [studioId, studentId, day],
  );
}

/**
 * Puts an inspected point down; a later word on the same point of the day takes the place of the earlier.
 * SQL by hand: a point is there once a day, whoever sends it twice.
 */
export async function keepHearing(
  store: Store,
  row: HearingRow & { readonly studioId: string; readonly day: string; readonly personId: string },
): Promise<HearingRow | undefined> {
  const rows = await store.rows<HearingRow>(
    `INSERT INTO hearings (id, studio_id, piece_id, day, at, kind, is_right, remark, person_id)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)
     ON CONFLICT (piece_id, day, at, kind) DO UPDATE
        SET is_right = EXCLUDED.is_right, remark = EXCLUDED.remark, person_id = EXCLUDED.person_id, struck = false,
            version = hearings.version + 1
     RETURNING id, version, piece_id AS "pieceId", at, kind, is_right AS "isRight", remark`,
    [row.id, row.studioId, row.pieceId, row.day, row.at, row.kind, row.isRight, row.remark, row.personId],
  );
  return rows[0];
}

/** Gives pieces that were only planned, on a day. */
export async function givePieces(
  store: Store,
  studioId: string,
  { studentId, ids, day }: { readonly studentId: string; readonly ids: readonly string[]; readonly day: string },
): Promise<void> {
  const where = { studioId, studentId, id: [...ids], assignedOn: null, struck: false };
  await store.pieces.update({ assignedOn: day, kept: null }, { where });
}
