import pg from 'pg';
import type { Store } from '../apps/server/src/store/index.ts';
import { openStage, type Stage } from '../e2e/stage.ts';
import { freePort } from '../tools/cluster.ts';

/** A large studio. Sections of each song, pieces of each student, entries of each piece. */
export const STUDIO = { students: 300, teachers: 6, sections: 8, pieces: 40, entries: 84, lessonsEach: 134 } as const;

/** How large it is, in words. */
export const SIZE = `${STUDIO.students} students, ${STUDIO.students * STUDIO.lessonsEach} lessons, ${STUDIO.students * STUDIO.pieces * STUDIO.entries} entries`;

/** Who and what is asked for in it. */
export interface Ids {
  readonly studio: string;
  readonly mara: string;
  readonly student: string;
  readonly series: string;
  /** A piece of the student. */
  readonly piece: string;
}

/** A stage whose first server tells its metrics at a port; another one would find that taken. */
export async function openMeasured(): Promise<{ readonly stage: Stage; readonly metrics: number }> {
  const metrics = await freePort();
  process.env['METRICS_PORT'] = String(metrics);
  const stage = await openStage();
  delete process.env['METRICS_PORT'];
  return { stage, metrics };
}

/** The cookies of somebody who signed in in a browser. */
export async function cookieOf(stage: Stage, who: string): Promise<string> {
  const page = await stage.enter(who);
  const cookies = await page.context().cookies();
  await page.context().close();
  return cookies.map(({ name, value }) => `${name}=${value}`).join('; ');
}

/** Asks for an address as whoever has a cookie, or sends there what `body` makes; what is answered. @throws Error where that is refused */
export async function send(
  url: string,
  { cookie, body }: { readonly cookie: string; readonly body?: (() => object) | undefined },
): Promise<string> {
  const headers = { Cookie: cookie, 'Content-Type': 'application/json' };
  const answer = await fetch(url, body ? { method: 'POST', headers, body: JSON.stringify(body()) } : { headers });
  if (!answer.ok) throw new Error(`${url} answered ${answer.status}: ${await answer.text()}`);
  return answer.text();
}

/** A transaction that writes nothing that is read, after which everything is looked at anew. */
export const WRITE = 'SELECT pg_current_xact_id()::text';

/** Opens the desk until nothing is left to be computed anew; milliseconds. */
export async function computeEverything(openDesk: () => Promise<string>, store: Store): Promise<number> {
  const from = performance.now();
  for (;;) {
    await openDesk();
    const [left] = await store.rows<{ count: number }>(
      'SELECT count(*)::int AS count FROM pieces WHERE kept IS NULL AND assigned_on IS NOT NULL AND NOT struck',
      [],
    );
    if (left?.count === 0) break;
  }
  const took = performance.now() - from;
  await store.rows('ANALYZE', []);
  return took;
}

/** How large a studio is; numbers as in `STUDIO`. */
export type StudioSize = Readonly<Record<keyof typeof STUDIO, number>>;

/** Fills the demo studio up to a size, all of it made up. */
export async function fillStudio(databaseUrl: string, size: StudioSize = STUDIO): Promise<Ids> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ studio: string; mara: string }>(
    `SELECT studio_id AS studio, id AS mara FROM people WHERE sign_in_name = 'mara'`,
  );
  const [where] = rows;
  if (!where) throw new Error('the demo studio has no mara');
  const { studio, mara } = where;
  for (const [sql, ...values] of filling(size))
    await client.query(sql, [studio, ...values.map((value) => (value === 'mara' ? mara : value))]);
  const students = await client.query<{ id: string }>(`SELECT id FROM people WHERE name = 'Student 1'`);
  await client.query('ANALYZE');
  const series = await client.query<{ id: string }>(`SELECT id FROM series WHERE title = 'Weekly' LIMIT 1`);
  const student = students.rows[0]?.id ?? '';
  const pieces = await client.query<{ id: string }>(
    'SELECT id FROM pieces WHERE student_id = $1 ORDER BY position LIMIT 1',
    [student],
  );
  await client.end();
  return { studio, mara, student, series: series.rows[0]?.id ?? '', piece: pieces.rows[0]?.id ?? '' };
}

/** Gives a student of the filled studio a line a day for ten years at each of the first three pieces. */
export async function addTenYears(databaseUrl: string): Promise<Pick<Ids, 'student' | 'piece'>> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ student: string; piece: string }>(
    `WITH kept AS (
       SELECT p.id, p.studio_id, p.student_id, p.position FROM pieces p JOIN people s ON s.id = p.student_id
        WHERE s.name = 'Student 7' ORDER BY p.position LIMIT 3
     ), lines AS (
       INSERT INTO entries (id, studio_id, piece_id, counts_for, posted_by, bpm, outcome, medium, remark, posted_at)
       SELECT gen_random_uuid(), studio_id, id, id, student_id, LEAST(120, 50 + n / 40), CASE WHEN n % 7 = 0 THEN 'not-yet' ELSE 'clean' END,
              'pencil', '', now() - make_interval(days => 3650 - n)
         FROM kept, generate_series(1, 3650) n
     )
     SELECT student_id AS student, id AS piece FROM kept ORDER BY position LIMIT 1`,
  );
  await client.query('ANALYZE entries');
  await client.end();
  const [old] = rows;
  if (!old) throw new Error('the studio has no seventh student');
  return old;
}

const ruleOf = ({ lessonsEach }: StudioSize) =>
  JSON.stringify({
    ...{ firstDay: '2025-01-06', time: '09:00', minutes: 45, everyWeeks: 1, weekdays: [] },
    ...{ count: lessonsEach, until: null },
  });

/** Statements that fill the studio ($1), in order. */
const filling = (size: StudioSize): readonly (readonly [sql: string, ...values: readonly (string | number)[]])[] => [
  [
    `INSERT INTO people (studio_id, role, name) SELECT $1, 'teacher', 'Teacher ' || n FROM generate_series(2, $2::int) n`,
    size.teachers,
  ],
  [
    `INSERT INTO people (studio_id, role, name, teacher_id)
     SELECT $1, 'student', 'Student ' || n,
            CASE WHEN n % $3 = 1 THEN $4::uuid ELSE (SELECT id FROM people WHERE name = 'Teacher ' || 2 + (n % ($3 - 1))) END
       FROM generate_series(1, $2::int) n`,
    size.students,
    size.teachers,
    'mara',
  ],
  [
    `INSERT INTO requests (studio_id, student_id, title, whose, wanted, not_wanted, rendition, guitar_meant, guitar, remarks, state, asked_at)
     SELECT $1, id, 'Song of ' || name, '', '["solo"]', '[]', 'recorded', 'the only guitar', '', '', 'in practice', now()
       FROM people WHERE studio_id = $1 AND name LIKE 'Student %'`,
  ],
  [
    `INSERT INTO transcriptions (studio_id, student_id, request_id, title, whose, tuning, capo, key, tempo, meter, frets, offset_cents)
     SELECT $1, student_id, id, title, '', 'standard', 0, '', 100, '4/4', 22, 0 FROM requests WHERE title LIKE 'Song of %'`,
  ],
  [
    `INSERT INTO sections (studio_id, transcription_id, label, role, start_seconds, bars, times, open, passes)
     SELECT $1, id, n || 'A', 'solo', n * 20, 10, 1, false, '[]'
       FROM transcriptions, generate_series(1, $2::int) n WHERE title LIKE 'Song of %'`,
    size.sections,
  ],
  [
    `INSERT INTO phrases (studio_id, section_id, position, name, text)
     SELECT $1, c.id, n, 'Phrase ' || n, '/8 5G 7Gb1r 5G 7D /4 7D~ - |'
       FROM sections c JOIN transcriptions t ON t.id = c.transcription_id AND t.title LIKE 'Song of %', generate_series(1, $2::int) n
      WHERE c.label = 1 + n % $3::int || 'A'`,
    size.pieces,
    size.sections,
  ],
  [
    `INSERT INTO pieces (studio_id, student_id, song_id, phrase_id, start_bpm, target_bpm, assigned_on, parts, cut, position, difficulty)
     SELECT $1, t.student_id, t.id, f.id, 50, 120, current_date - 400,
            jsonb_build_array(jsonb_build_object('phraseId', f.id, 'from', 0, 'to', NULL)), 'phrase ' || f.id || ':0-', f.position,
            (f.position * 7) % 100
       FROM phrases f JOIN sections c ON c.id = f.section_id JOIN transcriptions t ON t.id = c.transcription_id
      WHERE t.title LIKE 'Song of %'`,
  ],
  [
    // Up to the target and then kept there; every tenth line is heard by the teacher, every seventh missed, one in fifty has a remark.
    `INSERT INTO entries (id, studio_id, piece_id, counts_for, posted_by, bpm, outcome, medium, remark, posted_at)
     SELECT gen_random_uuid(), $1, p.id, p.id, CASE WHEN n % 10 = 0 THEN $3::uuid ELSE p.student_id END, LEAST(120, 50 + n * 120 / $2::int),
            CASE WHEN (n + p.position) % 7 = 0 THEN 'not-yet' ELSE 'clean' END, CASE WHEN n % 10 = 0 THEN 'ink' ELSE 'pencil' END,
            CASE WHEN (n + p.position) % 50 = 0 THEN 'the left hand got tired' ELSE '' END,
            now() - make_interval(days => ($2 - n) * 4, mins => p.position)
       FROM pieces p JOIN transcriptions t ON t.id = p.song_id AND t.title LIKE 'Song of %', generate_series(1, $2::int) n`,
    size.entries,
    'mara',
  ],
  [
    `INSERT INTO series (studio_id, student_id, teacher_id, title, rule, changes, goal)
     SELECT $1, p.id, coalesce(p.teacher_id, $3::uuid), 'Weekly',
            -- Each at an hour of their own of their teacher's week, five days of ten hours.
            $2::jsonb || jsonb_build_object('firstDay', date '2025-01-06' + (p.k % 5)::int, 'time', lpad((4 + p.k / 5)::text, 2, '0') || ':00'),
            '{"skips": [], "moves": [], "extras": []}', ''
       FROM (SELECT id, teacher_id, row_number() OVER (PARTITION BY teacher_id ORDER BY id) - 1 AS k
               FROM people WHERE name LIKE 'Student %') p`,
    ruleOf(size),
    'mara',
  ],
  [
    // A hundred weeks gone by and the others to come, ten lessons a day.
    `INSERT INTO lessons (studio_id, series_id, starts_at, ends_at, why)
     SELECT $1, e.id, at, at + interval '45 minutes', 'rule'
       FROM (SELECT id, row_number() OVER (ORDER BY id) AS n FROM series WHERE title = 'Weekly') e, generate_series(0, $2::int - 1) w,
            LATERAL (SELECT date_trunc('week', now()) + make_interval(weeks => w - 100, days => (e.n % 6)::int, mins => (480 + 45 * (e.n % 12))::int) AS at) m`,
    size.lessonsEach,
  ],
];
