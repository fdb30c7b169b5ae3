import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { LicksFound, Phrase, Student, StudioSchools, Transcription } from '@jam-ledger/contract';
import { gatherMissingFacts } from '../src/studio/index.ts';
import {
  enterPeople,
  openTestStudio,
  PHRASE,
  SECTION,
  SET_UP,
  tellStory,
  type Browser,
  type TestServer,
} from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

const GUITAR = { frets: 24, strings: 6, scaleLengthMm: 628, tremoloArm: true, leftHanded: true, spanFrets: 5 };
const OPEN = {
  learning: null,
  raising: null,
  hearing: null,
  picking: null,
  position: null,
  first: null,
  naming: null,
  fidelity: null,
  clean: null,
};

async function studentOf(browser: Browser, name: string): Promise<Student> {
  const students: readonly Student[] = (await browser.get('/api/students').expect(200)).body;
  const found = students.find((one) => one.name === name);
  if (!found) throw new Error(`no student ${name}`);
  return found;
}

describe('guitar and hand of a student', () => {
  test('are kept with a version, and reach the song desk', async () => {
    const { mara, songId } = await tellStory(server);
    const ines = await studentOf(mara, 'ines');
    const change = { version: ines.version, guitar: GUITAR, schools: { ...OPEN, picking: 'economy' } };
    const changed = await mara.put(`/api/students/${ines.id}`).send(change).expect(200);
    expect(changed.body).toMatchObject({ version: ines.version + 1, guitar: GUITAR, schools: change.schools });
    await mara.put(`/api/students/${ines.id}`).send(change).expect(409);
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.body.student).toMatchObject({
      guitar: GUITAR,
      schools: { picking: 'economy', position: 'as recorded', first: 'where first' },
    });
  });

  test('nonsense is answered field by field', async () => {
    const mara = await server.signIn('mara');
    const { id, version } = await studentOf(mara, 'tomas');
    const wrong = { version, guitar: { ...GUITAR, frets: 99, spanFrets: 0 }, schools: { ...OPEN, first: 'never' } };
    const answer = await mara.put(`/api/students/${id}`).send(wrong).expect(422);
    expect(answer.body.error.problems.map(({ field }: { field: string }) => field)).toEqual([
      'guitar.frets',
      'guitar.spanFrets',
      'schools.first',
    ]);
  });

  test('are no business of students, nor of another studio, and only students have them', async () => {
    const [ines, mara] = [await server.signIn('ines'), await server.signIn('mara')];
    const { id, version } = await studentOf(mara, 'tomas');
    const change = { version, guitar: GUITAR, schools: OPEN };
    await ines.get('/api/students').expect(403);
    await ines.put(`/api/students/${id}`).send(change).expect(403);
    const me = await mara.get('/api/session').expect(200);
    await mara.put(`/api/students/${me.body.id}`).send(change).expect(404);
    await enterPeople(server.app.store, 'Other Loft', ['otto']);
    const otto = await server.signIn('otto');
    await otto.put(`/api/students/${id}`).send(change).expect(404);
  });
});

describe('how the studio teaches', () => {
  test('is decided by the owner alone, and holds where a student has no school of their own', async () => {
    const [odile, mara] = [await server.signIn('odile'), await server.signIn('mara')];
    const before = await mara.get('/api/studio').expect(200);
    expect(before.body).toMatchObject({
      picking: 'the player’s choice',
      position: 'as recorded',
      first: 'where first',
    });
    expect(before.body.workMinutes).toBe(300);
    const change = { ...before.body, position: 'one box', first: 'why first', workMinutes: 480 };
    await mara.put('/api/studio').send(change).expect(403);
    const schools: StudioSchools = before.body;
    const changed = await odile.put('/api/studio').send(change).expect(200);
    expect(changed.body).toMatchObject({ position: 'one box', workMinutes: 480, version: schools.version + 1 });
    const never = { ...change, version: schools.version + 1, workMinutes: -1 };
    await odile.put('/api/studio').send(never).expect(422);
    await odile.put('/api/studio').send(change).expect(409);
    const { songId } = await tellStory(server);
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.body.student.schools).toMatchObject({ position: 'one box', first: 'why first' });
    await odile
      .put('/api/studio')
      .send({ ...before.body, version: changed.body.version })
      .expect(200);
  });
});

describe('licks', () => {
  let songs = 0;
  async function song() {
    const title = `Licks here ${(songs += 1)}.`;
    const { mara, songId } = await tellStory(server);
    const setUp = (change: object, version: number) =>
      mara
        .put(`/api/transcriptions/${songId}`)
        .send({ ...SET_UP, ...change, version })
        .expect(200);
    const { version } = (await setUp({ title, key: 'A' }, 1)).body;
    const section = await mara
      .post(`/api/transcriptions/${songId}/sections`)
      .send({ ...SECTION, label: '9Z' })
      .expect(201);
    const add = async (name: string, text: string): Promise<Phrase> => {
      const answer = await mara
        .post(`/api/sections/${section.body.id}/phrases`)
        .send({ ...PHRASE, name, text })
        .expect(201);
      const row: Phrase = answer.body;
      return row;
    };
    const find = async (query: Record<string, string>): Promise<readonly string[]> => {
      const found: LicksFound = (
        await mara
          .get('/api/licks')
          .query({ words: title.toUpperCase(), ...query })
          .expect(200)
      ).body;
      return found.licks.map(({ name }) => name).filter((name) => name !== 'Opening');
    };
    return { mara, title, add, find, setUp, version };
  }

  test('are found by technique, chord, degrees, shape, steps, place and tempo', async () => {
    const { title, add, find, setUp, version } = await song();
    await add('low', ':A7 /8 5G 7Gb1 5B 8B');
    await add('high', ':D7 /8 17G 19G 17B 20B');
    await add('other', ':A7 /8 5E 8E 5A 7A');
    expect(await find({ technique: 'whole-step bend' })).toEqual(['low']);
    expect(await find({ chord: 'D7' })).toEqual(['high']);
    // The bend sounds as what it is bent to.
    expect(await find({ degrees: 'b3 5 5 b7' })).toEqual(['low']);
    expect(await find({ degrees: '3 4 5' })).toEqual([]);
    expect((await find({ shape: '0,0 0,2 1,0 1,3' })).toSorted()).toEqual(['high', 'low']);
    expect(await find({ steps: '2 2 3' })).toEqual(['high']);
    expect(await find({ steps: '4 0 3' })).toEqual(['low']);
    expect(await find({ lowestFret: '12' })).toEqual(['high']);
    expect((await find({ highestFret: '8' })).toSorted()).toEqual(['low', 'other']);
    expect(await find({ fastest: '80' })).toEqual([]);
    await setUp({ title, tempo: 70 }, version);
    expect(await find({ fastest: '80' })).toHaveLength(3);
  });

  test('are found by words of advice and by notes about the rig', async () => {
    const { title, add, find, setUp, version } = await song();
    await add('jumping', '/8 "watch the JUMP here" 5G 17G # never said');
    await add('plain', '/8 5G 7G');
    const note = `${title} wah half open`;
    await setUp({ title, rig: [{ fromSeconds: 0, toSeconds: null, note }] }, version);
    expect(await find({ words: 'the jump' })).toContain('jumping');
    expect(await find({ words: 'never said' })).not.toContain('jumping');
    expect((await find({ words: 'WAH half' })).toSorted()).toEqual(['jumping', 'plain']);
  });

  test('a changed phrase is found by what it is now, a struck one not at all', async () => {
    const { mara, add, find } = await song();
    const { id } = await add('changing', '/8 5G 7G 5B');
    const change = { ...PHRASE, name: 'changing', text: '/8 5G h7 5B', version: 1, struck: false };
    await mara.put(`/api/phrases/${id}`).send(change).expect(200);
    expect(await find({ technique: 'hammer-on', words: 'changing' })).toEqual(['changing']);
    await mara
      .put(`/api/phrases/${id}`)
      .send({ ...change, version: 2, struck: true })
      .expect(200);
    expect(await find({ technique: 'hammer-on', words: 'changing' })).toEqual([]);
  });

  test('more like this, in another key and place, with what it is in words', async () => {
    const { mara, add } = await song();
    const text = '/8 5G 7G 5B 8B 5e 8e 5e 8B';
    const { id } = await add('model', text);
    await add('two up', '/8 7G 9G 7B 10B 7e 10e 7e 10B');
    await add('one differs', '/8 9G 11G 9B 12B 9e 12e 9e 9B');
    await add('nothing like it', '/8 3E 3A 5A 2D 0G 1B 3B 0e');
    const found: LicksFound = (await mara.get('/api/licks').query({ like: id }).expect(200)).body;
    const says = new Map(found.licks.map(({ name, likeness }) => [name, likeness]));
    expect(says.get('two up')).toBe('it, moved up 2 frets.');
    expect(says.get('one differs')).toContain('but for bar 1, beat 4');
    expect(says.has('nothing like it')).toBe(false);
  });

  test('students do not search the studio, and nonsense is refused', async () => {
    const [ines, mara] = [await server.signIn('ines'), await server.signIn('mara')];
    await ines.get('/api/licks').expect(403);
    await mara.get('/api/licks').query({ technique: 'juggling', degrees: 'x', lowestFret: '-3' }).expect(422);
    await mara.get('/api/licks').query({ like: '7d2f0b4e-6a55-4c1b-9a59-0a6f7f6d2f10' }).expect(404);
  });

  test('what had no facts yet is gathered', async () => {
    const { add, find } = await song();
    const { id } = await add('forgotten', '/8 5G p3 5B 7B');
    await server.app.store.phraseFacts.destroy({ where: { id } });
    expect(await find({ words: 'forgotten' })).toEqual([]);
    expect(await gatherMissingFacts(server.app.store)).toBeGreaterThanOrEqual(1);
    expect(await find({ words: 'forgotten', technique: 'pull-off' })).toEqual(['forgotten']);
  });
});

describe('what was made of a phrase', () => {
  test('is kept beside it as arranged, with what is different', async () => {
    const { mara, phrase } = await tellStory(server);
    const made = { name: 'Phrase, an octave lower', text: '/8 7D', reason: 'All of it an octave lower.' };
    const added = await mara.post(`/api/phrases/${phrase.id}/alternates`).send(made).expect(201);
    expect(added.body).toMatchObject({
      ...made,
      certainty: 'arranged',
      alternateOf: phrase.id,
      chosen: false,
      status: 'draft',
    });
    await mara.post(`/api/phrases/${phrase.id}/alternates`).send({ text: 'only that' }).expect(422);
  });

  test('techniques count as played once they were clean', async () => {
    const { mara, songId, phrase, piece } = await tellStory(server);
    const text = '/8 5G 7Gtr9 5B';
    await mara
      .put(`/api/phrases/${phrase.id}`)
      .send({ ...PHRASE, name: phrase.name, text, version: phrase.version, struck: false })
      .expect(200);
    const played = async () => {
      const song: Transcription = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
      return song.student.played;
    };
    expect(await played()).not.toContain('trill');
    const entry = { id: '7d2f0b4e-6a55-4c1b-9a59-0a6f7f6d2f11', bpm: 50, outcome: 'clean', remark: '' };
    await mara.post(`/api/pieces/${piece.id}/entries`).send(entry).expect(201);
    expect(await played()).toContain('trill');
  });
});
