import { afterEach, describe, expect, test } from '@jest/globals';
import { ask, Refused, Unreachable } from '../src/api/http.ts';

const plain = globalThis.fetch;
afterEach(() => void (globalThis.fetch = plain));

/** Answers the next request with a status and a body. */
function answer(status: number, body: string, type = 'application/json'): void {
  globalThis.fetch = () =>
    Promise.resolve(new Response(status === 204 ? null : body, { status, headers: { 'Content-Type': type } }));
}
const refusal = (code: string, more: object = {}) => JSON.stringify({ error: { code, message: 'Why.', ...more } });

describe('what is answered', () => {
  test('is given as it is', async () => {
    answer(200, '{"name":"Ines"}');
    expect(await ask('GET', '/session')).toEqual({ name: 'Ines' });
    answer(204, '');
    expect(await ask('DELETE', '/session')).toBeNull();
  });

  test('with one of our own refusals is that refusal', async () => {
    answer(422, refusal('invalid', { problems: [{ field: 'bpm', message: 'Too fast.' }] }));
    await expect(ask('POST', '/pieces')).rejects.toMatchObject({ status: 422, problems: [{ field: 'bpm' }] });
    answer(409, refusal('stale', { current: { version: 3 } }));
    await expect(ask('PUT', '/phrases/1')).rejects.toMatchObject({ code: 'stale', current: { version: 3 } });
    answer(500, refusal('broken', { reference: 'abc' }));
    await expect(ask('GET', '/desk')).rejects.toBeInstanceOf(Refused);
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
    await expect(ask('POST', '/pieces/1/entries', {})).rejects.toBeInstanceOf(Unreachable);
  });

  test('while the database is away is asked for again, as after a line that was cut', async () => {
    answer(503, refusal('away'));
    await expect(ask('GET', '/desk')).rejects.toThrow(new Unreachable('Why.'));
    globalThis.fetch = () => Promise.reject(new TypeError('Failed to fetch'));
    await expect(ask('GET', '/desk')).rejects.toBeInstanceOf(Unreachable);
  });
});
