import { mkdtemp, readdir, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { migrate } from '../src/store/index.ts';
import { freePort, freshDatabase } from '../../../tools/cluster.ts';
import { enterPeople, openServer, tellStory, type TestServer } from './studio.ts';

let folder: string;
let server: TestServer;
let metricsPort: number;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-ledger-log-'));
  const databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  metricsPort = await freePort();
  server = await openServer(databaseUrl, { logFolder: folder, logLevel: 'info', metricsPort });
  await enterPeople(server.app.store, 'Test Loft', ['mara', 'ines', 'odile']);
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

async function logged(): Promise<string> {
  const files = await readdir(folder);
  return (await Promise.all(files.map((file) => readFile(join(folder, file), 'utf8')))).join('');
}

describe('the log', () => {
  test('has every number that is told, and what broke, but nothing that was asked', async () => {
    const { ines, piece } = await tellStory(server);
    await server.app.store.rows('ALTER TABLE pins RENAME TO pins_elsewhere', []);
    const broken = await ines.get(`/api/pieces/${piece.id}`).expect(500);
    await server.app.store.rows('ALTER TABLE pins_elsewhere RENAME TO pins', []);
    const { reference } = broken.body.error;
    const line = (await logged()).split('\n').find((one) => one.includes(reference)) ?? '';
    expect(JSON.parse(line)).toMatchObject({ level: 50, reference, err: { database: { code: '42P01' } } });
    expect(line).not.toContain('SELECT');
    expect(line).toContain('showPieces');
  });

  test('has no token, no password, no name to sign in with, and no words that were looked for', async () => {
    const mara = await server.signIn('mara');
    const { body: people } = await mara.get('/api/people').expect(200);
    const ines = people.find(({ name }: { name: string }) => name === 'ines');
    const { body: link } = await mara.post(`/api/people/${ines.id}/invitation`).expect(201);
    const path: string = link.path.replace('/welcome', '/api/invitations');
    await server.anonymous().get(path).expect(200);
    await server.anonymous().post(path).send({ signInName: 'wrenfeather', password: 'short' }).expect(422);
    await server
      .anonymous()
      .post('/api/session')
      .send({ name: 'wrenfeather', password: 'marmalade-skies' })
      .expect(401);
    await mara.get('/api/search?q=heron+secret').expect(200);
    // A name that is taken is refused by the database itself.
    const twice = server.app.store.rows(`UPDATE people SET sign_in_name = 'mara' WHERE name = 'ines' RETURNING id`, []);
    await twice.catch((error: unknown) => server.app.log.error({ err: error }, 'as a server would'));
    const text = await logged();
    expect(text).toContain('/api/invitations/…');
    expect(text).toContain('people_sign_in');
    for (const secret of [path.split('/').at(-1), 'wrenfeather', 'marmalade', 'heron', 'correct-horse', '(mara)'])
      expect([secret, text.includes(secret ?? '')]).toEqual([secret, false]);
  });

  test('lies in files that nobody else reads', async () => {
    for (const file of await readdir(folder))
      expect([file, (await stat(join(folder, file))).mode & 0o077]).toEqual([file, 0]);
  });
});

test('the monitor tells how long the event loop stood still', async () => {
  const { monitor } = server.app;
  monitor.longestStretchMs();
  await pause(50);
  const until = performance.now() + 120;
  while (performance.now() < until);
  await pause(50);
  expect(monitor.longestStretchMs()).toBeGreaterThan(90);
});

test('metrics are told on a port of their own, and nowhere else', async () => {
  const metrics = await (await fetch(`http://127.0.0.1:${metricsPort}/metrics`)).text();
  expect(metrics).toMatch(/^jam_ledger_event_loop_longest_stretch_seconds [\d.e-]+$/m);
  expect(metrics).toContain('nodejs_heap_size_used_bytes');
  expect((await fetch(`http://127.0.0.1:${metricsPort}/`)).status).toBe(404);
  await server.anonymous().get('/api/metrics').expect(404);
});
