import { mkdtemp, readdir, readFile, rm, stat, utimes } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Counts, Phrase, Piece, SongRequest, Student, StruckLine, Transcription } from '@jam-ledger/contract';
import { migrate } from '../src/store/index.ts';
import { writeMail } from '../src/studio/index.ts';
import { freshDatabase } from '../../../tools/cluster.ts';
import {
  enterPeople,
  moveTo,
  NOW,
  openServer,
  openTestStudio,
  PHRASE,
  SECTION,
  tellStory,
  type TestServer,
} from './studio.ts';

let server: TestServer;
beforeEach(async () => void (server = await openTestStudio()));
afterEach(() => server.close());

type Told = Awaited<ReturnType<typeof tellStory>>;

async function tomasOf({ mara }: Told): Promise<Student> {
  const students: readonly Student[] = (await mara.get('/api/students').expect(200)).body;
  return students.find(({ name }) => name === 'tomas') ?? fail();
}
function fail(): never {
  throw new Error('it is not there');
}

describe('a copy for another student', () => {
  test('of a song is theirs alone: form, phrases, set-up, fitted to their guitar, and nothing of how the first one does', async () => {
    const told = await tellStory(server);
    const { mara, songId } = told;
    const tomas = await tomasOf(told);
    const guitar = { ...tomas.guitar, frets: 12 };
    await mara
      .put(`/api/students/${tomas.id}`)
      .send({ version: tomas.version, guitar, schools: tomas.schools })
      .expect(200);
    await mara
      .post(`/api/sections/${told.section.id}/phrases`)
      .send({ ...PHRASE, name: 'High', text: '/8 15B 17B' })
      .expect(201);
    const body = { kind: 'song', id: songId, studentId: tomas.id, songId: null, follows: false };
    const preview = (await mara.post('/api/copies/preview').send(body).expect(200)).body;
    expect(preview.phrases.map(({ name, before, after }: Record<string, string>) => [name, before === after])).toEqual([
      ['Opening', true],
      ['High', false],
    ]);
    expect(preview.phrases[1].after).toBe('/8 10e 12e');
    expect((await mara.get('/api/transcriptions').expect(200)).body).toHaveLength(1);
    const made: Transcription = (await mara.post('/api/copies').send(body).expect(201)).body;
    expect([made.title, made.frets, made.student.name]).toEqual(['Slow Tide', 12, 'tomas']);
    expect(made.sections[0]?.phrases.map(({ text, status, refersTo }) => [text, status, refersTo])).toEqual([
      ['/8 5G 7Gb1r 5G 7D', 'draft', null],
      ['/8 10e 12e', 'draft', null],
    ]);
    const browser = await server.signIn('tomas');
    expect((await browser.get('/api/transcriptions').expect(200)).body.map(({ id }: { id: string }) => id)).toEqual([
      made.id,
    ]);
    await browser.get(`/api/transcriptions/${songId}/sheet`).expect(403);
    expect((await browser.get('/api/ledger').expect(200)).body.pieces).toEqual([]);
  });

  test('that follows has the original’s text until it is changed itself, fitted each time', async () => {
    const told = await tellStory(server);
    const { mara, phrase } = told;
    const tomas = await tomasOf(told);
    const guitar = { ...tomas.guitar, frets: 12 };
    await mara
      .put(`/api/students/${tomas.id}`)
      .send({ version: tomas.version, guitar, schools: tomas.schools })
      .expect(200);
    const body = { kind: 'phrase', id: phrase.id, studentId: tomas.id, songId: null, follows: true };
    const made: Transcription = (await mara.post('/api/copies').send(body).expect(201)).body;
    const read = async (): Promise<Phrase> => {
      const song: Transcription = (await mara.get(`/api/transcriptions/${made.id}`).expect(200)).body;
      return song.sections[0]?.phrases[0] ?? fail();
    };
    expect((await read()).refersTo).toBe(phrase.id);
    const put = (of: Pick<Phrase, 'id' | 'version'>, text: string) =>
      mara.put(`/api/phrases/${of.id}`).send({ ...PHRASE, text, version: of.version, struck: false });
    const changed = await put(phrase, '/8 15B').expect(200);
    expect(await read()).toMatchObject({ text: '/8 10e', refersTo: phrase.id });
    await put(await read(), '/8 9G').expect(200);
    await put(changed.body, '/8 3D').expect(200);
    expect(await read()).toMatchObject({ text: '/8 9G', refersTo: null });
  });

  test('goes behind what stands in a song of theirs; jumps of the form go along, alternates stay', async () => {
    const told = await tellStory(server);
    const { mara, songId, section, phrase } = told;
    const tomas = await tomasOf(told);
    await mara.post(`/api/phrases/${phrase.id}/alternates`).expect(201);
    const other = { ...SECTION, label: '2A', startSeconds: 40, jump: { to: section.id, times: 1 } };
    await mara.post(`/api/transcriptions/${songId}/sections`).send(other).expect(201);
    const into: Transcription = (
      await mara.post('/api/transcriptions').send({ studentId: tomas.id, title: 'Of his own', whose: '' }).expect(201)
    ).body;
    await mara.post(`/api/transcriptions/${into.id}/sections`).send(SECTION).expect(201);
    const copy = (more: object) =>
      mara
        .post('/api/copies')
        .send({ kind: 'song', id: songId, studentId: tomas.id, songId: into.id, follows: false, ...more });
    const made: Transcription = (await copy({}).expect(201)).body;
    expect(made.sections.map(({ label, startKnown, phrases }) => [label, startKnown, phrases.length])).toEqual([
      ['1A', true, 0],
      ['1A', false, 1],
      ['2A', false, 0],
    ]);
    expect(made.sections[2]?.jump?.to).toBe(made.sections[1]?.id);
    await copy({ songId }).expect(422);
    await copy({ kind: 'section', id: songId }).expect(404);
    const mail = (await mara.get('/api/people').expect(200)).body.find(({ name }: { name: string }) => name === 'mara');
    await copy({ studentId: mail.id, songId: null }).expect(404);
  });
});

describe('a lick of a teacher’s own', () => {
  test('stands for nobody, is found, cannot be assigned, and is copied for a student', async () => {
    const told = await tellStory(server);
    const { mara } = told;
    const tomas = await tomasOf(told);
    const written = (
      await mara.post('/api/licks').send({ name: 'Turnaround', text: '/8 5G 7G 5B', key: '' }).expect(201)
    ).body;
    const again = (await mara.post('/api/licks').send({ name: 'Other', text: '7D', key: 'A minor' }).expect(201)).body;
    expect(again.songId).toBe(written.songId);
    await mara.post('/api/licks').send({ name: 'Other', text: '7D', key: 'H flat' }).expect(422);
    const found = (await mara.get('/api/licks?words=Turnaround').expect(200)).body;
    expect(found.licks.map(({ name }: { name: string }) => name)).toEqual(['Turnaround']);
    await mara.post('/api/pieces').send({ phraseId: written.phraseId, startBpm: 60, targetBpm: 90 }).expect(422);
    const body = { kind: 'phrase', id: written.phraseId, studentId: tomas.id, songId: null, follows: false };
    const made: Transcription = (await mara.post('/api/copies').send(body).expect(201)).body;
    const [phrase] = made.sections[0]?.phrases ?? [];
    await mara.post('/api/pieces').send({ phraseId: phrase?.id, startBpm: 60, targetBpm: 90 }).expect(201);
    expect((await (await server.signIn('ines')).get('/api/transcriptions').expect(200)).body).toHaveLength(1);
  });
});

describe('a request', () => {
  const stateOf = async ({ mara, request }: Told): Promise<SongRequest> => {
    const all: readonly SongRequest[] = (await mara.get('/api/requests').expect(200)).body;
    return all.find(({ id }) => id === request.id) ?? fail();
  };

  test('goes into practice when all that is written is given, and is closed by the last that is held; what is moved back stays', async () => {
    const told = await tellStory(server);
    const { mara, ines, piece } = told;
    const given = await stateOf(told);
    expect([given.state, given.history.at(-1)?.note]).toEqual(['in practice', 'by itself: all of it is given']);
    const post = async () => {
      for (const bpm of [120, 120, 120]) {
        const body = { id: crypto.randomUUID(), bpm, outcome: 'clean', remark: '' };
        await mara.post(`/api/pieces/${piece.id}/entries`).send(body).expect(201);
      }
    };
    await post();
    // Held is what is still there after days.
    await server.app.store.rows(`UPDATE entries SET posted_at = posted_at - interval '20 days' RETURNING id`, []);
    await post();
    const shown: Piece = (await ines.get(`/api/pieces/${piece.id}`).expect(200)).body;
    expect(shown.mastery.state).toBe('held');
    const closed = await stateOf(told);
    expect([closed.state, closed.history.at(-1)?.note]).toEqual(['closed', 'by itself: all its pieces are held']);
    await mara.post(`/api/requests/${closed.id}/state`).send(moveTo(closed.version, 'in practice')).expect(200);
    await post();
    expect((await stateOf(told)).state).toBe('in practice');
  });
});

describe('what is struck out', () => {
  test('is listed and put back: of a song by teachers, results and notes by whoever wrote them', async () => {
    const told = await tellStory(server);
    const { mara, ines, songId, section, phrase, piece, request } = told;
    const entry = { id: crypto.randomUUID(), bpm: 80, outcome: 'clean', remark: '' };
    await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    await ines.put(`/api/entries/${entry.id}`).send({ version: 1, struck: true }).expect(200);
    const fresh = (await mara.get(`/api/pieces/${piece.id}`).expect(200)).body;
    const change = { startBpm: 60, targetBpm: 120, given: true, struck: true, version: fresh.version };
    await mara.put(`/api/pieces/${piece.id}`).send(change).expect(200);
    await mara
      .put(`/api/phrases/${phrase.id}`)
      .send({ ...PHRASE, name: 'Opening', text: phrase.text, version: 1, struck: true })
      .expect(200);
    await mara
      .put(`/api/sections/${section.id}`)
      .send({ ...SECTION, startSeconds: 17, version: 1, struck: true })
      .expect(200);
    const list = async (by = mara) => {
      const lines: readonly StruckLine[] = (await by.get(`/api/struck?studentId=${request.student.id}`).expect(200))
        .body;
      return lines;
    };
    expect((await list()).map(({ kind, mayPutBack }) => [kind, mayPutBack]).sort()).toEqual([
      ['phrase', true],
      ['piece', true],
      ['result', false],
      ['section', true],
    ]);
    const [own] = await list(ines);
    expect([own?.kind, own?.mayPutBack]).toEqual(['result', true]);
    const back = ({ kind, id, version }: StruckLine, by = mara) => by.post('/api/struck').send({ kind, id, version });
    for (const line of await list()) await back(line).expect(line.kind === 'result' ? 403 : 200);
    await back(own ?? fail(), ines).expect(200);
    await back(own ?? fail(), ines).expect(409);
    expect(await list()).toEqual([]);
    expect((await mara.get(`/api/transcriptions/${songId}`).expect(200)).body.sections[0].phrases).toHaveLength(1);
    await ines.get('/api/struck?studentId=7f0c2d1e-3b4a-4c5d-8e6f-0a1b2c3d4e5f').expect(403);
  });
});

describe('what is new', () => {
  test('is counted until it is looked at', async () => {
    const told = await tellStory(server);
    const { mara, ines, piece } = told;
    const counts = async (by = mara) => {
      const body: Counts = (await by.get('/api/counts').expect(200)).body;
      return body;
    };
    const entry = { id: crypto.randomUUID(), bpm: 80, outcome: 'clean', remark: 'the bend is flat' };
    await ines.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    await ines
      .post('/api/requests')
      .send({
        title: 'Another',
        whose: '',
        wanted: ['solo'],
        notWanted: [],
        rendition: 'recorded',
        guitarMeant: 'the only guitar',
        guitar: '',
        followsId: null,
        wantedBy: null,
        remarks: '',
      })
      .expect(201);
    expect(await counts()).toEqual({ desk: 1, requests: 1, practice: 0, home: 0 });
    const day = NOW.toISOString().slice(0, 10);
    await mara
      .put(`/api/lessons/of/${told.request.student.id}/${day}`)
      .send({ version: 0, words: '', home: 'Slow bends.', assigned: [], send: false })
      .expect(200);
    await server.app.store.rows(`UPDATE entries SET posted_at = posted_at - interval '1 minute' RETURNING id`, []);
    expect((await mara.post('/api/counts').send({ list: 'desk' }).expect(200)).body.desk).toBe(0);
    expect(await counts(ines)).toMatchObject({ home: 1, desk: 0 });
    await server.app.store.rows(
      `UPDATE lesson_notes SET written_at = written_at - interval '1 minute' RETURNING id`,
      [],
    );
    expect((await ines.post('/api/counts').send({ list: 'home' }).expect(200)).body.home).toBe(0);
    await mara.post('/api/counts').send({ list: 'studio' }).expect(422);
  });
});

describe('signing in', () => {
  test('from a device that is known is stopped by no stranger who guesses, and a device that guesses is stopped itself', async () => {
    const known = await server.signIn('ines');
    const stranger = server.anonymous();
    const guess = (by: typeof stranger) => by.post('/api/session').send({ name: 'ines', password: 'wrong' });
    for (let tries = 0; tries < 10; tries += 1) await guess(stranger).expect(401);
    await guess(stranger).expect(429);
    await stranger.post('/api/session').send({ name: 'ines', password: 'correct-horse' }).expect(429);
    await known.delete('/api/session').expect(204);
    await known.post('/api/session').send({ name: 'ines', password: 'correct-horse' }).expect(200);
    await known.post('/api/session').send({ name: 'tomas', password: 'correct-horse' }).expect(200);
    for (let tries = 0; tries < 10; tries += 1) await guess(known).expect(401);
    await guess(known).expect(429);
    const acts = (await (await server.signIn('odile')).get('/api/trail').expect(200)).body.lines;
    expect(acts.filter(({ act }: { act: string }) => act === 'signed in on a new device')).toHaveLength(3);
  }, 60_000);

  test('out everywhere ends every session, and the devices are strange again', async () => {
    const [one, other] = [await server.signIn('ines'), await server.signIn('ines')];
    await one.delete('/api/session/everywhere').expect(200);
    await one.get('/api/counts').expect(401);
    await other.get('/api/counts').expect(401);
    expect(await server.app.store.rows('SELECT 1 FROM devices', [])).toEqual([]);
  });
});

describe('mail', () => {
  let folder: string;
  beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'mail-'))));
  afterEach(() => rm(folder, { recursive: true, force: true }));

  test('to people with an address is written as files, once; a link only where it is to go, for a day', async () => {
    const url = await freshDatabase();
    await migrate(url);
    const other = await openServer(url, { mailFolder: folder, publicUrl: 'https://studio.example' });
    await enterPeople(other.app.store, 'Test Loft', ['mara', 'ines', 'tomas', 'odile']);
    const { mara, request } = await tellStory(other);
    const people = (await mara.get('/api/people').expect(200)).body;
    const ines = people.find(({ name }: { name: string }) => name === 'ines');
    const change = { version: ines.version, name: 'ines', wards: [], teacherId: null, archived: false };
    await mara
      .put(`/api/people/${ines.id}`)
      .send({ ...change, email: 'ines at home' })
      .expect(422);
    await mara
      .put(`/api/people/${ines.id}`)
      .send({ ...change, email: 'ines@home.example' })
      .expect(200);
    const { store } = other.app;
    const written = await writeMail(store, folder, NOW);
    expect(written).toBeGreaterThan(0);
    expect(await writeMail(store, folder, NOW)).toBe(0);
    const names = await readdir(join(folder, 'new'));
    const text = await readFile(join(folder, 'new', names[0] ?? ''), 'utf8');
    expect(text).toMatch(/^From: Test Loft <studio@jam-ledger\.invalid>$/m);
    expect(text).toMatch(/^To: ines <ines@home\.example>$/m);
    expect(text).toMatch(/^Message-ID: <[0-9a-f-]{36}@jam-ledger\.invalid>$/m);
    const { path } = (await mara.post(`/api/people/${ines.id}/invitation`).expect(201)).body;
    const [link] = (await readdir(join(folder, 'new'))).filter((name) => name.endsWith('-link.eml'));
    const file = join(folder, 'new', link ?? '');
    expect((await stat(file)).mode & 0o777).toBe(0o600);
    expect((await readFile(file, 'utf8')).replaceAll(/=\n/g, '')).toContain(`https://studio.example${path}`);
    expect(JSON.stringify((await mara.get('/api/outbox').expect(200)).body)).not.toContain(path);
    await utimes(file, new Date('2026-01-01'), new Date('2026-01-01'));
    await writeMail(store, folder, NOW);
    expect(await readdir(join(folder, 'new'))).not.toContain(link);
    expect(request.id).toBeDefined();
    await other.close();
  });
});
