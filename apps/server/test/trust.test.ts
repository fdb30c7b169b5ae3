import { randomUUID } from 'node:crypto';
import type { Desk, Mail, Person, Piece, Posted } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { addPerson } from '../src/store/index.ts';
import { hashPassword } from '../src/studio/index.ts';
import { openTestStudio, PHRASE, SECTION, take, tellStory, type Browser, type TestServer } from './studio.ts';

let server: TestServer;
let story: Awaited<ReturnType<typeof tellStory>>;
beforeAll(async () => {
  server = await openTestStudio();
  story = await tellStory(server);
});
afterAll(() => server.close());

/** How many rows every table has. */
async function counts(): Promise<Readonly<Record<string, number>>> {
  const { store } = server.app;
  const tables = await store.rows<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables
      WHERE table_schema = 'public' AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
    [['sessions', 'counted_sign_ins']],
  );
  const entries = tables.map(async ({ name }) => {
    const [row] = await store.rows<{ count: number }>(`SELECT count(*)::int AS count FROM "${name}"`, []);
    return [name, row?.count ?? 0] as const;
  });
  return Object.fromEntries(await Promise.all(entries));
}

describe('refused means not stored', () => {
  test('an id in capitals is the same id, and its entry is posted once', async () => {
    const { ines, piece } = story;
    const entry = take();
    const posted = await ines.post(`/api/pieces/${piece.id.toUpperCase()}/entries`).send(entry).expect(201);
    expect(posted.body.entry.id).toBe(entry.id);
    const again = await ines.post(`/api/pieces/${piece.id}/entries`).send({ ...entry, id: entry.id.toUpperCase() });
    expect([again.status, again.body.entry]).toEqual([201, posted.body.entry]);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.entries).toHaveLength(1);
  });

  test('whatever is refused late leaves every table as it was', async () => {
    const { ines, mara, piece, phrase, songId } = story;
    const taken = take();
    await mara.post(`/api/pieces/${piece.id}/entries`).send(taken).expect(201);
    const pin = { id: randomUUID(), phraseId: phrase.id, at: 0, text: 'watch out' };
    await mara.post(`/api/pieces/${piece.id}/pins`).send(pin).expect(201);
    const before = await counts();
    // An entry and a note under the ids of somebody else’s.
    await ines.post(`/api/pieces/${piece.id}/entries`).send(taken).expect(422);
    await ines.post(`/api/pieces/${piece.id}/pins`).send(pin).expect(422);
    await mara.post('/api/pieces').send({ phraseId: phrase.id, startBpm: 60, targetBpm: 90 }).expect(422);
    const plan = (await mara.get(`/api/transcriptions/${songId}/plan`).expect(200)).body;
    await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send({ ...bodyOf(plan), version: 7 })
      .expect(409);
    expect(await counts()).toEqual(before);
  });
});

function bodyOf({ version, learning, raising, targetPercent, rules }: Record<string, unknown>) {
  return { version, learning, raising, targetPercent, rules, pieces: [] };
}

describe('the pool of connections', () => {
  test('every query of a transaction runs on its one connection, and none outside of it can be locked', async () => {
    const { store } = server.app;
    const pid = async () => (await store.rows<{ pid: number }>('SELECT pg_backend_pid() AS pid', []))[0]?.pid;
    const pids = await store.inTransaction(async () => {
      const inner = store.inTransaction(() => pid());
      return Promise.all([pid(), pid(), inner, new Promise((done) => setTimeout(done, 5)).then(pid)]);
    });
    expect(new Set(pids).size).toBe(1);
    await expect(store.lock('nothing')).rejects.toThrow('can only be locked in a transaction');
  });

  test('three times as many stale changes as there are connections hold nobody up', async () => {
    const { mara, ines, request } = story;
    const stale = Array.from({ length: 30 }, (_, index) =>
      index % 2 === 0
        ? mara.post(`/api/requests/${request.id}/promise`).send({ version: 1, promisedFor: null })
        : ines
            .post(`/api/requests/${request.id}/state`)
            .send({ version: 1, state: 'withdrawn', scope: null, reason: '' }),
    );
    const other = ines.get('/api/session');
    const answers = await Promise.all([...stale, other]);
    expect(answers.map(({ status }) => status)).toEqual([...stale.map(() => 409), 200]);
  });

  test('transactions that stand in each other’s way are done again, and both arrive', async () => {
    const { store } = server.app;
    const [a, b] = await store.rows<{ id: string }>('SELECT id FROM people ORDER BY id LIMIT 2', []);
    const touch = async (id: string | undefined) => {
      await store.rows('UPDATE people SET frets = frets WHERE id = $1 RETURNING id', [id]);
    };
    let tries = 0;
    const meet = (first: string | undefined, second: string | undefined) =>
      store.inTransaction(async () => {
        tries += 1;
        await touch(first);
        await new Promise((done) => setTimeout(done, 60));
        await touch(second);
        return 'done';
      });
    expect(await Promise.all([meet(a?.id, b?.id), meet(b?.id, a?.id)])).toEqual(['done', 'done']);
    expect(tries).toBe(3);
  });
});

describe('links that open an account', () => {
  let odile: Browser;
  let otto: Browser;
  beforeAll(async () => {
    const { store } = server.app;
    const [{ id: studioId } = { id: '' }] = await store.rows<{ id: string }>('SELECT id FROM studios', []);
    const passwordHash = await hashPassword('correct-horse');
    await addPerson(store, { studioId, role: 'teacher', name: 'Otto', signInName: 'otto', passwordHash, frets: 22 });
    odile = await server.signIn('odile');
    otto = await server.signIn('otto');
    const teacherId = (await personCalled('mara')).id;
    const ines = await personCalled('ines');
    await odile
      .put(`/api/people/${ines.id}`)
      .send({ version: ines.version, name: 'ines', wards: [], teacherId, archived: false })
      .expect(200);
    await odile
      .post('/api/people')
      .send({ role: 'guardian', name: 'Una', wards: [ines.id] })
      .expect(201);
  });
  const personCalled = async (name: string): Promise<Person> => {
    const all: readonly Person[] = (await odile.get('/api/people').expect(200)).body;
    const person = all.find((one) => one.name === name);
    if (!person) throw new Error(`nobody is called ${name}`);
    return person;
  };
  const inviteAs = async (by: Browser, name: string) =>
    by.post(`/api/people/${(await personCalled(name)).id}/invitation`);

  test('are handed on by the owner, and by whoever teaches a student or a guardian’s child', async () => {
    expect((await inviteAs(odile, 'Otto')).status).toBe(201);
    expect((await inviteAs(story.mara, 'Otto')).status).toBe(403);
    for (const name of ['ines', 'Una']) {
      expect([name, (await inviteAs(otto, name)).status]).toEqual([name, 403]);
      expect([name, (await inviteAs(story.mara, name)).status]).toEqual([name, 201]);
    }
    // Nobody teaches tomas yet.
    expect((await inviteAs(otto, 'tomas')).status).toBe(201);
  });

  test('cannot be had by claiming somebody else’s student, or becoming the teacher of a ward', async () => {
    const [ines, una, tomas] = [await personCalled('ines'), await personCalled('Una'), await personCalled('tomas')];
    const ottos = (await personCalled('Otto')).id;
    const change = ({ version, name, wards }: Person, to: object) => ({
      ...{ version, name, wards: wards.map(({ id }) => id), teacherId: null, archived: false },
      ...to,
    });
    await otto
      .put(`/api/people/${ines.id}`)
      .send(change(ines, { teacherId: ottos }))
      .expect(403);
    await otto
      .put(`/api/people/${ines.id}`)
      .send(change(ines, { teacherId: null }))
      .expect(403);
    await otto
      .put(`/api/people/${una.id}`)
      .send(change(una, { wards: [tomas.id] }))
      .expect(403);
    // Whom nobody teaches yet may be claimed, and given back.
    await otto
      .put(`/api/people/${tomas.id}`)
      .send(change(tomas, { teacherId: ottos }))
      .expect(200);
    await otto
      .put(`/api/people/${tomas.id}`)
      .send(change(await personCalled('tomas'), { teacherId: null }))
      .expect(200);
  });

  test('stand in no message, in no table, and nobody sees messages to students of others', async () => {
    const { body: link } = await inviteAs(odile, 'Una');
    const token: string = link.path.replace('/welcome/', '');
    const { store } = server.app;
    const found = await store.rows(
      `SELECT 1 FROM outbox WHERE body LIKE '%' || $1 || '%' UNION ALL
       SELECT 1 FROM invitations WHERE token_hash LIKE '%' || $1 || '%'`,
      [token],
    );
    expect(found).toEqual([]);
    const recipients = async (by: Browser) => {
      const all: readonly Mail[] = (await by.get('/api/outbox').expect(200)).body;
      return [...new Set(all.map(({ to }) => to))].sort();
    };
    expect(await recipients(odile)).toEqual(['Otto', 'Una', 'ines', 'tomas']);
    expect(await recipients(otto)).toEqual(['Otto', 'tomas']);
    expect(await recipients(story.mara)).toEqual(['Una', 'ines', 'tomas']);
  });

  test('four at once that choose one name: one gets it, three are told', async () => {
    const paths: string[] = [];
    for (const name of ['Ava', 'Bo', 'Cy', 'Di']) {
      await odile.post('/api/people').send({ role: 'student', name, wards: [] }).expect(201);
      paths.push((await inviteAs(odile, name)).body.path);
    }
    const chosen = { signInName: 'Songbird', password: 'ducks wear seven hats' };
    const answers = await Promise.all(
      paths.map((path) => server.anonymous().post(path.replace('/welcome', '/api/invitations')).send(chosen)),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 422, 422, 422]);
  });

  test.each(['password12', 'qwertyuiop1', 'test loft 1', 'mara mara mara', '1111111111111', 'Summer2026!'])(
    'a password such as “%s” is refused for what is wrong with it',
    async (password) => {
      const refused = await story.mara.put('/api/password').send({ old: 'correct-horse', password }).expect(422);
      expect(refused.body.error.problems).toEqual([
        { field: 'password', message: expect.stringContaining('a few words that do not belong together') },
      ]);
      await story.mara.get('/api/session').expect(200);
    },
  );
});

describe('places', () => {
  test('phrases added at once to one section each have a place of their own', async () => {
    const { mara, section } = story;
    const names = Array.from({ length: 12 }, (_, index) => `At once ${index}`);
    const added = names.map((name) => mara.post(`/api/sections/${section.id}/phrases`).send({ ...PHRASE, name }));
    expect((await Promise.all(added)).map(({ status }) => status)).toEqual(names.map(() => 201));
    const rows = await server.app.store.rows<{ position: number }>(
      'SELECT position FROM phrases WHERE section_id = $1',
      [section.id],
    );
    expect(new Set(rows.map(({ position }) => position)).size).toBe(rows.length);
  });

  test('pieces given one by one, or at once, stand in the order of the song', async () => {
    const { mara, songId } = await tellStory(server);
    const ids: string[] = [];
    // The second section is entered first.
    for (const [label, startSeconds] of [
      ['2A', 40],
      ['1B', 30],
    ] as const) {
      const { body } = await mara
        .post(`/api/transcriptions/${songId}/sections`)
        .send({ ...SECTION, label, startSeconds })
        .expect(201);
      for (const name of [`${label} one`, `${label} two`, `${label} three`]) {
        const phrase = await mara
          .post(`/api/sections/${body.id}/phrases`)
          .send({ ...PHRASE, name })
          .expect(201);
        ids.push(phrase.body.id);
      }
    }
    const give = (phraseId: string) => mara.post('/api/pieces').send({ phraseId, startBpm: 60, targetBpm: 90 });
    const [third, first, ...rest] = ids.toReversed();
    await give(first ?? '').expect(201);
    await give(third ?? '').expect(201);
    await Promise.all(rest.map((id) => give(id).expect(201)));
    const plan = (await mara.get(`/api/transcriptions/${songId}/plan`).expect(200)).body;
    expect(plan.pieces.map(({ name }: { name: string }) => name)).toEqual([
      'Opening',
      ...['1B one', '1B two', '1B three', '2A one', '2A two', '2A three'],
    ]);
  });
});

describe('a phrase that is kept in several ways', () => {
  test('keeps its name when another way is chosen, and the student gets that way', async () => {
    const { mara, ines, phrase, piece } = await tellStory(server);
    const { body: other } = await mara
      .post(`/api/phrases/${phrase.id}/alternates`)
      .send({ name: 'Opening, easier', text: '/4 5G 7G', reason: 'no bend' })
      .expect(201);
    await mara.post(`/api/phrases/${other.id}/chosen`).send({ version: other.version }).expect(200);
    const shown: Piece = (await ines.get(`/api/pieces/${piece.id}`).expect(200)).body;
    expect(shown.phrase).toMatchObject({ name: 'Opening', text: '/4 5G 7G' });
    const ledger = (await ines.get('/api/ledger').expect(200)).body;
    const names = ledger.pieces.map((one: { phrase: { name: string } }) => one.phrase.name);
    expect(names).not.toContain('…');
    // What was held of it is held of the song.
    await mara
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ bpm: 120 }))
      .expect(201);
    const song = (await ines.get('/api/ledger').expect(200)).body.songs.find(
      (one: { id: string }) => one.id === shown.song.id,
    );
    expect(song).toMatchObject({ full: 1 });
  });
});

describe('a phrase that is struck out', () => {
  test('is promised by no page: neither the desk, nor the lesson, nor the plan', async () => {
    const { mara, ines, phrase, piece } = await tellStory(server);
    const studentId = piece.student.id;
    await mara
      .post('/api/series')
      .send({
        studentId,
        title: 'Evenings',
        rule: {
          firstDay: '2026-03-15',
          time: '19:00',
          minutes: 45,
          everyWeeks: 1,
          weekdays: [],
          count: 2,
          until: null,
        },
        changes: { skips: [], moves: [], extras: [] },
        goal: '',
        goalDay: null,
        instalments: [],
      })
      .expect(201);
    for (const _ of [1, 2])
      await ines
        .post(`/api/pieces/${piece.id}/entries`)
        .send(take({ bpm: 120 }))
        .expect(201);
    const opens = async () => {
      const { lessons }: Desk = (await mara.get('/api/desk').expect(200)).body;
      return lessons.find(({ series }) => series.title === 'Evenings')?.opensWith?.name;
    };
    const { name, text, layer, certainty, reason } = phrase;
    const strike = (version: number, struck: boolean) =>
      mara.put(`/api/phrases/${phrase.id}`).send({ version, name, text, layer, certainty, reason, struck }).expect(200);
    expect(await opens()).toBe('Opening');
    // All other pieces of this student are struck, so that this one alone could open a lesson.
    await server.app.store.rows('UPDATE pieces SET struck = true WHERE student_id = $1 AND id <> $2 RETURNING id', [
      studentId,
      piece.id,
    ]);
    await strike(phrase.version, true);
    expect(await opens()).toBeUndefined();
    const lesson = (await mara.get(`/api/lessons/of/${studentId}`).expect(200)).body;
    expect(lesson.pieces).toEqual([]);
    await strike(Number(phrase.version) + 1, false);
    expect(await opens()).toBe('Opening');
  });
});

describe('a loop', () => {
  test('is kept as what it is, and moves no ladder', async () => {
    const { ines, mara, piece } = await tellStory(server);
    await mara
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ bpm: 62 }))
      .expect(201);
    const before: Piece = (await ines.get(`/api/pieces/${piece.id}`).expect(200)).body;
    const loop = { from: 0, to: before.parts[0]?.length ? before.parts[0].length / 4 : 1 };
    const after: Posted = (
      await ines
        .post(`/api/pieces/${piece.id}/entries`)
        .send(take({ bpm: 130, loop }))
        .expect(201)
    ).body;
    expect(after.entry).toMatchObject({ bpm: 130, loop, counts: false });
    for (const field of ['standing', 'next', 'mastery', 'expected'] as const)
      expect([field, after[field]]).toEqual([field, before[field]]);
    const line = (await ines.get('/api/ledger').expect(200)).body.pieces.find(({ id }: Piece) => id === piece.id);
    expect(line).toMatchObject({ standing: before.standing, lastDay: '2026-03-14' });
    const backwards = await ines
      .post(`/api/pieces/${piece.id}/entries`)
      .send(take({ loop: { from: 9, to: 9 } }))
      .expect(422);
    expect(backwards.body.error.problems).toEqual([{ field: 'loop.to', message: 'This must be after the start.' }]);
  });

  test('counts for the piece that was cut there', async () => {
    const { ines, mara, piece, phrase, songId } = await tellStory(server);
    const { parts } = piece as Piece;
    const length = parts[0]?.length ?? 0;
    const plan = (await mara.get(`/api/transcriptions/${songId}/plan`).expect(200)).body;
    const [whole] = plan.pieces;
    const half = {
      id: randomUUID(),
      kind: 'half',
      parts: [{ phraseId: phrase.id, from: 0, to: length / 2 }],
      startBpm: 60,
      targetBpm: 120,
      floorBpm: null,
      difficulty: null,
      fixed: false,
      lesson: null,
    };
    const { id, kind, parts: cut, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson } = whole;
    const kept = { id, kind, parts: cut, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson };
    const planned = await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send({ ...bodyOf(plan), pieces: [half, kept] })
      .expect(200);
    const line = planned.body.pieces[0];
    await mara
      .put(`/api/pieces/${half.id}`)
      .send({ startBpm: 60, targetBpm: 120, version: line.version, given: true, struck: false })
      .expect(200);
    const looped = { ...take({ bpm: 100 }), loop: { from: 0, to: length / 2 } };
    const posted: Posted = (await ines.post(`/api/pieces/${piece.id}/entries`).send(looped).expect(201)).body;
    expect(posted.entry).toMatchObject({ counts: false, loop: looped.loop });
    expect(posted.standing.pencilBpm).toBeNull();
    const fed: Piece = (await ines.get(`/api/pieces/${half.id}`).expect(200)).body;
    expect(fed.entries).toMatchObject([{ id: looped.id, bpm: 100, counts: true, loop: null }]);
    expect(fed.standing.pencilBpm).toBe(100);
    // Struck out, it is gone from both.
    await ines.put(`/api/entries/${looped.id}`).send({ version: 1, struck: true }).expect(200);
    expect((await ines.get(`/api/pieces/${half.id}`).expect(200)).body.standing.pencilBpm).toBeNull();
  });
});
