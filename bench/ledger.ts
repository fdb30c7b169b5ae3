import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { forecast, type DatedResult } from '../packages/core/src/progress/index.ts';
import { openStage } from '../e2e/stage.ts';
import { ms, ratio, time, timingOf, type Figure } from './measure.ts';

/** Five years of daily lines: phrases, and lines of each. */
const LEDGER = { phrases: 40, lines: 250, years: 5 } as const;

/**
 * How long the ledger of one student with 10,000 lines takes over HTTP and on the page, and one forecast. The yardsticks: the
 * health request, one small query; the page of requests, with almost nothing on it.
 */
export async function ledgerFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    await fillLedger(stage.databaseUrl);
    const page = await stage.enter('ines');
    const [cookie] = await page.context().cookies();
    const headers = { Cookie: `${cookie?.name ?? ''}=${cookie?.value ?? ''}` };
    const ask = (path: string) => async () => (await fetch(`${stage.url}/api${path}`, { headers })).text();
    const bytes = (await ask('/ledger')()).length;
    const ledger = await time(ask('/ledger'), 100);
    const health = await time(ask('/health'), 100);
    const size = `${LEDGER.phrases * LEDGER.lines} lines in ${LEDGER.years} years`;

    /** From the answer of the server to the picture: opening the page, less the request itself. */
    const paint = async (tab: string, path: string, ready: string) => {
      const times: number[] = [];
      for (let run = 0; run < 12; run += 1) {
        await page.getByRole('link', { name: 'Practice', exact: true }).click();
        await page.getByRole('heading', { name: 'Practice', exact: true }).waitFor();
        await page.waitForLoadState('networkidle');
        const answered = page.waitForResponse((response) => new URL(response.url()).pathname === path);
        await page.getByRole('link', { name: tab, exact: true }).click();
        await (await answered).finished();
        const from = performance.now();
        await page.locator(ready).first().waitFor();
        await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
        times.push(performance.now() - from);
      }
      return timingOf(times.slice(2));
    };
    const painted = await paint('Ledger', '/api/ledger', '[role="grid"] tbody:last-child tr:last-child .next');
    const requests = await paint('Requests', '/api/requests', 'main h1');

    const history = longHistory();
    const target = 120;
    const foretold = await time(() => forecast(history, { target, today: '2026-03-14' }), 200);
    const summed = await time(() => history.reduce((sum, { bpm }) => sum + bpm, 0), 200);
    return [
      {
        what: `Ledger of ${size} (${Math.round(bytes / 1024)} KB answered), 95th percentile`,
        measured: ms(ledger.p95),
        target: 'under 100 ms',
        met: ledger.p95 < 100,
        yardstick: `health request, ${ms(health.p95)}`,
        ratio: ratio(ledger.p95, health.p95),
      },
      {
        what: `The same, from the answer to the picture, ${LEDGER.phrases} rows × 30 days, 95th percentile`,
        measured: ms(painted.p95),
        target: 'under 500 ms',
        met: painted.p95 < 500,
        yardstick: `the page of requests, ${ms(requests.p95)}`,
        ratio: ratio(painted.p95, requests.p95),
      },
      {
        what: `Forecast of a piece with ${history.length} lines, 95th percentile`,
        measured: ms(foretold.p95),
        target: 'under 20 ms',
        met: foretold.p95 < 20,
        yardstick: `adding up its tempos, ${ms(summed.p95)}`,
        ratio: ratio(foretold.p95, summed.p95),
      },
    ];
  } finally {
    await stage.close();
  }
}

function longHistory(): readonly DatedResult[] {
  return Array.from({ length: LEDGER.lines }, (_, index) => ({
    day: new Date(Date.parse('2025-06-01T12:00:00Z') + index * 86_400_000).toISOString().slice(0, 10),
    bpm: 50 + Math.floor(index / 4),
    outcome: index % 7 === 0 ? 'not-yet' : 'clean',
    medium: index % 10 === 0 ? 'ink' : 'pencil',
  }));
}

/** Three phrases of the demo have their own few lines; the others make up for them. */
const LINES = Math.ceil((LEDGER.phrases * LEDGER.lines) / (LEDGER.phrases - 3));

/** Gives the student of the demo studio 40 phrases with 250 lines each, over five years. */
async function fillLedger(databaseUrl: string): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{
    studio: string;
    song: string;
    section: string;
    student: string;
    teacher: string;
  }>(
    `SELECT c.studio_id AS studio, t.id AS song, c.id AS section, t.student_id AS student,
            (SELECT id FROM people WHERE sign_in_name = 'mara') AS teacher
       FROM sections c JOIN transcriptions t ON t.id = c.transcription_id
       JOIN people p ON p.id = t.student_id WHERE p.sign_in_name = 'ines' LIMIT 1`,
  );
  const [where] = rows;
  if (!where) throw new Error('the demo studio has no section for ines');
  for (let phrase = 3; phrase < LEDGER.phrases; phrase += 1) {
    const phraseId = randomUUID();
    const pieceId = randomUUID();
    await client.query(
      `INSERT INTO phrases (id, studio_id, section_id, position, name, text) VALUES ($1, $2, $3, $4, $5, $6)`,
      [phraseId, where.studio, where.section, phrase, `Phrase ${phrase}`, '/8 5G 7Gb1r 5G 7D /4 7D~ - |'],
    );
    await client.query(
      `INSERT INTO pieces (id, studio_id, student_id, song_id, phrase_id, start_bpm, target_bpm, assigned_on, parts, cut)
       VALUES ($1, $2, $3, $4, $5, 50, 120, current_date, $6, $7)`,
      [
        pieceId,
        where.studio,
        where.student,
        where.song,
        phraseId,
        JSON.stringify([{ phraseId, from: 0, to: null }]),
        `phrase ${phraseId}:0-`,
      ],
    );
    // Up to the target in the first half, then kept there; every tenth line is heard by the teacher, every seventh missed.
    await client.query(
      `INSERT INTO entries (id, studio_id, piece_id, counts_for, posted_by, bpm, outcome, medium, remark, posted_at)
       SELECT gen_random_uuid(), $1, $2, $2, CASE WHEN n % 10 = 0 THEN $4::uuid ELSE $3::uuid END, LEAST(120, 50 + n * 140 / $5),
              CASE WHEN n % 7 = 0 THEN 'not-yet' ELSE 'clean' END, CASE WHEN n % 10 = 0 THEN 'ink' ELSE 'pencil' END, '',
              now() - make_interval(days => (($5 - n) * 365 * $6 / $5)::int)
         FROM generate_series(1, $5) n`,
      [where.studio, pieceId, where.student, where.teacher, LINES, LEDGER.years],
    );
  }
  await client.query('ANALYZE');
  await client.end();
}
