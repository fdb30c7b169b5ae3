import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { openStage } from '../e2e/stage.ts';
import { ms, ratio, time, type Figure } from './measure.ts';

/** How long the ledger of one student takes over HTTP. The yardstick: the health request, one small query. */
export async function ledgerFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    await fillLedger(stage.databaseUrl);
    const page = await stage.enter('ines');
    const [cookie] = await page.context().cookies();
    const headers = { Cookie: `${cookie?.name ?? ''}=${cookie?.value ?? ''}` };
    const ask = (path: string) => async () => (await fetch(`${stage.url}/api${path}`, { headers })).text();
    const bytes = (await ask('/ledger')()).length;
    const ledger = await time(ask('/ledger'), 200);
    const health = await time(ask('/health'), 200);
    return [
      {
        what: `Ledger of 40 phrases × 30 dates (${Math.round(bytes / 1024)} KB), 95th percentile`,
        measured: ms(ledger.p95),
        target: 'under 200 ms',
        met: ledger.p95 < 200,
        yardstick: `health request, ${ms(health.p95)}`,
        ratio: ratio(ledger.p95, health.p95),
      },
    ];
  } finally {
    await stage.close();
  }
}

/** Gives the student of the demo studio 40 phrases with 30 entries each. */
async function fillLedger(databaseUrl: string): Promise<void> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ studio: string; section: string; student: string }>(
    `SELECT c.studio_id AS studio, c.id AS section, t.student_id AS student
       FROM sections c JOIN transcriptions t ON t.id = c.transcription_id
       JOIN people p ON p.id = t.student_id WHERE p.sign_in_name = 'ines' LIMIT 1`,
  );
  const [where] = rows;
  if (!where) throw new Error('the demo studio has no section for ines');
  for (let phrase = 3; phrase < 40; phrase += 1) {
    const phraseId = randomUUID();
    const pieceId = randomUUID();
    await client.query(
      `INSERT INTO phrases (id, studio_id, section_id, place, name, text) VALUES ($1, $2, $3, $4, $5, $6)`,
      [phraseId, where.studio, where.section, phrase, `Phrase ${phrase}`, '/8 5G 7Gb1r 5G 7D /4 7D~ - |'],
    );
    await client.query(
      `INSERT INTO pieces (id, studio_id, student_id, phrase_id, start_bpm, target_bpm, assigned_on)
       VALUES ($1, $2, $3, $4, 50, 120, current_date)`,
      [pieceId, where.studio, where.student, phraseId],
    );
    await client.query(
      `INSERT INTO entries (id, studio_id, piece_id, posted_by, bpm, outcome, medium, remark, posted_at)
       SELECT gen_random_uuid(), $1, $2, $3, 50 + n, 'clean', 'pencil', '', now() - make_interval(days => 30 - n)
         FROM generate_series(1, 30) n`,
      [where.studio, pieceId, where.student],
    );
  }
  await client.end();
}
