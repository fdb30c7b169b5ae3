import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { demoSignIns } from '../src/demo/index.ts';
import { askHostile, idsOf } from './hostile.ts';
import { openDemoStudio, REQUEST, type Browser, type TestServer } from './studio.ts';

/** So often every route is asked by each kind of person; many more are asked by `npm run torture`. */
const ROUNDS = 3;
const SEED = 20_260_314;

let server: TestServer;
beforeAll(async () => void (server = await openDemoStudio()));
afterAll(() => server.close());

const passwordOf = (name: string) => demoSignIns.find(({ signInName }) => signInName === name)?.password;

describe('whatever is sent', () => {
  const names = ['odile', 'mara', 'ines', 'signe'];
  const browsers = new Map<string, Browser>();
  // Hostile requests use up how often wrong passwords may be tried, so everybody signs in first.
  beforeAll(async () => {
    for (const name of names) browsers.set(name, await server.signIn(name, passwordOf(name)));
  });

  test.each(names)('as %s never breaks anything', async (name) => {
    const ids = await idsOf(server.app.store);
    const browser = browsers.get(name) ?? server.anonymous();
    const { broken } = await askHostile(browser, { seed: SEED + name.length, rounds: ROUNDS, ids });
    expect(broken).toEqual([]);
  });

  test('by nobody never breaks anything', async () => {
    const ids = await idsOf(server.app.store);
    const { broken } = await askHostile(server.anonymous(), { seed: SEED, rounds: 2, ids });
    expect(broken).toEqual([]);
  });
});

describe('each of these broke something once', () => {
  let mara: Awaited<ReturnType<TestServer['signIn']>>;
  beforeAll(async () => void (mara = await server.signIn('mara', passwordOf('mara'))));

  test.each([['gzip'], ['br'], ['deflate'], ['nonsense']])(
    'a body that is not packed with %s as it says',
    async (encoding) => {
      const ask = mara.post('/api/requests').type('json').set('Content-Encoding', encoding).send('{}');
      expect((await ask).body.error.code).toBe('unreadable');
    },
  );

  test.each([(id: string) => `(${id})`, (id: string) => `[${id}]`, (id: string) => id.replaceAll('-', ':')])(
    'an id in other clothes',
    async (dress) => {
      const { body } = await mara.get('/api/students').expect(200);
      const { body: refused } = await mara
        .put(`/api/students/${dress(body[0].id)}`)
        .send({})
        .expect(422);
      expect(refused.error.problems).toEqual([{ field: 'id', message: 'This is not a valid id.' }]);
    },
  );

  test('a name to sign in with that is no text', async () => {
    await server
      .anonymous()
      .post('/api/session')
      .send({ name: { toString: 1 }, password: 'x' })
      .expect(422);
  });

  test.each(['\0', '\ud800', 'half \udfff of one'])('a text that cannot be kept, told at its field', async (bad) => {
    const ines = await server.signIn('ines', passwordOf('ines'));
    const { body } = await ines
      .post('/api/requests')
      .send({ ...REQUEST, wanted: ['solo', bad] })
      .expect(422);
    expect(body.error.problems.map(({ field }: { field: string }) => field)).toEqual(['wanted.1']);
  });

  test('a file that is not there, and a search for nothing', async () => {
    await mara.get('/api/search?q=%00%00').expect(422);
    await mara.get('/api/search?q=%20%20%20').expect(422);
    await mara.get('/api/nothing/at/all').expect(404);
  });
});

test('what is answered to one person lies in no cache', async () => {
  const answers = [server.anonymous().get('/api/session'), server.anonymous().get('/api/nothing')];
  for (const { headers } of await Promise.all(answers)) expect(headers['cache-control']).toBe('no-store');
});
