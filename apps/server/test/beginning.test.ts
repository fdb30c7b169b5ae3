import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { freshDatabase } from '../../../tools/cluster.ts';
import { readConfig } from '../src/config.ts';
import { enterDemoStudio } from '../src/demo/index.ts';
import { migrate } from '../src/store/index.ts';
import { enterPeople, NOW, openServer, type TestServer } from './studio.ts';

const KEY = 'a-key-that-the-start-command-told';
const BODY = {
  ...{ key: KEY, studio: 'Lantern Street Guitar', zone: 'America/Halifax', name: 'Wren Aldous' },
  ...{ signInName: 'wren', password: 'lantern copper tide 42' },
};

/** A server over an empty book, or one with the demo studio. */
async function openBook({ demo = false, hasKey = true } = {}): Promise<TestServer> {
  const databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  const server = await openServer(databaseUrl, { beginKey: hasKey ? KEY : undefined });
  if (demo) await enterDemoStudio(server.app.store, NOW);
  return server;
}

describe('an empty book', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await openBook();
  });
  afterAll(() => server.close());
  const begin = (body: object) => server.anonymous().post('/api/beginning').send(body);

  test('says that a studio can be begun', async () => {
    const { body } = await server.anonymous().get('/api/beginning').expect(200);
    expect(body).toEqual({ open: true, demo: false });
  });

  test.each([
    ['key', { ...BODY, key: 'another key' }],
    ['zone', { ...BODY, zone: 'Europe/Nowhere' }],
    ['password', { ...BODY, password: 'aaaaaaaaaaaa' }],
    ['password', { ...BODY, password: 'short' }],
    ['studio', { ...BODY, studio: '   ' }],
  ])('refuses a wrong %s at its place, and begins nothing', async (field, body) => {
    const { body: answer } = await begin(body).expect(422);
    expect(answer.error.problems.map((problem: { field: string }) => problem.field)).toContain(field);
    expect((await server.anonymous().get('/api/beginning').expect(200)).body.open).toBe(true);
  });

  test('of two who begin at once, one owns the studio, is signed in, and the other is told', async () => {
    const answers = await Promise.all([begin(BODY), begin({ ...BODY, studio: 'Other', signInName: 'other' })]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 403]);
    const [won] = answers.filter(({ status }) => status === 200);
    expect(won?.body).toMatchObject({ role: 'owner', name: 'Wren Aldous', studio: { demo: false, zone: BODY.zone } });
    const browser = server.anonymous();
    await browser
      .post('/api/session')
      .send({ name: won?.body.studio.name === 'Other' ? 'other' : 'wren', password: BODY.password })
      .expect(200);
    expect((await browser.get('/api/people').expect(200)).body).toHaveLength(1);
    expect((await browser.get('/api/desk').expect(200)).status).toBe(200);
  });

  test('it is begun once; the right key opens nothing after', async () => {
    await begin({ ...BODY, signInName: 'late' }).expect(403);
    expect((await server.anonymous().get('/api/beginning').expect(200)).body).toEqual({ open: false, demo: false });
  });
});

describe('the demo studio', () => {
  test('goes with everything in it, and whoever is signed in there is signed out', async () => {
    const server = await openBook({ demo: true });
    const mara = await server.signIn('mara', 'ink-and-paper');
    expect((await mara.get('/api/session').expect(200)).body.studio.demo).toBe(true);
    const owner = server.anonymous();
    await owner.post('/api/beginning').send(BODY).expect(200);
    await mara.get('/api/counts').expect(401);
    await server.anonymous().post('/api/session').send({ name: 'mara', password: 'ink-and-paper' }).expect(401);
    expect((await owner.get('/api/transcriptions').expect(200)).body).toEqual([]);
    const { store } = server.app;
    for (const table of ['phrases', 'entries', 'lessons', 'outbox', 'requests', 'pieces'])
      expect([table, await store.rows(`SELECT id FROM ${table}`, [])]).toEqual([table, []]);
    // The next start enters no demo beside it.
    expect(await enterDemoStudio(store, NOW)).toBeUndefined();
    await server.close();
  });

  test('a wrong key leaves it as it is', async () => {
    const server = await openBook({ demo: true });
    await server
      .anonymous()
      .post('/api/beginning')
      .send({ ...BODY, key: 'guessed' })
      .expect(422);
    await server.signIn('mara', 'ink-and-paper');
    await server.close();
  });
});

test('without a key, or where a studio is somebody’s own, none can be begun', async () => {
  const keyless = await openBook({ hasKey: false });
  expect((await keyless.anonymous().get('/api/beginning').expect(200)).body).toEqual({ open: false, demo: false });
  await keyless.anonymous().post('/api/beginning').send(BODY).expect(403);
  await keyless.close();
  const owned = await openBook();
  await enterPeople(owned.app.store, 'Test Loft', ['odile']);
  await owned.anonymous().post('/api/beginning').send(BODY).expect(403);
  await owned.signIn('odile');
  await owned.close();
});

test('keys cannot be guessed by trying', async () => {
  const server = await openBook();
  const tries = [];
  for (let n = 0; n < 31; n += 1)
    tries.push(
      await server
        .anonymous()
        .post('/api/beginning')
        .send({ ...BODY, key: `k${n}` }),
    );
  expect(tries.at(-1)?.status).toBe(429);
  await server.close();
});

test('the owner renames the studio; a teacher does not', async () => {
  const server = await openBook({ hasKey: false });
  await enterPeople(server.app.store, 'Test Loft', ['odile', 'mara']);
  const [odile, mara] = [await server.signIn('odile'), await server.signIn('mara')];
  const { body: schools } = await odile.get('/api/studio').expect(200);
  await mara
    .put('/api/studio')
    .send({ ...schools, name: 'Mine' })
    .expect(403);
  await odile
    .put('/api/studio')
    .send({ ...schools, name: '' })
    .expect(422);
  await odile
    .put('/api/studio')
    .send({ ...schools, name: 'Quay Guitar' })
    .expect(200);
  expect((await mara.get('/api/session').expect(200)).body.studio.name).toBe('Quay Guitar');
  await server.close();
});

describe('behind a proxy', () => {
  test('sign-in works over TLS that ends there: the cookie is secure', async () => {
    const databaseUrl = await freshDatabase();
    await migrate(databaseUrl);
    const server = await openServer(databaseUrl, { trustedProxies: 1, secureCookie: true });
    await enterPeople(server.app.store, 'Test Loft', ['mara']);
    const answer = await server
      .anonymous()
      .post('/api/session')
      .set('X-Forwarded-Proto', 'https')
      .send({ name: 'mara', password: 'correct-horse' })
      .expect(200);
    expect(answer.headers['set-cookie']?.[0]).toMatch(/; Secure/);
    await server.close();
  });

  test('what it is told is checked at the start, in a sentence', () => {
    const env = { DATABASE_URL: 'postgres://x' };
    expect(() => readConfig({ ...env, TRUSTED_PROXIES: 'all' })).toThrow(/TRUSTED_PROXIES is not a number of proxies/);
    expect(() => readConfig({ ...env, BEGIN_KEY: 'short' })).toThrow(/BEGIN_KEY is too short/);
    expect(readConfig({ ...env, BEGIN_KEY: KEY, TRUSTED_PROXIES: '1' })).toMatchObject({
      beginKey: KEY,
      trustedProxies: 1,
    });
  });
});
