import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { openStage } from '../e2e/stage.ts';
import { openStore } from '../apps/server/src/store/index.ts';
import { gatherMissingFacts } from '../apps/server/src/studio/index.ts';
import { CORRECT_PHRASES } from '../packages/core/test/phrases.ts';
import { ms, ratio, time, type Figure } from './measure.ts';

/** Phrases in the studio. */
const PHRASES = 5000;

/** How long searches over 5,000 phrases take over HTTP. The yardstick: the health request, one small query. */
export async function lickFigures(): Promise<readonly Figure[]> {
  const stage = await openStage();
  try {
    const like = await fillPhrases(stage.databaseUrl);
    const page = await stage.enter('mara');
    const [cookie] = await page.context().cookies();
    const headers = { Cookie: `${cookie?.name ?? ''}=${cookie?.value ?? ''}` };
    const ask = (path: string) => async () => {
      const answer = await fetch(`${stage.url}/api${path}`, { headers });
      if (!answer.ok) throw new Error(`${path} was answered ${answer.status}`);
      return answer.text();
    };
    const health = await time(ask('/health'), 200);
    const searches = [
      ['by technique and place', '/licks?technique=whole-step%20bend&lowestFret=5&highestFret=12'],
      ['by degrees in a row', '/licks?degrees=1%20b3%204'],
      ['by how it goes, in any key', '/licks?steps=2%20-2%20-3'],
      ['more like one, compared note by note', `/licks?like=${like}`],
    ] as const;
    const figures: Figure[] = [];
    for (const [what, path] of searches) {
      const taken = await time(ask(path), 60);
      figures.push({
        what: `Search over ${PHRASES} phrases ${what}, 95th percentile`,
        measured: ms(taken.p95),
        target: 'under 100 ms',
        met: taken.p95 < 100,
        yardstick: `health request, ${ms(health.p95)}`,
        ratio: ratio(taken.p95, health.p95),
      });
    }
    return figures;
  } finally {
    await stage.close();
  }
}

/** Fills the demo studio up with phrases, each a little different, and gathers what they are found by; the id of one. */
async function fillPhrases(databaseUrl: string): Promise<string> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  const { rows } = await client.query<{ studio: string; section: string }>(
    'SELECT c.studio_id AS studio, c.id AS section FROM sections c LIMIT 1',
  );
  const [where] = rows;
  if (!where) throw new Error('the demo studio has no section');
  const ids: string[] = [];
  for (let phrase = 0; phrase < PHRASES; phrase += 1) {
    const model = CORRECT_PHRASES[phrase % CORRECT_PHRASES.length]?.text ?? '';
    const moved = phrase % 7;
    // Moved by some frets, and one note of it another.
    const text = model.replaceAll(/\d+(?=[EADGBe])/g, (fret, at: number) =>
      String(Number(fret) + moved + (at % 97 === phrase % 97 ? 1 : 0)),
    );
    const id = randomUUID();
    ids.push(id);
    await client.query(
      'INSERT INTO phrases (id, studio_id, section_id, position, name, text) VALUES ($1, $2, $3, $4, $5, $6)',
      [id, where.studio, where.section, phrase + 100, `Phrase ${phrase}`, text],
    );
  }
  await client.end();
  const store = openStore(databaseUrl);
  await gatherMissingFacts(store);
  await store.close();
  return ids[0] ?? '';
}
