import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { SOUND_LIMITS } from '@jam-ledger/contract';
import { dropOldSounds } from '../src/store/index.ts';
import { soundOf, takeOf } from './inputs.ts';
import { openTestStudio, tellStory, type Browser, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

/** Bytes that are all different from their neighbours. */
function bytesOf(length: number): Buffer {
  return Buffer.from(Uint8Array.from({ length }, (_, n) => (n * 31 + (n >> 8)) % 251));
}
const send = (browser: Browser, id: string, part: number, data: Buffer) =>
  browser.put(`/api/sounds/${id}`).query({ part }).set('Content-Type', 'application/octet-stream').send(data);
const size = SOUND_LIMITS.part;
const binary = (browser: Browser, id: string) =>
  browser
    .get(`/api/sounds/${id}`)
    .buffer(true)
    .parse((response, done) => {
      const pieces: Buffer[] = [];
      response.on('data', (piece: Buffer) => pieces.push(piece));
      response.on('end', () => done(null, Buffer.concat(pieces)));
    });

describe('the recording of a song', () => {
  test('is known by name, length and digest, and is heard in ranges once all of it is here', async () => {
    const { mara, songId } = await tellStory(server);
    const whole = bytesOf(size + 1000);
    const facts = { ...soundOf(61.5), bytes: whole.length };
    expect((await mara.get(`/api/songs/${songId}/recording`).expect(200)).body).toEqual({ recording: null });
    const { recording } = (await mara.put(`/api/songs/${songId}/recording`).send(facts).expect(200)).body;
    expect(recording).toMatchObject({ ...facts, parts: 0, isKept: false });
    await mara.get(`/api/sounds/${recording.id}`).expect(404);
    await send(mara, recording.id, 1, whole.subarray(size)).expect(200);
    // The line was cut, and the first part is sent twice.
    await send(mara, recording.id, 0, whole.subarray(0, size)).expect(200);
    const { body } = await send(mara, recording.id, 0, whole.subarray(0, size)).expect(200);
    expect(body).toMatchObject({ parts: 2, isKept: true });

    const all = await binary(mara, recording.id).expect(200);
    expect(whole.equals(all.body)).toBe(true);
    expect(all.headers).toMatchObject({ 'content-type': 'audio/wav', 'accept-ranges': 'bytes' });
    const some = await binary(mara, recording.id)
      .set('Range', `bytes=${size - 10}-${size + 9}`)
      .expect(206);
    expect(whole.subarray(size - 10, size + 10).equals(some.body)).toBe(true);
    expect(some.headers['content-range']).toBe(`bytes ${size - 10}-${size + 9}/${whole.length}`);
    await mara.get(`/api/sounds/${recording.id}`).set('Range', 'bytes=9999999-').expect(416);
  });

  test('that is another one takes the place of the first; the same one stays; one that is deleted stays known', async () => {
    const { mara, songId } = await tellStory(server);
    const path = `/api/songs/${songId}/recording`;
    const { recording } = (await mara.put(path).send(soundOf(3)).expect(200)).body;
    await send(mara, recording.id, 0, bytesOf(44)).expect(200);
    expect((await mara.put(path).send(soundOf(3)).expect(200)).body.recording.isKept).toBe(true);
    const other = { ...soundOf(4), print: 'c'.repeat(64) };
    expect((await mara.put(path).send(other).expect(200)).body.recording).toMatchObject({ ...other, parts: 0 });
    await send(mara, recording.id, 0, bytesOf(44)).expect(200);
    expect((await mara.delete(path).expect(200)).body.recording).toMatchObject({ ...other, isKept: false });
  });

  test('is nobody’s who does not work it out', async () => {
    const { mara, ines, songId } = await tellStory(server);
    const { recording } = (await mara.put(`/api/songs/${songId}/recording`).send(soundOf(3)).expect(200)).body;
    await send(mara, recording.id, 0, bytesOf(44)).expect(200);
    await ines.get(`/api/sounds/${recording.id}`).expect(403);
    await send(ines, recording.id, 0, bytesOf(44)).expect(403);
    await ines.delete(`/api/takes/${recording.id}`).expect(403);
  });

  test('of a wrong size, or more than is taken, is refused in a sentence', async () => {
    const { mara, songId } = await tellStory(server);
    const path = `/api/songs/${songId}/recording`;
    const { recording } = (await mara.put(path).send(soundOf(3)).expect(200)).body;
    for (const [part, length] of [
      [0, 43],
      [0, 45],
      [1, 44],
    ] as const) {
      const { body } = await send(mara, recording.id, part, bytesOf(length)).expect(422);
      expect(body.error.problems[0].message).toContain('send it again');
    }
    await send(mara, recording.id, 0, bytesOf(size + 1)).expect(422);
    await mara
      .put(path)
      .send({ ...soundOf(3), bytes: SOUND_LIMITS.recording.bytes + 1 })
      .expect(422);
    await mara
      .put(path)
      .send({ ...soundOf(3), print: 'nonsense' })
      .expect(422);
  });
});

describe('a take', () => {
  test('is sent once however often, heard and answered by the teacher, and read by the student', async () => {
    const { mara, ines, piece } = await tellStory(server);
    const take = takeOf(randomUUID());
    const path = `/api/pieces/${piece.id}/takes`;
    await ines.post(path).send(take).expect(201);
    await ines.post(path).send(take).expect(201);
    await send(ines, take.id, 0, bytesOf(44)).expect(200);
    const [sent, ...more] = (await mara.get(path).expect(200)).body;
    expect(more).toEqual([]);
    expect(sent).toMatchObject({ id: take.id, bpm: 78, came: take.came, isKept: true, answer: '' });
    expect(bytesOf(44).equals((await binary(mara, take.id).expect(200)).body)).toBe(true);
    await mara.put(`/api/takes/${take.id}`).send({ version: sent.version, answer: 'Hold the bend.' }).expect(200);
    await mara.put(`/api/takes/${take.id}`).send({ version: sent.version, answer: 'Twice.' }).expect(409);
    expect((await ines.get(path).expect(200)).body[0]).toMatchObject({ answer: 'Hold the bend.' });
    await ines.put(`/api/takes/${take.id}`).send({ version: 2, answer: 'Me.' }).expect(403);
  });

  test('is deleted at once by whose it is, with its bytes', async () => {
    const { ines, piece } = await tellStory(server);
    const take = takeOf(randomUUID());
    await ines.post(`/api/pieces/${piece.id}/takes`).send(take).expect(201);
    await send(ines, take.id, 0, bytesOf(44)).expect(200);
    await ines.delete(`/api/takes/${take.id}`).expect(200);
    expect((await ines.get(`/api/pieces/${piece.id}/takes`).expect(200)).body).toEqual([]);
    await ines.get(`/api/sounds/${take.id}`).expect(404);
    const left = await server.app.store.rows('SELECT 1 FROM sound_parts WHERE sound_id = $1', [take.id]);
    expect(left).toEqual([]);
  });

  test('goes after ninety days, by the calendar of the studio', async () => {
    const { ines, piece } = await tellStory(server);
    const take = takeOf(randomUUID());
    const { body } = await ines.post(`/api/pieces/${piece.id}/takes`).send(take).expect(201);
    expect(body.goesOn).toBe('2026-06-12');
    expect(await dropOldSounds(server.app.store, new Date('2026-06-11T12:00:00Z'))).toBe(0);
    expect(await dropOldSounds(server.app.store, new Date('2026-06-12T12:00:00Z'))).toBeGreaterThan(0);
    expect((await ines.get(`/api/pieces/${piece.id}/takes`).expect(200)).body).toEqual([]);
  });

  test('that is too large, or of an id that somebody else has, is refused', async () => {
    const { ines, piece, mara } = await tellStory(server);
    const path = `/api/pieces/${piece.id}/takes`;
    await ines
      .post(path)
      .send({ ...takeOf(randomUUID()), bytes: SOUND_LIMITS.take.bytes + 1 })
      .expect(422);
    await mara.post(path).send(takeOf(randomUUID())).expect(403);
    const other = await tellStory(server);
    const take = takeOf(randomUUID());
    await ines.post(path).send(take).expect(201);
    await other.ines.post(`/api/pieces/${other.piece.id}/takes`).send(take).expect(403);
  });
});
