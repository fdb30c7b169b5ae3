import type { Store } from './database.ts';

/** A request with its student's name and the transcription begun for it. */
export interface RequestRow {
  readonly id: string;
  readonly version: number;
  readonly studentId: string;
  readonly studentName: string;
  readonly title: string;
  readonly whose: string;
  readonly partsWanted: string;
  readonly partsNotWanted: string;
  readonly wantedBy: string | null;
  readonly remarks: string;
  readonly state: string;
  readonly askedAt: Date;
  readonly transcriptionId: string | null;
}

/** Requests of a studio, open ones first, by the day wanted; of one student, or the one with an id. */
export function findRequests(
  store: Store,
  studioId: string,
  only: { readonly studentId?: string; readonly id?: string },
): Promise<readonly RequestRow[]> {
  return store.rows<RequestRow>(
    `SELECT r.id, r.version, r.student_id AS "studentId", s.name AS "studentName", r.title, r.whose,
            r.parts_wanted AS "partsWanted", r.parts_not_wanted AS "partsNotWanted",
            r.wanted_by::text AS "wantedBy", r.remarks, r.state, r.asked_at AS "askedAt",
            t.id AS "transcriptionId"
       FROM requests r
       JOIN people s ON s.studio_id = r.studio_id AND s.id = r.student_id
       LEFT JOIN transcriptions t ON t.studio_id = r.studio_id AND t.request_id = r.id
      WHERE r.studio_id = $1 AND ($2::uuid IS NULL OR r.student_id = $2) AND ($3::uuid IS NULL OR r.id = $3)
      ORDER BY (r.state = 'asked') DESC, r.wanted_by NULLS LAST, r.asked_at, r.id`,
    [studioId, only.studentId ?? null, only.id ?? null],
  );
}
