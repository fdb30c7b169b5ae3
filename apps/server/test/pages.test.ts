import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { freshDatabase } from '../../../tools/cluster.ts';
import { migrate } from '../src/store/index.ts';
import { openServer, openTestStudio, type TestServer } from './studio.ts';

const PAGE = `<!doctype html><title>Jam Ledger</title>${'<p>page</p>'.repeat(200)}`;
const SCRIPT = `console.log(${JSON.stringify('script '.repeat(300))});`;

let folder: string;
let server: TestServer;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-pages-'));
  await mkdir(join(folder, 'assets'));
  const files = [
    ['index.html', PAGE],
    ['assets/app-1.js', SCRIPT],
    ['assets/stretch.worker-1.js', SCRIPT],
    ['assets/hands.worker-x-_1.js', SCRIPT],
  ] as const;
  for (const [name, text] of files) {
    await writeFile(join(folder, name), text);
    await writeFile(join(folder, `${name}.br`), brotliCompressSync(text));
    await writeFile(join(folder, `${name}.gz`), gzipSync(text));
  }
  const databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  server = await openServer(databaseUrl, { webFolder: folder });
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true });
});

const get = (path: string, encoding: string) => server.anonymous().get(path).set('Accept-Encoding', encoding);

describe('files of the pages', () => {
  test.each([
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['identity', undefined],
  ])('travel as small as %s lets them', async (accepted, sent) => {
    const { headers } = await get('/assets/app-1.js', accepted).expect(200);
    expect([headers['content-encoding'], headers['vary']]).toEqual([sent, expect.stringMatching(/accept-encoding/i)]);
    expect(headers['content-type']).toMatch(/javascript/);
    expect(headers['cache-control']).toMatch(/immutable/);
    if (sent) expect(Number(headers['content-length'])).toBeLessThan(SCRIPT.length / 5);
  });

  test('every address that is no file is the page, never kept for long', async () => {
    const { text, headers } = await get('/songs/some-song?phrase=1', 'gzip').expect(200);
    expect(text).toBe(PAGE);
    expect(headers['content-type']).toMatch(/html/);
    expect(headers['cache-control']).not.toMatch(/immutable/);
    await get('/assets/gone-1.js', 'br').expect(404);
  });

  test('the worker that runs compiled code has its own policy, however it travels', async () => {
    for (const accepted of ['br', 'gzip', 'identity'])
      expect((await get('/assets/stretch.worker-1.js', accepted).expect(200)).headers['content-security-policy']).toBe(
        "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'",
      );
  });

  test('pages and workers carry the policy of the studio, scripts only what browsers follow of scripts', async () => {
    for (const path of ['/songs', '/assets/hands.worker-x-_1.js', '/assets/gone-1.js'])
      expect((await get(path, 'br')).headers['content-security-policy']).toMatch(
        /^default-src 'none';script-src 'self';/,
      );
    const { headers } = await get('/assets/app-1.js', 'br').expect(200);
    expect(headers).not.toHaveProperty('content-security-policy');
    expect(headers).not.toHaveProperty('x-frame-options');
    expect(headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
    });
  });
});

test('long answers of the studio travel smaller, short ones as they are', async () => {
  const studio = await openTestStudio();
  const browser = await studio.signIn('mara');
  const long = await browser.get('/api/openapi.json').set('Accept-Encoding', 'gzip').expect(200);
  expect(long.headers['content-encoding']).toBe('gzip');
  const short = await browser.get('/api/session').set('Accept-Encoding', 'gzip').expect(200);
  expect(short.headers['content-encoding']).toBeUndefined();
  await studio.close();
});
