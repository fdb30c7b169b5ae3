import type { Store } from './database.ts';

/** Something found. */
export interface FoundRow {
  readonly kind: string;
  readonly id: string;
  readonly text: string;
  readonly where: string;
  readonly studentId: string | null;
  readonly songId: string | null;
}

/**
 * Searches everything of a studio for words, at most so many of each kind; those of students who left come last.
 * SQL by hand: nine kinds of things in one query.
 */
export function searchAll(store: Store, studioId: string, words: string, max: number): Promise<readonly FoundRow[]> {
  const like = `%${words.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
  return store.rows<FoundRow>(
    `(SELECT 'student' AS kind, p.id, p.name AS text, CASE WHEN p.archived_at IS NULL THEN p.role ELSE p.role || ', put away' END AS "where",
             CASE WHEN p.role = 'student' THEN p.id END AS "studentId", NULL::uuid AS "songId"
        FROM people p WHERE p.studio_id = $1 AND p.name ILIKE $2 ORDER BY p.archived_at IS NOT NULL, p.name LIMIT $3)
     UNION ALL
     (SELECT 'request', r.id, r.title, s.name || ', ' || r.state, r.student_id, NULL
        FROM requests r JOIN people s ON s.studio_id = r.studio_id AND s.id = r.student_id
       WHERE r.studio_id = $1 AND (r.title ILIKE $2 OR r.whose ILIKE $2 OR r.scope ILIKE $2 OR r.remarks ILIKE $2) ORDER BY r.line DESC LIMIT $3)
     UNION ALL
     (SELECT 'song', t.id, t.title, s.name || coalesce(', ' || nullif(t.whose, ''), ''), t.student_id, t.id
        FROM transcriptions t JOIN people s ON s.studio_id = t.studio_id AND s.id = t.student_id
       WHERE t.studio_id = $1 AND (t.title ILIKE $2 OR t.whose ILIKE $2
              OR EXISTS (SELECT 1 FROM jsonb_array_elements(t.rig) AS note WHERE note ->> 'note' ILIKE $2)) ORDER BY t.title, t.id LIMIT $3)
     UNION ALL
     (SELECT 'section', c.id, c.label || ' ' || c.role, t.title, t.student_id, t.id
        FROM sections c JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       WHERE c.studio_id = $1 AND NOT c.struck AND (c.label ILIKE $2 OR c.role ILIKE $2) ORDER BY t.title, c.start_seconds LIMIT $3)
     UNION ALL
     (SELECT 'phrase', f.id, f.name, c.label || ', ' || t.title, t.student_id, t.id
        FROM phrases f
        JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
        JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       WHERE f.studio_id = $1 AND NOT f.struck AND NOT c.struck AND (f.name ILIKE $2 OR f.text ILIKE $2)
       ORDER BY f.name NOT ILIKE $2, f.name, f.id LIMIT $3)
     UNION ALL
     (SELECT 'series', e.id, e.title, s.name || coalesce(', ' || nullif(e.goal, ''), ''), e.student_id, NULL
        FROM series e JOIN people s ON s.studio_id = e.studio_id AND s.id = e.student_id
       WHERE e.studio_id = $1 AND NOT e.struck AND (e.title ILIKE $2 OR e.goal ILIKE $2) ORDER BY e.title, e.id LIMIT $3)
     UNION ALL
     (SELECT 'note', i.id, i.text, f.name || ', ' || t.title, t.student_id, t.id
        FROM pins i
        JOIN phrases f ON f.studio_id = i.studio_id AND f.id = i.phrase_id
        JOIN sections c ON c.studio_id = f.studio_id AND c.id = f.section_id
        JOIN transcriptions t ON t.studio_id = c.studio_id AND t.id = c.transcription_id
       WHERE i.studio_id = $1 AND NOT i.struck AND i.text ILIKE $2 ORDER BY i.pinned_at DESC LIMIT $3)
     UNION ALL
     (SELECT 'remark', e.id, e.remark, s.name || ', ' || t.title, p.student_id, t.id
        FROM entries e
        JOIN pieces p ON p.studio_id = e.studio_id AND p.id = e.piece_id
        JOIN people s ON s.studio_id = p.studio_id AND s.id = p.student_id
        JOIN transcriptions t ON t.studio_id = p.studio_id AND t.id = p.song_id
       WHERE e.studio_id = $1 AND e.remark <> '' AND NOT e.struck AND e.remark ILIKE $2 ORDER BY e.posted_at DESC LIMIT $3)
     UNION ALL
     (SELECT 'lesson', n.id, CASE WHEN n.home ILIKE $2 THEN n.home ELSE n.words END, s.name || ', ' || n.day, n.student_id, NULL
        FROM lesson_notes n JOIN people s ON s.studio_id = n.studio_id AND s.id = n.student_id
       WHERE n.studio_id = $1 AND (n.home ILIKE $2 OR n.words ILIKE $2) ORDER BY n.day DESC LIMIT $3)`,
    [studioId, like, max],
  );
}
