import type { KeptStanding, Ledger, Piece } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { keepStandings } from '../src/store/index.ts';
import { openTestStudio, PHRASE, take, tellStory, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

describe('results that waited on a device', () => {
  test('are posted for when they were played, as long ago as they waited by the clock of the device', async () => {
    const { ines, piece } = await tellStory(server);
    // The clock of this device is a year late; the entry waited two days. The studio has the fourteenth of March.
    const late = { playedAt: '2025-01-01T09:00:00Z', sentAt: '2025-01-03T09:00:00Z' };
    const { body } = await ines.post(`/api/pieces/${piece.id}/entries`).send(take(late)).expect(201);
    expect(body.entry).toMatchObject({ day: '2026-03-12', postedAt: '2026-03-12T10:00:00.000Z' });
  });

  test('those that lie in the future, or very long ago, are refused in a sentence', async () => {
    const { ines, piece } = await tellStory(server);
    const future = { playedAt: '2026-03-15T10:00:00Z', sentAt: '2026-03-14T10:00:00Z' };
    const answer = await ines.post(`/api/pieces/${piece.id}/entries`).send(take(future)).expect(422);
    expect(answer.body.error.problems).toEqual([
      { field: 'playedAt', message: expect.stringContaining('lies in the future') },
    ]);
    const old = { playedAt: '2026-01-01T10:00:00Z', sentAt: '2026-03-14T10:00:00Z' };
    await ines.post(`/api/pieces/${piece.id}/entries`).send(take(old)).expect(422);
    await ines
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ playedAt: 'yesterday', sentAt: 'now' }))
      .expect(422);
    await ines
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ playedAt: future.sentAt }))
      .expect(422);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.entries).toEqual([]);
  });

  test('two devices at once, each sending everything twice, come to one truth', async () => {
    const { ines, piece } = await tellStory(server);
    const phone = await server.signIn('ines');
    const sent = Array.from({ length: 8 }, (_, index) => take({ bpm: 60 + index }));
    const answers = await Promise.all(
      [...sent, ...sent].map((entry, index) =>
        (index % 2 === 0 ? ines : phone).post(`/api/pieces/${piece.id}/entries`).send(entry),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201));
    const show = async (browser: typeof ines): Promise<Piece> => {
      const shown: Piece = (await browser.get(`/api/pieces/${piece.id}`)).body;
      return shown;
    };
    const [one, other] = [await show(ines), await show(phone)];
    expect(one.entries.map(({ bpm }) => bpm).sort()).toEqual([60, 61, 62, 63, 64, 65, 66, 67]);
    expect(other).toEqual(one);
  });

  test('who keep where many pieces stand, each in an order of their own, never wait for each other', async () => {
    const { mara, ines, piece, section } = await tellStory(server);
    const phrase = await mara.post(`/api/sections/${section.id}/phrases`).send(PHRASE).expect(201);
    const given = await mara.post('/api/pieces').send({ phraseId: phrase.body.id, startBpm: 60, targetBpm: 120 });
    const other: Piece = given.body;
    await ines.get('/api/ledger').expect(200);
    await mara.get('/api/desk').expect(200);
    const { store } = server.app;
    const [known] = await store.rows<{ studio: string; kept: KeptStanding }>(
      'SELECT studio_id AS studio, kept FROM pieces WHERE id = $1',
      [piece.id],
    );
    if (!known) throw new Error('the piece is not there');
    let both: () => void = () => undefined;
    const met = new Promise<void>((done) => (both = done));
    let inside = 0;
    let tries = 0;
    const keep = (id: string) =>
      keepStandings(store, known.studio, [{ id, kept: known.kept, call: null, seen: 1_000_000 }]);
    const inOrder = (ids: readonly [string, string]) =>
      store.inTransaction(async () => {
        tries += 1;
        await keep(ids[0]);
        inside += 1;
        if (inside === 2) both();
        await met;
        await keep(ids[1]);
      });
    await Promise.all([inOrder([piece.id, other.id]), inOrder([other.id, piece.id])]);
    expect(tries).toBe(2);
  });

  test('a target under the start is refused at its field', async () => {
    const { mara, phrase } = await tellStory(server);
    const answer = await mara
      .post('/api/pieces')
      .send({ phraseId: phrase.id, startBpm: 130, targetBpm: 120 })
      .expect(422);
    expect(answer.body.error.problems).toEqual([
      { field: 'targetBpm', message: 'The start tempo must not be above the target.' },
    ]);
  });
});

describe('the ledger', () => {
  /** Runs something and tells how many queries it took. */
  async function queriesOf(work: () => Promise<unknown>): Promise<number> {
    const before = server.app.store.asked();
    await work();
    return server.app.store.asked() - before;
  }

  test('takes as many queries for many phrases as for one', async () => {
    const { ines, mara, section } = await tellStory(server);
    const ask = () => ines.get('/api/ledger').expect(200);
    await ask();
    const one = await queriesOf(ask);
    const before: Ledger = (await ask()).body;
    for (let count = 0; count < 12; count += 1) {
      const { body } = await mara
        .post(`/api/sections/${section.id}/phrases`)
        .send({ ...PHRASE, name: `Phrase ${count}` })
        .expect(201);
      const piece = await mara.post('/api/pieces').send({ phraseId: body.id, startBpm: 60, targetBpm: 90 }).expect(201);
      await ines.post(`/api/pieces/${piece.body.id}/entries`).send(take()).expect(201);
    }
    expect(await queriesOf(ask)).toBe(one);
    expect((await ask()).body.pieces).toHaveLength(before.pieces.length + 12);
  });

  test('shows thirty days with lines, and the ones before them on being asked', async () => {
    const { ines, mara, piece } = await tellStory(server);
    for (let ago = 0; ago < 40; ago += 1) {
      const played = new Date(Date.parse('2026-03-14T10:00:00Z') - ago * 86_400_000).toISOString();
      await ines
        .post(`/api/pieces/${piece.id}/entries`)
        .send(take({ bpm: 100 - ago, playedAt: played, sentAt: '2026-03-14T10:00:00Z' }))
        .expect(201);
    }
    await mara
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ bpm: 101 }))
      .expect(201);
    const { body: newest } = await ines.get('/api/ledger').expect(200);
    expect(newest.days).toHaveLength(30);
    expect(newest.days.at(-1)).toBe('2026-03-14');
    expect(newest.lessons).toEqual(['2026-03-14']);
    const { body: before } = await ines.get(`/api/ledger?until=${newest.earlier}`).expect(200);
    expect(before.days.at(-1)).toBe(newest.earlier);
    expect(before.earlier).toBeNull();
    expect(before.days).toHaveLength(10);
    const row = newest.pieces.find(({ id }: { id: string }) => id === piece.id);
    // Ink stands before pencil on the day of the lesson.
    expect(row.cells.at(-1)).toMatchObject({ day: '2026-03-14', bpm: 101, medium: 'ink', results: 2 });
    await ines.get('/api/ledger?until=soon').expect(422);
  });

  test('says how much of the song’s bars stands, those not assigned among them', async () => {
    const { ines, mara, section, piece, songId } = await tellStory(server);
    await mara
      .post(`/api/sections/${section.id}/phrases`)
      .send({ ...PHRASE, name: 'Not given', text: '/1 5G' })
      .expect(201);
    await ines
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ bpm: 120 }))
      .expect(201);
    const { songs }: Ledger = (await ines.get('/api/ledger').expect(200)).body;
    // Half a bar is given and at its target; one bar is not given.
    expect(songs.find(({ id }) => id === songId)).toMatchObject({ held: 0, full: 1 / 3, at80: 1 / 3, at60: 1 / 3 });
  });
});
