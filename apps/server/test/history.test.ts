import type { EarlierEntries, Piece, Posted } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { queriesOf } from '../../../tools/queries.ts';
import { openTestStudio, PHRASE, take, tellStory, type TestServer } from './studio.ts';

/** A line a day for ten years. */
const LINES = 3650;

let server: TestServer;
let story: Awaited<ReturnType<typeof tellStory>>;
beforeAll(async () => {
  server = await openTestStudio();
  story = await tellStory(server);
});
afterAll(() => server.close());

/** Gives the student another piece of the same song, with so many lines over as many days up to yesterday. */
async function pieceWith(lines: number): Promise<Piece> {
  const { mara, section } = story;
  const phrase = await mara.post(`/api/sections/${section.id}/phrases`).send(PHRASE).expect(201);
  const given = await mara
    .post('/api/pieces')
    .send({ phraseId: phrase.body.id, startBpm: 60, targetBpm: 120 })
    .expect(201);
  const piece: Piece = given.body;
  await server.app.store.rows(
    `INSERT INTO entries (id, studio_id, piece_id, counts_for, posted_by, bpm, outcome, medium, remark, posted_at)
     SELECT gen_random_uuid(), studio_id, id, id, student_id, 60 + 60 * n / $2::int, CASE WHEN n % 7 = 0 THEN 'not-yet' ELSE 'clean' END,
            'pencil', 'line ' || n, timestamptz '2026-03-14T09:00:00Z' - make_interval(days => $2 - n)
       FROM pieces, generate_series(1, $2::int) n WHERE id = $1 RETURNING 1`,
    [piece.id, lines],
  );
  return piece;
}

const statementsOf = async (work: () => Promise<unknown>) => (await queriesOf(work)).map(({ text }) => text);
const isOfTransaction = (sql: string) => /^(START TRANSACTION|COMMIT|ROLLBACK)/.test(sql);

describe('posting a result', () => {
  test.each(['mara', 'ines'] as const)('of %s takes at most seven queries, and one transaction', async (who) => {
    const piece = await pieceWith(20);
    const browser = story[who];
    const post = () => browser.post(`/api/pieces/${piece.id}/entries`).send(take()).expect(201);
    // Connections are open and the session is touched by then.
    await post();
    await post();
    const seen = await statementsOf(post);
    expect(seen.filter(isOfTransaction)).toEqual(['START TRANSACTION;', 'COMMIT;']);
    const queries = seen.filter((sql) => !isOfTransaction(sql));
    expect([queries.length <= 7, queries.some((sql) => sql.includes('INSERT INTO entries'))]).toEqual([true, true]);
  });

  test('is answered as shortly after ten years as after one', async () => {
    const sizes: number[] = [];
    for (const lines of [365, LINES]) {
      const piece = await pieceWith(lines);
      const { body, text } = await story.ines.post(`/api/pieces/${piece.id}/entries`).send(take()).expect(201);
      const posted: Posted = body;
      expect(posted.entry.bpm).toBe(84);
      // Two tempos in sentences may differ by a digit.
      sizes.push(text.length);
    }
    expect(Math.abs((sizes[1] ?? 0) - (sizes[0] ?? 0))).toBeLessThan(20);
  });

  test('comes to what the whole page of the piece comes to', async () => {
    const piece = await pieceWith(200);
    const posted: Posted = (await story.mara.post(`/api/pieces/${piece.id}/entries`).send(take()).expect(201)).body;
    const shown: Piece = (await story.mara.get(`/api/pieces/${piece.id}`).expect(200)).body;
    const { entry, ...stands } = posted;
    expect(shown).toMatchObject(stands);
    expect(shown.entries.at(-1)).toEqual(entry);
  });
});

describe('a long history', () => {
  test('comes in pages, and none of it is left out', async () => {
    const piece = await pieceWith(LINES);
    const shown: Piece = (await story.ines.get(`/api/pieces/${piece.id}`).expect(200)).body;
    expect([shown.entries.length, shown.hasEarlier, shown.before.length]).toEqual([50, true, LINES - 50]);
    expect(shown.before.at(-1)).toMatchObject({ day: '2026-01-23', medium: 'pencil', percent: 100 });
    let page: EarlierEntries = shown;
    const remarks = page.entries.map(({ remark }) => remark);
    for (let pages = 0; page.hasEarlier; pages += 1) {
      expect(pages).toBeLessThan(LINES / 50);
      const before = page.entries[0]?.id ?? '';
      page = (await story.ines.get(`/api/pieces/${piece.id}/entries?before=${before}`).expect(200)).body;
      remarks.unshift(...page.entries.map(({ remark }) => remark));
    }
    expect(remarks).toEqual(Array.from({ length: LINES }, (_, index) => `line ${index + 1}`));
  });
});

test('a session is written down at most once a minute', async () => {
  const ask = () => story.ines.get('/api/counts').expect(200);
  await ask();
  const seen = await statementsOf(async () => {
    for (let index = 0; index < 5; index += 1) await ask();
  });
  expect(seen.filter((sql) => sql.startsWith('UPDATE "sessions"'))).toEqual([]);
  // Who is signed in is looked up with it.
  expect(seen.filter((sql) => /FROM sessions .* people/.test(sql))).toHaveLength(5);
});
