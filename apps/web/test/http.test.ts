import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { ask, Refused, Unreachable } from '../src/api/http.ts';
import { api } from '../src/api/studio.ts';

const plain = globalThis.fetch;
afterEach(() => void (globalThis.fetch = plain));

/** Answers the next request with a status and a body. */
function answer(status: number, body: string, type = 'application/json'): void {
  globalThis.fetch = () =>
    Promise.resolve(new Response(status === 204 ? null : body, { status, headers: { 'Content-Type': type } }));
}
const anything = (said: unknown): said is unknown => said !== undefined;
const askAny = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string) => ask(method, path, undefined, anything);
const refusal = (code: string, more: object = {}) => JSON.stringify({ error: { code, message: 'Why.', ...more } });

describe('what is asked', () => {
  const asked: { url: string; method: string | undefined; body: unknown }[] = [];
  function listen(body = '{}'): void {
    asked.length = 0;
    globalThis.fetch = (url, init) => {
      asked.push({ url: url instanceof Request ? url.url : url.toString(), method: init?.method, body: init?.body });
      return Promise.resolve(new Response(body));
    };
  }

  test('has what stands in its path, its query and its body', async () => {
    listen();
    await api.keepLessonNote({
      id: 'a/b',
      day: '2026-03-14',
      body: { version: 0, words: '', home: '', assigned: [], send: false },
    });
    expect(asked).toEqual([
      {
        url: '/api/lessons/of/a%2Fb/2026-03-14',
        method: 'PUT',
        body: '{"version":0,"words":"","home":"","assigned":[],"send":false}',
      },
    ]);
    listen();
    await api.licks({ query: { words: 'a & b', lowestFret: 3 } });
    expect(asked).toEqual([{ url: '/api/licks?words=a+%26+b&lowestFret=3', method: 'GET', body: undefined }]);
  });

  test('may leave a query out that says nothing', async () => {
    listen('[]');
    await api.homeNotes();
    expect(asked.map(({ url }) => url)).toEqual(['/api/lessons/home']);
  });
});

describe('what was asked ahead', () => {
  const said = () => JSON.stringify({ name: 'Ines' });
  const ahead = (answer: () => Promise<Response>) => (globalThis.askedAhead = new Map([['/api/session', answer()]]));
  const opened = (agoMs: number) => jest.spyOn(performance, 'now').mockReturnValue(agoMs);
  beforeEach(() => void opened(59_999));
  afterEach(() => {
    jest.restoreAllMocks();
    globalThis.askedAhead = undefined;
  });

  test('is taken once, then asked for again', async () => {
    answer(200, '{"name":"Mara"}');
    ahead(() => Promise.resolve(new Response(said())));
    expect(await askAny('GET', '/session')).toEqual({ name: 'Ines' });
    expect(await askAny('GET', '/session')).toEqual({ name: 'Mara' });
  });

  test('is old as soon as something is changed', async () => {
    answer(200, '{"name":"Mara"}');
    const asked = ahead(() => Promise.resolve(new Response(said())));
    await askAny('POST', '/session');
    expect(asked.size).toBe(0);
    expect(await askAny('GET', '/session')).toEqual({ name: 'Mara' });
  });

  test('is refused as it was, and asked for anew where it never arrived', async () => {
    answer(200, '{"name":"Mara"}');
    ahead(() => Promise.resolve(new Response(refusal('not-yours'), { status: 403 })));
    await expect(askAny('GET', '/session')).rejects.toThrow('Why.');
    ahead(() => Promise.reject(new Error('cut')));
    expect(await askAny('GET', '/session')).toEqual({ name: 'Mara' });
  });

  test('is not taken when the page has been open for long', async () => {
    answer(200, '{"name":"Mara"}');
    ahead(() => Promise.resolve(new Response(said())));
    opened(60_001);
    expect(await askAny('GET', '/session')).toEqual({ name: 'Mara' });
  });
});

describe('what is answered', () => {
  test('is given as it is', async () => {
    answer(200, '{"name":"Ines"}');
    expect(await askAny('GET', '/session')).toEqual({ name: 'Ines' });
    answer(204, '');
    expect(await askAny('DELETE', '/session')).toBeNull();
  });

  test('with one of our own refusals is that refusal', async () => {
    answer(422, refusal('invalid', { problems: [{ field: 'bpm', message: 'Too fast.' }] }));
    await expect(askAny('POST', '/pieces')).rejects.toMatchObject({ status: 422, problems: [{ field: 'bpm' }] });
    answer(409, refusal('stale', { current: { version: 3 } }));
    await expect(askAny('PUT', '/phrases/1')).rejects.toMatchObject({ code: 'stale', current: { version: 3 } });
    answer(500, refusal('broken', { reference: 'abc' }));
    await expect(askAny('GET', '/desk')).rejects.toBeInstanceOf(Refused);
  });

  test.each([
    [404, '<html>no such page</html>', 'text/html'],
    [502, 'Bad Gateway', 'text/plain'],
    [403, '{"error":"blocked by policy"}', 'application/json'],
    [404, '{"error":{"code":404,"message":"none"}}', 'application/json'],
    [404, '{"error":{"code":"NoSuchKey","message":"none"}}', 'application/json'],
    [401, '', 'text/plain'],
    [200, '<html>Sign in to the network of the café</html>', 'text/html'],
  ])('with %d by somebody else is a studio that cannot be reached', async (status, body, type) => {
    answer(status, body, type);
    await expect(askAny('POST', '/pieces/1/entries')).rejects.toBeInstanceOf(Unreachable);
  });

  test('with something else than was promised is by somebody else', async () => {
    answer(200, '{"name":"Ines"}');
    await expect(api.songs()).rejects.toBeInstanceOf(Unreachable);
    answer(200, '[]');
    expect(await api.songs()).toEqual([]);
    await expect(api.me()).rejects.toBeInstanceOf(Unreachable);
  });

  test('while the database is away is asked for again, as after a line that was cut', async () => {
    answer(503, refusal('away'));
    await expect(askAny('GET', '/desk')).rejects.toThrow(new Unreachable('Why.'));
    globalThis.fetch = () => Promise.reject(new TypeError('Failed to fetch'));
    await expect(askAny('GET', '/desk')).rejects.toBeInstanceOf(Unreachable);
  });
});
