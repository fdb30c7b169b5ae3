import { randomUUID } from 'node:crypto';
import { UNMOVED } from '@jam-ledger/core/notation';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import {
  moveTo,
  enterPeople,
  openServer,
  openTestStudio,
  PHRASE,
  REQUEST,
  SECTION,
  SET_UP,
  tellStory,
  type TestServer,
} from './studio.ts';

let server: TestServer;
let story: Awaited<ReturnType<typeof tellStory>>;
beforeAll(async () => {
  server = await openTestStudio();
  await enterPeople(server.app.store, 'Other Loft', ['otto', 'olga']);
  story = await tellStory(server);
});
afterAll(() => server.close());

const fieldsOf = (body: { error: { problems: readonly { field: string }[] } }) =>
  body.error.problems.map(({ field }) => field);

/** Sound bodies of what is done to a phrase. */
const BODIES: Readonly<Record<string, object>> = {
  mark: { version: 1, status: 'checked', against: 'the recording' },
  alternates: {},
  chosen: { version: 1 },
  reference: { version: 1, to: null, move: UNMOVED },
};

describe('who may what', () => {
  const entry = () => ({ id: randomUUID(), bpm: 84, outcome: 'clean', remark: '' });

  test('nobody signed in sees nothing', async () => {
    for (const path of ['/api/requests', '/api/ledger', '/api/transcriptions', '/api/students'])
      await server.anonymous().get(path).expect(401);
    await server.anonymous().get('/api/session').expect(200, 'null');
    await server.anonymous().post('/api/requests').send(REQUEST).expect(401);
  });

  test('a student sees only what is theirs', async () => {
    const tomas = await server.signIn('tomas');
    await tomas.get(`/api/pieces/${story.piece.id}`).expect(403);
    await tomas.post(`/api/pieces/${story.piece.id}/entries`).send(entry()).expect(403);
    await tomas.get(`/api/ledger?studentId=${story.request.student.id}`).expect(403);
    await tomas.post(`/api/requests/${story.request.id}/state`).send(moveTo(3, 'withdrawn')).expect(403);
    expect((await tomas.get('/api/requests').expect(200)).body).toEqual([]);
    expect((await tomas.get('/api/ledger').expect(200)).body.pieces).toEqual([]);
  });

  test('a student cannot do what a teacher does', async () => {
    const { ines, songId, section, phrase, piece } = story;
    await ines.get('/api/students').expect(403);
    await ines.get(`/api/transcriptions/${songId}`).expect(403);
    await ines
      .post(`/api/transcriptions/${songId}/sections`)
      .send({ ...SECTION, label: '1B' })
      .expect(403);
    for (const way of ['mark', 'alternates', 'chosen', 'reference'])
      await ines.post(`/api/phrases/${phrase.id}/${way}`).send(BODIES[way]).expect(403);
    await ines.get(`/api/phrases/${phrase.id}/revisions`).expect(403);
    await ines.post(`/api/sections/${section.id}/phrases`).send(PHRASE).expect(403);
    await ines
      .put(`/api/phrases/${phrase.id}`)
      .send({ ...PHRASE, version: 1, struck: false })
      .expect(403);
    await ines
      .put(`/api/pieces/${piece.id}`)
      .send({ startBpm: 60, targetBpm: 61, version: 1, given: true, struck: false })
      .expect(403);
    await ines.post('/api/pieces').send({ phraseId: phrase.id, startBpm: 60, targetBpm: 90 }).expect(403);
  });

  test('an entry is struck out only by whoever posted it', async () => {
    const posted = entry();
    await story.ines.post(`/api/pieces/${story.piece.id}/entries`).send(posted).expect(201);
    await story.mara.put(`/api/entries/${posted.id}`).send({ version: 1, struck: true }).expect(403);
  });

  test('another studio does not even learn that a thing is there', async () => {
    const otto = await server.signIn('otto');
    await otto.get(`/api/pieces/${story.piece.id}`).expect(404);
    await otto.get(`/api/transcriptions/${story.songId}`).expect(404);
    await otto
      .put(`/api/phrases/${story.phrase.id}`)
      .send({ ...PHRASE, version: 1, struck: false })
      .expect(404);
    await otto.get(`/api/ledger?studentId=${story.request.student.id}`).expect(404);
    await otto
      .post(`/api/requests/${story.request.id}/state`)
      .send(moveTo(3, 'declined', null, 'no'))
      .expect(404);
    const olga = await server.signIn('olga');
    await olga.post(`/api/pieces/${story.piece.id}/entries`).send(entry()).expect(404);
  });

  test('an entry cannot take the id of somebody else’s', async () => {
    const posted = entry();
    await story.ines.post(`/api/pieces/${story.piece.id}/entries`).send(posted).expect(201);
    const answer = await story.mara.post(`/api/pieces/${story.piece.id}/entries`).send(posted).expect(422);
    expect(fieldsOf(answer.body)).toEqual(['id']);
  });
});

describe('signing in', () => {
  test('a wrong password and an unknown name are answered alike, and slowly', async () => {
    const started = Date.now();
    const wrong = await server.anonymous().post('/api/session').send({ name: 'mara', password: 'no' }).expect(401);
    expect(Date.now() - started).toBeGreaterThanOrEqual(600);
    const unknown = await server.anonymous().post('/api/session').send({ name: 'nobody', password: 'no' }).expect(401);
    expect(unknown.body).toEqual(wrong.body);
  });

  test('the cookie is closed to scripts and other sites, and signing out ends the session', async () => {
    const browser = request.agent(server.app.express);
    const answer = await browser.post('/api/session').send({ name: 'MARA', password: 'correct-horse' }).expect(200);
    expect(answer.headers['set-cookie']?.[0]).toMatch(/HttpOnly; SameSite=Strict/);
    expect(answer.body).toMatchObject({ role: 'teacher', studio: { today: '2026-03-14' } });
    await browser.delete('/api/session').expect(204);
    await browser.get('/api/counts').expect(401);
    expect((await browser.get('/api/session').expect(200)).body).toBeNull();
  });

  test('a session holds on a second server of the same database', async () => {
    const second = await openServer(server.databaseUrl);
    const first = await server
      .anonymous()
      .post('/api/session')
      .send({ name: 'ines', password: 'correct-horse' })
      .expect(200);
    const kept: readonly string[] = [first.headers['set-cookie'] ?? []].flat();
    const cookie = kept.find((one) => one.startsWith('jam.sid'))?.split(';')[0] ?? '';
    await request(second.app.express).get('/api/ledger').set('Cookie', cookie).expect(200);
    await second.close();
  });

  test('after ten wrong passwords a name must wait, on every server', async () => {
    const wrong = () => server.anonymous().post('/api/session').send({ name: 'odile', password: 'no' });
    const tries = await Promise.all(Array.from({ length: 10 }, wrong));
    expect(tries.every(({ status }) => status === 401)).toBe(true);
    const answer = await server
      .anonymous()
      .post('/api/session')
      .send({ name: 'odile', password: 'correct-horse' })
      .expect(429);
    expect(answer.body.error.code).toBe('slow-down');
    await server.signIn('mara');
  });
});

describe('bad input', () => {
  const long = 'a'.repeat(100_000);

  test('every text of a request that is too long is named', async () => {
    const { ines } = story;
    const texts = ['title', 'whose', 'guitar', 'remarks'];
    const body = { ...REQUEST, ...Object.fromEntries(texts.map((field) => [field, long])) };
    const answer = await ines.post('/api/requests').send(body).expect(422);
    expect(fieldsOf(answer.body)).toEqual(expect.arrayContaining(texts));
  });

  test.each([
    ['a title of nothing but spaces', { title: '   ' }, 'title'],
    ['an empty title', { title: '' }, 'title'],
    ['no parts wanted', { wanted: [] }, 'wanted'],
    ['a part of nothing but spaces', { wanted: ['  '] }, 'wanted.0'],
    ['a part both in and out', { wanted: ['solo'], notWanted: ['solo'] }, 'notWanted'],
    ['seventeen parts', { wanted: Array.from({ length: 17 }, (_, index) => `part ${index}`) }, 'wanted'],
    ['an unknown version of the song', { rendition: 'dreamt' }, 'rendition'],
    ['a missing title', { title: undefined }, 'title'],
    ['a day in the past', { wantedBy: '2026-03-13' }, 'wantedBy'],
    ['a day that is none', { wantedBy: '2026-02-30' }, 'wantedBy'],
    ['a number for a text', { remarks: 7 }, 'remarks'],
    ['a field that is not known', { price: 7 }, 'price'],
    ['a character that cannot be kept', { title: 'a\u0000b' }, 'title'],
  ])('%s', async (_name, wrong, field) => {
    const answer = await story.ines
      .post('/api/requests')
      .send({ ...REQUEST, ...wrong })
      .expect(422);
    expect(fieldsOf(answer.body)).toEqual([field]);
    expect(answer.body.error.problems[0].message).toMatch(/^[A-Z].*\.$/);
  });

  test('today in the studio’s zone is not in the past', async () => {
    await story.ines
      .post('/api/requests')
      .send({ ...REQUEST, wantedBy: '2026-03-14' })
      .expect(201);
  });

  test.each([
    ['a negative tempo', { tempo: -5 }, 'tempo'],
    ['a tempo that is no number', { tempo: 'fast' }, 'tempo'],
    ['an unknown tuning', { tuning: 'sideways' }, 'tuning'],
    ['a meter that is none', { meter: '4/5' }, 'meter'],
    ['half a fret', { capo: 1.5 }, 'capo'],
    ['a long key', { key: long }, 'key'],
    ['ten strings', { tuning: 'E1 A1 D2 G2 C3 F3 A3 D4 G4 C5' }, 'tuning'],
    ['a recording of no length', { songSeconds: 0 }, 'songSeconds'],
    ['a change to no meter', { changes: [{ atSeconds: 9, tempo: 90, meter: '4/7', key: '' }] }, 'changes.0.meter'],
    ['a change to no key', { changes: [{ atSeconds: 9, tempo: 90, meter: '4/4', key: 'H' }] }, 'changes.0.key'],
    [
      'a change before the song',
      { changes: [{ atSeconds: -9, tempo: 90, meter: '4/4', key: '' }] },
      'changes.0.atSeconds',
    ],
    [
      'a rig note that ends before it begins',
      { rig: [{ fromSeconds: 9, toSeconds: 3, note: 'x' }] },
      'rig.0.toSeconds',
    ],
    ['an unknown layer', { studentLayer: 'choir' }, 'studentLayer'],
  ])('a set-up with %s', async (_name, wrong, field) => {
    const answer = await story.mara
      .put(`/api/transcriptions/${story.songId}`)
      .send({ ...SET_UP, version: 1, ...wrong })
      .expect(422);
    expect(fieldsOf(answer.body)).toEqual([field]);
  });

  test('phrases and sections that are too long or negative are refused, and nothing of them is kept', async () => {
    const { mara, section, songId } = story;
    const phrase = await mara
      .post(`/api/sections/${section.id}/phrases`)
      .send({ ...PHRASE, name: long, text: long })
      .expect(422);
    expect(fieldsOf(phrase.body)).toEqual(['name', 'text']);
    const bad = {
      ...SECTION,
      label: long,
      role: ' ',
      startSeconds: -1,
      bars: 0,
      times: -2,
      passes: [{ pass: 'never', change: 'x' }],
      jump: { to: 'nowhere', times: 1 },
    };
    const answer = await mara.post(`/api/transcriptions/${songId}/sections`).send(bad).expect(422);
    expect(fieldsOf(answer.body)).toEqual([
      'label',
      'role',
      'startSeconds',
      'bars',
      'times',
      'passes.0.pass',
      'jump.to',
    ]);
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.body.sections).toHaveLength(1);
    expect(song.body.sections[0].phrases).toHaveLength(1);
  });

  test('a ladder upside down, and a tempo below zero', async () => {
    const { mara, ines, phrase, piece } = story;
    const upside = await mara
      .post('/api/pieces')
      .send({ phraseId: phrase.id, startBpm: 120, targetBpm: 60 })
      .expect(422);
    expect(fieldsOf(upside.body)).toEqual(['targetBpm']);
    const entry = { id: 'x', bpm: -84, outcome: 'perfect', remark: long };
    const answer = await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(422);
    expect(fieldsOf(answer.body)).toEqual(['id', 'bpm', 'outcome', 'remark']);
  });

  test('a body that is not JSON, one too large, an id that is none, an address that is none', async () => {
    const { ines } = story;
    const text = await ines.post('/api/requests').set('Content-Type', 'application/json').send('{"title":').expect(400);
    expect(text.body.error.code).toBe('unreadable');
    expect(fieldsOf(text.body)).toEqual(['body']);
    const huge = JSON.stringify({ title: 'a'.repeat(3_000_000) });
    await ines.post('/api/requests').set('Content-Type', 'application/json').send(huge).expect(413);
    await ines.post('/api/requests').send([1, 2]).expect(422);
    expect(fieldsOf((await ines.get('/api/pieces/42').expect(422)).body)).toEqual(['id']);
    await ines.get(`/api/pieces/${randomUUID()}`).expect(404);
    await ines.get('/api/nowhere').expect(404);
    await ines.get('/api/ledger?studentId[$ne]=1').expect(422);
  });

  test('a change sent from another origin is refused', async () => {
    const { ines } = story;
    const other = await ines.post('/api/requests').set('Origin', 'http://elsewhere.test').send(REQUEST).expect(403);
    expect(other.body.error.code).toBe('other-origin');
    await ines.post('/api/requests').set('Sec-Fetch-Site', 'cross-site').send(REQUEST).expect(403);
    await ines.post('/api/requests').set('Origin', 'null').send(REQUEST).expect(403);
  });

  test('trouble of our own shows a number and no stack', async () => {
    const broken = await openServer(server.databaseUrl);
    const browser = await broken.signIn('mara');
    await broken.app.store.close();
    const answer = await browser.get('/api/students').expect(500);
    expect(answer.body.error.reference).toMatch(/^[0-9a-f]{8}$/);
    expect(JSON.stringify(answer.body)).not.toMatch(/at .*\.ts|node_modules/);
    await broken.app.close().catch(() => undefined);
  });
});
