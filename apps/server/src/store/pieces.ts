import type { SetUp } from '@jam-ledger/contract';
import type { Store } from './database.ts';

/** A piece with the names of everything it hangs on. */
export interface PieceRow {
  readonly id: string;
  readonly version: number;
  readonly struck: boolean;
  readonly studentId: string;
  readonly studentName: string;
  readonly startBpm: number;
  readonly targetBpm: number;
  readonly assignedOn: string;
  readonly phraseId: string;
  readonly phraseName: string;
  readonly phraseText: string;
  readonly sectionId: string;
  readonly sectionLabel: string;
  readonly sectionRole: string;
  readonly sectionSeconds: number;
  readonly changes: SetUp['changes'];
  readonly songId: string;
  readonly title: string;
  readonly whose: string;
  readonly tuning: string;
  readonly capo: number;
  readonly key: string;
  readonly tempo: number;
  readonly meter: string;
  readonly feel: string;
  readonly pitchWay: string;
  readonly frets: number;
  readonly scaleLengthMm: number;
  readonly offsetCents: number;
  /** The day the song is wanted by. */
  readonly wantedBy: string | null;
  readonly leftHanded: boolean;
  readonly spanFrets: number | null;
}

/** An entry with the name of who posted it. */
export interface EntryRow {
  readonly id: string;
  readonly version: number;
  readonly pieceId: string;
  readonly bpm: number;
  readonly outcome: string;
  readonly medium: string;
  readonly remark: string;
  readonly postedAt: Date;
  readonly postedById: string;
  readonly postedByName: string;
  readonly struck: boolean;
}

/** Pieces of a studio in the order of songs, sections and phrases: of one student, or the one with an id. */
export function findPieces(
  store: Store,
  studioId: string,
  only: { readonly studentId?: string; readonly id?: string },
): Promise<readonly PieceRow[]> {
  return store.rows<PieceRow>(
    `SELECT p.id, p.version, p.struck, p.student_id AS "studentId", s.name AS "studentName",
            p.start_bpm AS "startBpm", p.target_bpm AS "targetBpm", p.assigned_on::text AS "assignedOn",
            f.id AS "phraseId", f.name AS "phraseName", f.text AS "phraseText",
            c.id AS "sectionId", c.label AS "sectionLabel", c.role AS "sectionRole", c.start_seconds AS "sectionSeconds", t.changes,
            t.id AS "songId", t.title, t.whose, t.tuning, t.capo, t.key, t.tempo, t.meter, t.feel,
            t.pitch_way AS "pitchWay", t.frets,
            t.scale_length_mm AS "scaleLengthMm", t.offset_cents AS "offsetCents", s.left_handed AS "leftHanded",
            s.span_frets AS "spanFrets", r.wanted_by::text AS "wantedBy"
       FROM pieces p
       JOIN people s ON s.studio_id = p.studio_id AND s.id = p.student_id
       JOIN phrases f ON f.studio_id = p.studio_id AND f.id = p.phrase_id
       JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
       JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       JOIN requests r ON r.studio_id = t.studio_id AND r.id = t.request_id
      WHERE p.studio_id = $1 AND ($2::uuid IS NULL OR p.student_id = $2) AND ($3::uuid IS NULL OR p.id = $3)
        AND ($3::uuid IS NOT NULL OR (NOT p.struck AND NOT f.struck AND NOT c.struck))
      ORDER BY t.title, t.id, c.start_seconds, c.label, f.place, p.id`,
    [studioId, only.studentId ?? null, only.id ?? null],
  );
}

/** The entries of some pieces, oldest first. */
export function findEntries(store: Store, studioId: string, pieceIds: readonly string[]): Promise<readonly EntryRow[]> {
  return store.rows<EntryRow>(
    `SELECT e.id, e.version, e.piece_id AS "pieceId", e.bpm, e.outcome, e.medium, e.remark,
            e.posted_at AS "postedAt", e.posted_by AS "postedById", w.name AS "postedByName", e.struck
       FROM entries e
       JOIN people w ON w.studio_id = e.studio_id AND w.id = e.posted_by
      WHERE e.studio_id = $1 AND e.piece_id = ANY($2::uuid[])
      ORDER BY e.posted_at, e.line`,
    [studioId, pieceIds],
  );
}
