import { once } from 'node:events';
import { request, type ClientRequest, type Server } from 'node:http';
import { afterAll, afterEach, beforeAll, beforeEach, expect, test } from '@jest/globals';
import express from 'express';
import { inTurns } from '../src/http/index.ts';

/** Requests that were let in, and what each is answered by. */
let within: { readonly what: string; readonly answer: () => void; readonly begin: () => void }[] = [];
let server: Server;
let asked: ClientRequest[] = [];

beforeAll(async () => {
  const app = express();
  app.use(inTurns(), (asking, response) => {
    within.push({
      what: `${asking.headers.cookie ?? 'nobody'} ${asking.url}`,
      answer: () => void response.end('done'),
      begin: () => void response.write('a long file'),
    });
  });
  server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
});
afterAll(() => new Promise((done) => server.close(done)));
beforeEach(() => void (within = []));
afterEach(async () => {
  for (const one of asked) one.destroy();
  asked = [];
  await settled();
});

/** Asks as a browser for a path. */
function ask(
  browser: string,
  path: string,
  method = 'GET',
  more: Readonly<Record<string, string>> = {},
): ClientRequest {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const sent = request({ host: '127.0.0.1', port, path, method, headers: { Cookie: browser, ...more } });
  sent.on('error', () => undefined).on('response', (response) => void response.resume().on('error', () => undefined));
  if (more['Content-Length'] === undefined) sent.end();
  else sent.flushHeaders();
  asked.push(sent);
  return sent;
}

/** Lets everything that is on its way on loopback arrive. */
async function settled(): Promise<void> {
  for (let turn = 0; turn < 10; turn += 1) await new Promise((done) => setTimeout(done, 5));
}

/** Four requests that fill all places, and some that wait, in this order. */
async function full(...more: readonly (readonly [browser: string, path: string])[]): Promise<void> {
  for (const [browser, path] of [...[1, 2, 3, 4].map((index) => ['busy', `/${index}`] as const), ...more]) {
    ask(browser, path);
    await settled();
  }
}
const letIn = () => within.slice(4).map(({ what }) => what);

test('more than four at once wait, of each browser in order, and no browser has more than its share', async () => {
  await full(['busy', '/5'], ['busy', '/6'], ['other', '/a'], ['other', '/b']);
  expect(letIn()).toEqual([]);
  for (const { answer } of within.slice(0, 4)) {
    answer();
    await settled();
  }
  expect(letIn()).toEqual(['other /a', 'other /b', 'busy /5', 'busy /6']);
});

test('among three a place stays free for whoever comes next', async () => {
  await full(['other', '/a'], ['third', '/x'], ['busy', '/5'], ['other', '/b']);
  for (const { answer } of within.slice(0, 4)) {
    answer();
    await settled();
  }
  expect(letIn()).toEqual(['other /a', 'third /x', 'busy /5']);
  ask('fourth', '/now');
  await settled();
  expect(letIn().at(-1)).toBe('fourth /now');
  within.find(({ what }) => what === 'third /x')?.answer();
  await settled();
  expect(letIn()).toHaveLength(4);
  within.find(({ what }) => what === 'other /a')?.answer();
  await settled();
  expect(letIn().at(-1)).toBe('other /b');
});

test('a place is free as soon as an answer begins, and when a line is cut, once each', async () => {
  await full(['other', '/a'], ['other', '/b'], ['other', '/c']);
  within[0]?.begin();
  await settled();
  expect(letIn()).toEqual(['other /a']);
  within[0]?.answer();
  await settled();
  expect(letIn()).toEqual(['other /a']);
  asked[1]?.destroy();
  await settled();
  expect(letIn()).toEqual(['other /a', 'other /b']);
});

test('whoever hangs up while waiting takes no place', async () => {
  await full(['gone', '/x'], ['other', '/a']);
  asked.at(-2)?.destroy();
  await settled();
  within[0]?.answer();
  await settled();
  expect(letIn()).toEqual(['other /a']);
});

test('what changes something waits for nobody', async () => {
  await full();
  ask('other', '/kept', 'POST');
  await settled();
  expect(letIn()).toEqual(['other /kept']);
});

test('whoever promises a body and sends none takes no place', async () => {
  for (let index = 0; index < 8; index += 1) ask('slow', `/${index}`, 'GET', { 'Content-Length': '5' });
  await full();
  expect(within.map(({ what }) => what)).toEqual(expect.arrayContaining(['busy /1', 'busy /2', 'busy /3', 'busy /4']));
});
