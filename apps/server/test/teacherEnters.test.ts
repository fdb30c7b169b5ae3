import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { addPerson } from '../src/store/index.ts';
import { ownerLink } from '../src/studio/index.ts';
import { enterPeople, NOW, openTestStudio, REQUEST, type Browser, type TestServer } from './studio.ts';

let server: TestServer;
let mara: Browser;
let ines: Browser;
let student: string;
beforeAll(async () => {
  server = await openTestStudio();
  [mara, ines] = [await server.signIn('mara'), await server.signIn('ines')];
  student = (await ines.get('/api/session').expect(200)).body.id;
});
afterAll(() => server.close());

describe('a request that a teacher writes down', () => {
  test('is the student’s own, with who wrote it in its history', async () => {
    const { body } = await mara
      .post('/api/requests')
      .send({ ...REQUEST, studentId: student })
      .expect(201);
    expect(body).toMatchObject({ state: 'asked', student: { id: student } });
    expect(body.history[0]).toMatchObject({ by: 'mara', state: 'asked' });
    const { body: own } = await ines.get('/api/requests').expect(200);
    expect(own.map(({ id }: { id: string }) => id)).toEqual([body.id]);
    // The student asks for more of it, and may withdraw what was written for them.
    await ines
      .post('/api/requests')
      .send({ ...REQUEST, followsId: body.id })
      .expect(201);
  });

  test('also of a student who does not sign in', async () => {
    const { body: pia } = await mara.post('/api/people').send({ role: 'student', name: 'Pia', wards: [] }).expect(201);
    const { body } = await mara
      .post('/api/requests')
      .send({ ...REQUEST, studentId: pia.id })
      .expect(201);
    expect(body.student.name).toBe('Pia');
  });

  test('names somebody, and a student of this studio', async () => {
    const { body } = await mara.post('/api/requests').send(REQUEST).expect(422);
    expect(body.error.problems).toEqual([{ field: 'studentId', message: 'Say who asked for it.' }]);
    const me = (await mara.get('/api/session').expect(200)).body.id;
    await mara
      .post('/api/requests')
      .send({ ...REQUEST, studentId: me })
      .expect(404);
    await enterPeople(server.app.store, 'Other Loft', ['otto']);
    const otto = await server.signIn('otto');
    await otto
      .post('/api/requests')
      .send({ ...REQUEST, studentId: student })
      .expect(404);
  });

  test('a student asks for nobody else', async () => {
    const tomas = await server.signIn('tomas');
    await tomas
      .post('/api/requests')
      .send({ ...REQUEST, studentId: student })
      .expect(403);
    // What follows must be a request of the same student.
    const { body: asked } = await ines.get('/api/requests').expect(200);
    const tomasId = (await tomas.get('/api/session').expect(200)).body.id;
    await mara
      .post('/api/requests')
      .send({ ...REQUEST, studentId: tomasId, followsId: asked[0].id })
      .expect(403);
  });
});

describe('a song that nobody asked for', () => {
  const song = { title: 'Of my own', whose: '' };

  test('is begun for a student, with their frets, and worked on like any other', async () => {
    const { body } = await mara
      .post('/api/transcriptions')
      .send({ ...song, studentId: student })
      .expect(201);
    expect(body).toMatchObject({ title: 'Of my own', frets: 22, sections: [], student: { id: student } });
    const { body: seen } = await ines.get('/api/transcriptions').expect(200);
    expect(seen.map(({ title }: { title: string }) => title)).toContain('Of my own');
    await ines.get(`/api/transcriptions/${body.id}/sheet`).expect(200);
    // Two of them may be called the same; neither hangs on a request.
    await mara
      .post('/api/transcriptions')
      .send({ ...song, studentId: student })
      .expect(201);
  });

  test('is not begun by a student, nor for somebody of another studio, nor without a name', async () => {
    await ines
      .post('/api/transcriptions')
      .send({ ...song, studentId: student })
      .expect(403);
    const otto = await server.signIn('otto');
    await otto
      .post('/api/transcriptions')
      .send({ ...song, studentId: student })
      .expect(404);
    await mara
      .post('/api/transcriptions')
      .send({ ...song, title: ' ', studentId: student })
      .expect(422);
  });
});

describe('one’s own names', () => {
  const names = { name: 'Mara Tenfold-Ash', signInName: 'mara.ash', password: 'correct-horse' };

  test('are changed with the password that holds, and whoever else signs in so is told from', async () => {
    await mara
      .put('/api/session')
      .send({ ...names, password: 'wrong' })
      .expect(422);
    const { body: taken } = await mara
      .put('/api/session')
      .send({ ...names, signInName: 'INES' })
      .expect(422);
    expect(taken.error.problems[0].field).toBe('signInName');
    const { body } = await mara.put('/api/session').send(names).expect(200);
    expect(body).toMatchObject({ name: 'Mara Tenfold-Ash', signInName: 'mara.ash', role: 'teacher' });
    await server.signIn('Mara.Ash');
    await server.anonymous().post('/api/session').send({ name: 'mara', password: 'correct-horse' }).expect(401);
  });

  test('of two who take the same name at once, one has it', async () => {
    const tomas = await server.signIn('tomas');
    const both = await Promise.all(
      [ines, tomas].map((one) => one.put('/api/session').send({ ...names, signInName: 'wanted' })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422]);
  });

  test('the owner corrects theirs, too, and a teacher that of a student', async () => {
    const odile = await server.signIn('odile');
    await odile
      .put('/api/session')
      .send({ ...names, name: 'Odile Corr', signInName: 'odile' })
      .expect(200);
    const { body: people } = await odile.get('/api/people').expect(200);
    const pia = people.find(({ name }: { name: string }) => name === 'Pia');
    const change = {
      version: pia.version,
      name: 'Pia Lind',
      wards: [],
      teacherId: pia.teacher?.id ?? null,
      archived: false,
    };
    expect((await mara.put(`/api/people/${pia.id}`).send(change).expect(200)).body.person.name).toBe('Pia Lind');
  });
});

describe('who owns the studio', () => {
  type Listed = { readonly id: string; readonly name: string; readonly role: string; readonly version: number };
  const all = async (by: Browser): Promise<readonly Listed[]> => {
    const people: readonly Listed[] = (await by.get('/api/people').expect(200)).body;
    return people;
  };
  const listed = async (by: Browser, role: string, name?: string): Promise<Listed> => {
    const found = (await all(by)).find((one) => one.role === role && (name === undefined || one.name === name));
    if (!found) throw new Error(`there is no ${role}`);
    return found;
  };
  const put = (by: Browser, { id, name, version }: Listed, to: object) =>
    by.put(`/api/people/${id}`).send({ version, name, wards: [], teacherId: null, archived: false, ...to });

  test('the last owner cannot leave, is not put away, and a teacher makes nobody an owner', async () => {
    const odile = await server.signIn('odile');
    const me = await listed(odile, 'owner');
    for (const [to, field] of [
      [{ role: 'teacher' }, 'role'],
      [{ archived: true }, 'archived'],
    ] as const) {
      const { body } = await put(odile, me, to).expect(422);
      expect(body.error.problems).toEqual([{ field, message: expect.stringContaining('needs an owner') }]);
    }
    await put(mara, await listed(mara, 'teacher'), { role: 'owner' }).expect(403);
    // One who was never invited does not count.
    const { body: otho } = await odile
      .post('/api/people')
      .send({ role: 'teacher', name: 'Otho', wards: [] })
      .expect(201);
    await put(odile, otho, { role: 'owner' }).expect(200);
    await put(odile, me, { role: 'teacher' }).expect(422);
    await put(odile, await listed(odile, 'owner', 'Otho'), { role: 'teacher', archived: true }).expect(200);
    const pia = await listed(odile, 'student', 'Pia Lind');
    await put(odile, pia, { role: 'owner' }).expect(422);
  });

  test('it is handed over; of two owners who leave at once one stays', async () => {
    const odile = await server.signIn('odile');
    const teacher = await listed(odile, 'teacher', 'Mara Tenfold-Ash');
    await put(odile, teacher, { role: 'owner' }).expect(200);
    expect((await mara.get('/api/session').expect(200)).body.role).toBe('owner');
    const owners = (await all(odile)).filter(({ role }) => role === 'owner');
    expect(owners).toHaveLength(2);
    const left = await Promise.all(
      owners.map((one) => put(one.id === teacher.id ? mara : odile, one, { role: 'teacher' })),
    );
    expect(left.map(({ status }) => status).sort()).toEqual([200, 422]);
    const [odileIs, maraIs] = await Promise.all([odile, mara].map((one) => one.get('/api/session').expect(200)));
    expect([odileIs?.body.role, maraIs?.body.role].sort()).toEqual(['owner', 'teacher']);
  });
});

describe('an owner who forgot their password', () => {
  const now = NOW;

  test('is handed a link by whoever runs the machine; it works once, and earlier ones do not', async () => {
    const { store } = server.app;
    const before = await ownerLink(store, { name: undefined, now });
    const link = await ownerLink(store, { name: before.name, now });
    const chosen = { signInName: 'found.again', password: 'lantern copper tide 42' };
    const accept = (path: string) =>
      server.anonymous().post(path.replace('/welcome/', '/api/invitations/')).send(chosen);
    await accept(before.path).expect(404);
    await accept(link.path).expect(200);
    await accept(link.path).expect(404);
    const owner = await server.signIn(chosen.signInName, chosen.password);
    expect((await owner.get('/api/session').expect(200)).body).toMatchObject({ role: 'owner', name: before.name });
  });

  test('of several, one is named; nobody else gets one', async () => {
    const { store } = server.app;
    await expect(ownerLink(store, { name: 'ines', now })).rejects.toThrow(/No owner is called “ines”/);
    const [studio] = await store.studios.findAll({ limit: 1 });
    await addPerson(store, { studioId: studio?.id ?? '', role: 'owner', name: 'A second owner' });
    await expect(ownerLink(store, { name: undefined, now })).rejects.toThrow(/several owners/);
  });
});
