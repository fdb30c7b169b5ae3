import type { Piece } from '@jam-ledger/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { openTestStudio, PHRASE, REQUEST, SCOPE, SECTION, moveTo, tellStory, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

describe('from the asking to the progress line', () => {
  test('a phrase is asked for, written, assigned, practised and heard', async () => {
    const { ines, mara, songId, piece } = await tellStory(server);
    expect(piece.rungs.map(({ bpm }: { bpm: number }) => bpm)).toEqual([60, 64, 69, 74, 79, 85, 91, 97, 104, 112, 120]);
    expect(piece.next).toMatchObject({ move: 'begin', bpm: 60 });

    const post = (bpm: number, outcome: string) => ({ id: randomUUID(), bpm, outcome, remark: '' });
    const first = await ines.post(`/api/pieces/${piece.id}/entries`).send(post(84, 'clean')).expect(201);
    expect(first.body.next).toMatchObject({ move: 'stay', bpm: 79 });
    await ines.post(`/api/pieces/${piece.id}/entries`).send(post(92, 'not-yet')).expect(201);
    const heard = await mara.post(`/api/pieces/${piece.id}/entries`).send(post(90, 'clean')).expect(201);

    const shown: Piece = (await ines.get(`/api/pieces/${piece.id}`).expect(200)).body;
    expect(shown.entries.map(({ bpm, outcome, medium }) => [bpm, outcome, medium])).toEqual([
      [84, 'clean', 'pencil'],
      [92, 'not-yet', 'pencil'],
      [90, 'clean', 'ink'],
    ]);
    expect(heard.body.standing).toEqual({ inkBpm: 90, pencilBpm: 84, share: 0.75, by: 'ink' });
    expect(heard.body.next).toMatchObject({ move: 'up', bpm: 91, reason: '90 was clean in a lesson; go up to 91.' });

    const ledger = await ines.get('/api/ledger').expect(200);
    expect(ledger.body).toMatchObject({ today: '2026-03-14', pieces: [{ id: piece.id, next: { bpm: 91 } }] });
    expect(ledger.body.pieces[0].cells).toEqual([
      { day: '2026-03-14', bpm: 90, outcome: 'clean', medium: 'ink', percent: 100, results: 3 },
    ]);
    expect((await mara.get(`/api/ledger?studentId=${ledger.body.student.id}`).expect(200)).body).toEqual(ledger.body);

    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.body).toMatchObject({
      title: REQUEST.title,
      frets: 22,
      sections: [{ label: '1A', phrases: [{ name: 'Opening' }] }],
    });
  });
});

describe('undoing', () => {
  test('an entry struck out counts no more, and counts again when put back', async () => {
    const { ines, piece } = await tellStory(server);
    const id = randomUUID();
    const entry = { id, bpm: 84, outcome: 'clean', remark: '' };
    await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    const struck = await ines.put(`/api/entries/${id}`).send({ version: 1, struck: true }).expect(200);
    expect(struck.body).toMatchObject({ standing: { pencilBpm: null }, next: { move: 'begin' } });
    const back = await ines.put(`/api/entries/${id}`).send({ version: 2, struck: false }).expect(200);
    expect(back.body.standing.pencilBpm).toBe(84);
  });

  test('the same entry sent twice is posted once', async () => {
    const { ines, piece } = await tellStory(server);
    const entry = { id: randomUUID(), bpm: 84, outcome: 'clean', remark: '' };
    await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    const again = await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    expect(again.body.entry.id).toBe(entry.id);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.entries).toHaveLength(1);
  });

  test('a phrase, a section and a piece can be struck out and put back', async () => {
    const { mara, songId, section, phrase, piece } = await tellStory(server);
    const { name, text } = phrase;
    const body = { ...PHRASE, name, text };
    await mara
      .put(`/api/phrases/${phrase.id}`)
      .send({ ...body, version: 1, struck: true })
      .expect(200);
    const without = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(without.body.sections[0].phrases).toEqual([]);
    await mara
      .put(`/api/phrases/${phrase.id}`)
      .send({ ...body, version: 2, struck: false })
      .expect(200);
    const { startSeconds } = section;
    const change = { ...SECTION, startSeconds };
    await mara
      .put(`/api/sections/${section.id}`)
      .send({ ...change, version: 1, struck: true })
      .expect(200);
    const back = await mara
      .put(`/api/sections/${section.id}`)
      .send({ ...change, version: 2, struck: false })
      .expect(200);
    expect(back.body.phrases[0].text).toBe(text);
    const tempos = { startBpm: 60, targetBpm: 120 };
    await mara
      .put(`/api/pieces/${piece.id}`)
      .send({ ...tempos, version: piece.version, given: true, struck: true })
      .expect(200);
    const given = await mara
      .post('/api/pieces')
      .send({ phraseId: phrase.id, startBpm: 66, targetBpm: 120 })
      .expect(201);
    expect(given.body).toMatchObject({ id: piece.id, startBpm: 66, struck: false });
  });

  test('a request is withdrawn by its student and asked again; one in work is not declined', async () => {
    const ines = await server.signIn('ines');
    const mara = await server.signIn('mara');
    const asked = await ines.post('/api/requests').send(REQUEST).expect(201);
    const path = `/api/requests/${asked.body.id}/state`;
    await mara.post(path).send(moveTo(1, 'withdrawn')).expect(403);
    await ines
      .post(path)
      .send(moveTo(1, 'agreed', SCOPE))
      .expect(403);
    await ines.post(path).send(moveTo(1, 'withdrawn')).expect(200);
    await ines.post(path).send(moveTo(2, 'asked')).expect(200);
    await mara
      .post(path)
      .send(moveTo(3, 'agreed', SCOPE))
      .expect(200);
    const begun = await mara.post(path).send(moveTo(4, 'in work')).expect(200);
    expect(begun.body.transcriptionId).toEqual(expect.any(String));
    const refused = await mara
      .post(path)
      .send(moveTo(5, 'declined', null, 'no time'))
      .expect(422);
    expect(refused.body.error.problems).toEqual([
      { field: 'state', message: 'A request that is in work cannot become declined.' },
    ]);
  });

  test('the scope is agreed in one sentence, and every change stands in the history with who and when', async () => {
    const ines = await server.signIn('ines');
    const mara = await server.signIn('mara');
    const asked = await ines.post('/api/requests').send(REQUEST).expect(201);
    const path = `/api/requests/${asked.body.id}/state`;
    const empty = await mara
      .post(path)
      .send(moveTo(1, 'agreed', ' '))
      .expect(422);
    expect(empty.body.error.problems[0].field).toBe('scope');
    await mara.post(path).send(moveTo(1, 'declined')).expect(422);
    await mara
      .post(path)
      .send(moveTo(1, 'agreed', SCOPE))
      .expect(200);
    const states = ['in work', 'to be checked', 'delivered', 'in practice', 'closed'];
    for (const [index, state] of states.entries())
      await mara
        .post(path)
        .send(moveTo(index + 2, state))
        .expect(200);
    const { body } = await ines.get('/api/requests').expect(200);
    const seen = body.find(({ id }: { id: string }) => id === asked.body.id);
    expect(seen.scope).toBe(SCOPE);
    expect(seen.history.map(({ state, by }: { state: string; by: string }) => [state, by])).toEqual([
      ['asked', 'ines'],
      ['agreed', 'mara'],
      ...states.map((state) => [state, 'mara']),
    ]);
    expect(seen.history[1]).toMatchObject({ note: SCOPE, at: expect.stringMatching(/^2026-03-14T/) });
  });

  test('more of a song is a request of its own that goes on in the same transcription', async () => {
    const { ines, mara, request, songId } = await tellStory(server);
    const tomas = await server.signIn('tomas');
    const more = { ...REQUEST, wanted: ['rhythm'], notWanted: [], followsId: request.id };
    await tomas.post('/api/requests').send(more).expect(403);
    const two = await ines.post('/api/requests').send(more).expect(201);
    expect(two.body).toMatchObject({ part: 2, followsId: request.id, scope: '', transcriptionId: songId });
    const three = await ines
      .post('/api/requests')
      .send({ ...more, followsId: two.body.id })
      .expect(201);
    expect(three.body).toMatchObject({ part: 3, followsId: request.id });
    const path = `/api/requests/${two.body.id}/state`;
    await mara
      .post(path)
      .send(moveTo(1, 'agreed', 'The rhythm, too.'))
      .expect(200);
    const begun = await mara.post(path).send(moveTo(2, 'in work')).expect(200);
    expect(begun.body.transcriptionId).toBe(songId);
    const { body } = await ines.get('/api/requests').expect(200);
    expect(body.find(({ id }: { id: string }) => id === request.id).scope).toBe(SCOPE);
  });
});

describe('two at the same row', () => {
  test('a stale save is refused with the newer row, and the phrase keeps what was typed first', async () => {
    const { mara, phrase } = await tellStory(server);
    const save = (version: number, text: string) =>
      mara.put(`/api/phrases/${phrase.id}`).send({ ...PHRASE, name: phrase.name, text, version, struck: false });
    await save(1, '/8 5G').expect(200);
    const stale = await save(1, '/8 9G').expect(409);
    expect(stale.body.error).toMatchObject({ code: 'stale', current: { version: 2, text: '/8 5G' } });
    await save(2, '/8 9G').expect(200);
  });

  test('of two that assign the same phrase at once only one does', async () => {
    const { mara, section } = await tellStory(server);
    const phrase = await mara
      .post(`/api/sections/${section.id}/phrases`)
      .send({ ...PHRASE, name: 'Second' })
      .expect(201);
    const assign = () => mara.post('/api/pieces').send({ phraseId: phrase.body.id, startBpm: 60, targetBpm: 120 });
    const statuses = (await Promise.all([assign(), assign()])).map(({ status }) => status);
    expect(statuses.filter((status) => status === 201)).toHaveLength(1);
    expect(statuses.every((status) => [201, 409, 422].includes(status))).toBe(true);
  });
});
