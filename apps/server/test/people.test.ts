import type { Invitation, Mail, Person, Series } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  moveTo,
  openServer,
  openTestStudio,
  SCOPE,
  seriesOf,
  tellStory,
  type Browser,
  type TestServer,
} from './studio.ts';

let server: TestServer;
let mara: Browser;
let odile: Browser;
beforeAll(async () => {
  server = await openTestStudio();
  [mara, odile] = [await server.signIn('mara'), await server.signIn('odile')];
});
afterAll(() => server.close());

async function people(): Promise<readonly Person[]> {
  const all: readonly Person[] = (await odile.get('/api/people').expect(200)).body;
  return all;
}
const personCalled = async (name: string): Promise<Person> => {
  const person = (await people()).find((one) => one.name === name);
  if (!person) throw new Error(`nobody is called ${name}`);
  return person;
};
const enter = async (by: Browser, body: object) => by.post('/api/people').send({ wards: [], ...body });
const change = (by: Browser, person: Person, to: object) =>
  by.put(`/api/people/${person.id}`).send({
    version: person.version,
    name: person.name,
    wards: person.wards.map(({ id }) => id),
    teacherId: person.teacher?.id ?? null,
    archived: person.archived,
    ...to,
  });
const invited = async (person: Person): Promise<string> => {
  const invitation: Invitation = (await mara.post(`/api/people/${person.id}/invitation`).expect(201)).body;
  return invitation.path.replace('/welcome/', '/api/invitations/');
};

describe('people of the studio', () => {
  test('a teacher enters students and guardians, only the owner teachers; nobody else sees them', async () => {
    expect((await enter(mara, { role: 'student', name: 'Nell' })).status).toBe(201);
    expect((await enter(mara, { role: 'teacher', name: 'Otho' })).status).toBe(403);
    expect((await enter(odile, { role: 'teacher', name: 'Otho' })).status).toBe(201);
    expect((await personCalled('Nell')).teacher?.name).toBe('mara');
    const ines = await server.signIn('ines');
    await ines.get('/api/people').expect(403);
    await ines.get('/api/outbox').expect(403);
    expect((await enter(ines, { role: 'student', name: 'X' })).status).toBe(403);
  });

  test('a guardian has a child, and a child only', async () => {
    const none = await enter(mara, { role: 'guardian', name: 'G' });
    expect(none.body.error.problems).toEqual([{ field: 'wards', message: 'Say whose guardian this is.' }]);
    const otho = await personCalled('Otho');
    const teacher = await enter(mara, { role: 'guardian', name: 'G', wards: [otho.id] });
    expect(teacher.body.error.problems[0].message).toBe('One of these is no student of the studio.');
    const student = await enter(mara, { role: 'student', name: 'S', wards: [otho.id] });
    expect(student.status).toBe(422);
  });

  test('an invitation works once, and is over after two weeks', async () => {
    const nell = await personCalled('Nell');
    const first = await invited(nell);
    const link = await invited(nell);
    const anybody = server.anonymous();
    await anybody.get(first).expect(404);
    expect((await anybody.get(link).expect(200)).body).toEqual({
      name: 'Nell',
      studio: 'Test Loft',
      role: 'student',
      signInName: '',
    });
    const short = await anybody.post(link).send({ signInName: 'nell', password: 'short' }).expect(422);
    expect(short.body.error.problems).toEqual([
      { field: 'password', message: 'This is too short: at least 10 characters.' },
    ]);
    const taken = await anybody.post(link).send({ signInName: 'INES', password: 'long-enough-1' }).expect(422);
    expect(taken.body.error.problems[0].field).toBe('signInName');
    const twice = await Promise.all(
      [1, 2].map(() => anybody.post(link).send({ signInName: 'nell', password: 'long-enough-1' })),
    );
    expect(twice.map(({ status }) => status).sort()).toEqual([200, 404]);
    await anybody.get(link).expect(404);
    await server.signIn('nell', 'long-enough-1');
    const later = await invited(await personCalled('Nell'));
    await server.app.store.rows(
      `UPDATE invitations SET expires_at = '2026-03-01' WHERE used_at IS NULL RETURNING id`,
      [],
    );
    expect((await anybody.get(later).expect(404)).body.error.message).toMatch(/used, or is over/);
    await anybody.get('/api/invitations/nonsense').expect(422);
  });

  test('only a digest of an invitation is kept, and the message in the outbox is without it', async () => {
    const link = await invited(await personCalled('Nell'));
    const token = link.split('/').at(-1) ?? '';
    const rows = await server.app.store.rows<{ all: string }>(
      `SELECT string_agg(i::text, ' ') AS all FROM invitations i`,
      [],
    );
    expect(rows[0]?.all).not.toContain(token);
    const [mail]: readonly Mail[] = (await mara.get('/api/outbox').expect(200)).body;
    expect(mail).toMatchObject({ to: 'Nell', subject: 'Your place in the book of Test Loft' });
    expect(mail?.body).not.toContain(token);
  });

  test('a changed password holds at once, and signs out everywhere else', async () => {
    const [here, elsewhere] = [await server.signIn('tomas'), await server.signIn('tomas')];
    const wrong = await here.put('/api/password').send({ old: 'no', password: 'another-horse' }).expect(422);
    expect(wrong.body.error.problems).toEqual([{ field: 'old', message: 'This is not the password that holds.' }]);
    await here.put('/api/password').send({ old: 'correct-horse', password: 'another-horse' }).expect(200);
    await here.get('/api/session').expect(200);
    await elsewhere.get('/api/counts').expect(401);
    await server.anonymous().post('/api/session').send({ name: 'tomas', password: 'correct-horse' }).expect(401);
    await server.signIn('tomas', 'another-horse');
  });
});

describe('a guardian', () => {
  test('reads the pages of their child, nobody else’s, and changes nothing', async () => {
    const { piece, request, mara: teacher } = await tellStory(server);
    const ines = await personCalled('ines');
    await enter(teacher, { role: 'guardian', name: 'Una', wards: [ines.id] });
    const link = await invited(await personCalled('Una'));
    await server.anonymous().post(link).send({ signInName: 'una', password: 'long-enough-2' }).expect(200);
    const una = await server.signIn('una', 'long-enough-2');
    expect((await una.get('/api/session').expect(200)).body.wards).toEqual([{ id: ines.id, name: 'ines' }]);
    expect((await una.get('/api/ledger').expect(200)).body.student.name).toBe('ines');
    await una.get(`/api/pieces/${piece.id}`).expect(200);
    expect((await una.get('/api/requests').expect(200)).body).toHaveLength(1);
    await una.get('/api/series').expect(200);
    await una.get('/api/lessons?days=7').expect(200);
    await una.get('/api/lessons/home').expect(200);
    const tomas = await personCalled('tomas');
    await una.get(`/api/ledger?studentId=${tomas.id}`).expect(403);
    await una.get(`/api/lessons/home?studentId=${tomas.id}`).expect(403);
    for (const path of ['students', 'studio', 'people', 'outbox', 'desk', 'requests/hours'])
      await una.get(`/api/${path}`).expect(403);
    const songs = (await una.get('/api/transcriptions').expect(200)).body;
    expect(songs.every(({ student }: { student: { id: string } }) => student.id === ines.id)).toBe(true);
    await una.get('/api/search?q=tide').expect(403);
    await una.get(`/api/lessons/of/${ines.id}`).expect(403);
    const entry = { id: crypto.randomUUID(), bpm: 60, outcome: 'clean', remark: '' };
    await una.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(403);
    await una
      .post(`/api/requests/${request.id}/state`)
      .send(moveTo(3, 'agreed', SCOPE))
      .expect(403);
    await una.post('/api/requests').send({}).expect(403);
    await una.put('/api/password').send({ old: 'long-enough-2', password: 'long-enough-3' }).expect(200);
  });

  test('loses sight when the child is no longer theirs', async () => {
    const una = await server.signIn('una', 'long-enough-3');
    const tomas = await personCalled('tomas');
    await change(mara, await personCalled('Una'), { wards: [tomas.id] }).expect(200);
    expect((await una.get('/api/ledger').expect(200)).body.student.name).toBe('tomas');
    const ines = await personCalled('ines');
    await una.get(`/api/ledger?studentId=${ines.id}`).expect(403);
  });
});

describe('a student who leaves in the middle of a series', () => {
  const saturdays = (studentId: string, time: string) => seriesOf(studentId, {}, { firstDay: '2026-03-21', time });

  test('is signed out, their lessons leave the desk, their hours are free, and all comes back with them', async () => {
    const ines = await server.signIn('ines');
    const [leaver, other] = [await personCalled('ines'), await personCalled('Nell')];
    await mara.post('/api/series').send(saturdays(leaver.id, '17:00')).expect(201);
    expect((await personCalled('ines')).lessonsToCome).toBe(4);
    const gone = await change(mara, leaver, { archived: true }).expect(200);
    expect(gone.body).toMatchObject({ person: { archived: true }, ended: [] });
    await ines.get('/api/counts').expect(401);
    const refused = await server.anonymous().post('/api/session').send({ name: 'ines', password: 'correct-horse' });
    expect([refused.status, refused.body.error.message]).toEqual([
      403,
      'You are no longer in this book; the studio can take you back into it.',
    ]);
    expect((await mara.get('/api/lessons?days=60').expect(200)).body).toEqual([]);
    expect((await mara.get('/api/students').expect(200)).body.map(({ name }: Person) => name)).not.toContain('ines');
    const invitation = await mara.post(`/api/people/${leaver.id}/invitation`).expect(422);
    expect(invitation.body.error.problems[0].message).toMatch(/put away/);
    const kept: Series = (await mara.post('/api/series').send(saturdays(other.id, '17:15')).expect(201)).body;
    const back = await change(mara, await personCalled('ines'), { archived: false }).expect(200);
    expect(back.body.ended).toEqual(['Saturdays']);
    await server.signIn('ines');
    expect((await mara.get('/api/lessons?days=60').expect(200)).body).toHaveLength(kept.lessons.length);
    expect((await mara.get('/api/requests').expect(200)).body).toHaveLength(1);
  });

  test('a stale change of a person is refused with the newer one', async () => {
    const person = await personCalled('Nell');
    await change(mara, person, { name: 'Nell Dray' }).expect(200);
    const stale = await change(mara, person, { name: 'Nell Grey' }).expect(409);
    expect(stale.body.error.current.name).toBe('Nell Dray');
  });

  test('on another server of the database a person put away is out at once', async () => {
    const second = await openServer(server.databaseUrl);
    const nell = await second.signIn('nell', 'long-enough-1');
    await change(mara, await personCalled('Nell Dray'), { archived: true }).expect(200);
    await nell.get('/api/counts').expect(401);
    await second.close();
  });
});
