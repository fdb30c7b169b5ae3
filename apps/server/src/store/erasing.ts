import type { Store } from './database.ts';

/** Rows of somebody, by what they are. $1 is the studio, $2 the person. */
interface Part {
  readonly table: string;
  /** Which rows of it, aliased t. */
  readonly where: string;
  /** Whether it is shown before it goes, and given to whoever takes everything of theirs. */
  readonly isShown: boolean;
  /** Columns that are nobody’s to take: what opens a door. */
  readonly without?: readonly string[];
}

const SONGS = 'SELECT o.id FROM transcriptions o WHERE o.studio_id = $1 AND o.student_id = $2';
const SECTIONS = `SELECT c.id FROM sections c WHERE c.studio_id = $1 AND c.transcription_id IN (${SONGS})`;
const PHRASES = `SELECT f.id FROM phrases f WHERE f.studio_id = $1 AND f.section_id IN (${SECTIONS})`;
const PIECES = `SELECT i.id FROM pieces i WHERE i.studio_id = $1 AND (i.student_id = $2 OR i.song_id IN (${SONGS}))`;
const REQUESTS = 'SELECT r.id FROM requests r WHERE r.studio_id = $1 AND r.student_id = $2';
const SERIES = 'SELECT e.id FROM series e WHERE e.studio_id = $1 AND e.student_id = $2';
const NOTES = 'SELECT n.id FROM lesson_notes n WHERE n.studio_id = $1 AND n.student_id = $2';
const NAME = 'SELECT w.name FROM people w WHERE w.studio_id = $1 AND w.id = $2';
/** Words that are the name of the person, wherever a message without another mark has them. */
const NAMED = `regexp_replace((${NAME}), '([^[:alnum:][:space:]])', '\\\\\\1', 'g')`;

/** All that is of one person, in an order in which it can be taken away. */
const PARTS: readonly Part[] = [
  { table: 'hearings', where: `t.piece_id IN (${PIECES})`, isShown: true },
  {
    table: 'entries',
    where: `t.piece_id IN (${PIECES}) OR t.counts_for IN (${PIECES}) OR t.posted_by = $2`,
    isShown: true,
  },
  { table: 'pins', where: `t.phrase_id IN (${PHRASES}) OR t.person_id = $2`, isShown: true },
  {
    table: 'sounds',
    where: `t.piece_id IN (${PIECES}) OR t.song_id IN (${SONGS}) OR t.person_id = $2 AND t.kind = 'take'`,
    isShown: true,
  },
  { table: 'pieces', where: `t.id IN (${PIECES})`, isShown: true },
  { table: 'plans', where: `t.id IN (${SONGS})`, isShown: true },
  { table: 'phrase_facts', where: `t.id IN (${PHRASES})`, isShown: false },
  { table: 'phrase_revisions', where: `t.phrase_id IN (${PHRASES})`, isShown: true },
  {
    table: 'corrections',
    where: `t.person_id = $2 OR t.row_id = $2 OR t.row_id IN (${SONGS} UNION ALL ${SECTIONS} UNION ALL ${PHRASES} UNION ALL ${REQUESTS})`,
    isShown: true,
  },
  { table: 'phrases', where: `t.id IN (${PHRASES})`, isShown: true },
  { table: 'sections', where: `t.id IN (${SECTIONS})`, isShown: true },
  { table: 'transcriptions', where: `t.id IN (${SONGS})`, isShown: true },
  { table: 'work_spans', where: `t.request_id IN (${REQUESTS})`, isShown: true },
  { table: 'request_events', where: `t.request_id IN (${REQUESTS}) OR t.person_id = $2`, isShown: true },
  { table: 'requests', where: `t.id IN (${REQUESTS})`, isShown: true },
  { table: 'lessons', where: `t.series_id IN (${SERIES})`, isShown: true },
  { table: 'series', where: `t.id IN (${SERIES})`, isShown: true },
  { table: 'lesson_note_revisions', where: `t.note_id IN (${NOTES})`, isShown: true },
  { table: 'lesson_notes', where: `t.id IN (${NOTES})`, isShown: true },
  { table: 'guardians', where: 't.student_id = $2 OR t.guardian_id = $2', isShown: true },
  { table: 'invitations', where: 't.person_id = $2 OR t.made_by = $2', isShown: true, without: ['token_hash'] },
  { table: 'calendar_feeds', where: 't.person_id = $2', isShown: true, without: ['token_hash'] },
  {
    table: 'outbox',
    // What was written before anybody noted whom it is about may name them.
    where: `t.person_id = $2 OR t.about_id = $2 OR t.about_id IS NULL AND (t.subject || ' ' || t.body) ~ ('\\y' || ${NAMED} || '\\y')`,
    isShown: true,
  },
  { table: 'seen_lists', where: 't.person_id = $2', isShown: false },
  { table: 'devices', where: 't.person_id = $2', isShown: false },
  { table: 'people', where: 't.id = $2', isShown: true, without: ['password_hash'] },
];

/** Whose rows. */
interface OfPerson {
  readonly studioId: string;
  readonly personId: string;
}

/** How many rows of a table are somebody’s. */
export interface PartCount {
  readonly table: string;
  readonly rows: number;
}

/** Rows of a table that are somebody’s, as they may take them. */
export interface PersonPart {
  readonly table: string;
  readonly rows: readonly Readonly<Record<string, unknown>>[];
}

/** How much of what is somebody’s. SQL by hand: counted where the rows are, in one query. */
export async function countParts(store: Store, { studioId, personId }: OfPerson): Promise<readonly PartCount[]> {
  const parts = PARTS.filter(({ isShown }) => isShown).map(
    ({ table, where }) =>
      `SELECT '${table}' AS table, count(*)::int AS rows FROM ${table} t WHERE t.studio_id = $1 AND (${where})`,
  );
  const counts = await store.rows<PartCount>(parts.join(' UNION ALL '), [studioId, personId]);
  return counts.filter(({ rows }) => rows > 0);
}

/** All rows that are somebody’s, table by table; what opens a door is left out. SQL by hand: rows of every table as they are. */
export async function* readParts(store: Store, { studioId, personId }: OfPerson): AsyncGenerator<PersonPart> {
  for (const { table, where, isShown, without = [] } of PARTS) {
    if (!isShown) continue;
    const rows = await store.rows<{ row: Readonly<Record<string, unknown>> }>(
      `SELECT to_jsonb(t) - $3::text[] AS row FROM ${table} t WHERE t.studio_id = $1 AND (${where}) ORDER BY t.id`,
      [studioId, personId, without],
    );
    yield { table, rows: rows.map(({ row }) => row) };
  }
}

/**
 * Takes everything of somebody away, within the transaction of whoever does it: what others copied from them stands on its own from
 * then on, hours of the studio stay without a name, and their id is kept so that no backup brings them back.
 * SQL by hand: rows of every table go at once.
 */
export async function eraseParts(store: Store, { studioId, personId }: OfPerson, now: Date): Promise<void> {
  const of = [studioId, personId];
  await store.rows(
    `INSERT INTO erased_hours (studio_id, person_id, kind, started_at, ended_at)
     SELECT $1::uuid, w.person_id, 'work', w.started_at, coalesce(w.ended_at, w.seen_at) FROM work_spans w
      WHERE w.studio_id = $1 AND w.request_id IN (${REQUESTS}) AND coalesce(w.ended_at, w.seen_at) > w.started_at
     UNION ALL
     SELECT $1::uuid, e.teacher_id, 'lesson', l.starts_at, l.ends_at FROM lessons l
       JOIN series e ON e.studio_id = l.studio_id AND e.id = l.series_id
      WHERE l.studio_id = $1 AND e.student_id = $2 AND NOT e.struck AND l.ends_at <= $3 RETURNING id`,
    [...of, now.toISOString()],
  );
  await store.rows(
    `UPDATE phrases t SET refers_to = NULL, version = t.version + 1
      WHERE t.studio_id = $1 AND t.refers_to IN (${PHRASES}) AND t.id NOT IN (${PHRASES}) RETURNING t.id`,
    of,
  );
  await store.rows(
    `UPDATE requests t SET follows_id = NULL WHERE t.studio_id = $1 AND t.follows_id IN (${REQUESTS}) AND t.student_id <> $2 RETURNING t.id`,
    of,
  );
  for (const { table, where } of PARTS)
    await store.rows(`DELETE FROM ${table} t WHERE t.studio_id = $1 AND (${where}) RETURNING 1`, of);
  await store.rows(`DELETE FROM sessions WHERE sess ->> 'personId' = $1 RETURNING 1`, [personId]);
  await store.rows('INSERT INTO erased (id, studio_id, at) VALUES ($2, $1, $3) ON CONFLICT DO NOTHING RETURNING id', [
    ...of,
    now.toISOString(),
  ]);
}

/** The ids of those who were erased. */
export async function findErased(store: Store): Promise<readonly string[]> {
  return (await store.rows<{ id: string }>('SELECT id FROM erased ORDER BY id', [])).map(({ id }) => id);
}

/** The guardians of a student who have no other child in the studio. SQL by hand: guardians without another row. */
export function findOnlyGuardians(
  store: Store,
  { studioId, personId }: OfPerson,
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return store.rows(
    `SELECT p.id, p.name FROM guardians g JOIN people p ON p.studio_id = g.studio_id AND p.id = g.guardian_id
      WHERE g.studio_id = $1 AND g.student_id = $2
        AND NOT EXISTS (SELECT 1 FROM guardians o WHERE o.studio_id = $1 AND o.guardian_id = g.guardian_id AND o.student_id <> $2)
      ORDER BY p.name, p.id`,
    [studioId, personId],
  );
}

/** Whoever waits to be erased, those of all studios where none is named. SQL by hand: each by the day of its studio. */
export function findErasing(
  store: Store,
  studioId: string | null,
  now: Date,
): Promise<
  readonly {
    readonly id: string;
    readonly studioId: string;
    readonly name: string;
    readonly on: string;
    readonly isDue: boolean;
  }[]
> {
  return store.rows(
    `SELECT p.id, p.studio_id AS "studioId", p.name, p.erase_on::text AS on,
            p.erase_on <= ($2::timestamptz AT TIME ZONE s.zone)::date AS "isDue"
       FROM people p JOIN studios s ON s.id = p.studio_id
      WHERE p.erase_on IS NOT NULL AND ($1::uuid IS NULL OR p.studio_id = $1) ORDER BY p.erase_on, p.name, p.id`,
    [studioId, now.toISOString()],
  );
}
