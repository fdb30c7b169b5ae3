import { UNMOVED, type Move } from '@jam-ledger/core/notation';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Phrase, Transcription } from '@jam-ledger/contract';
import { openTestStudio, PHRASE, SECTION, SET_UP, tellStory, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

const FIRST = '/8 5G 7Gb1r 5G 7D';

/** A story with ways to change its phrases. */
async function tell() {
  const { mara, section, phrase, songId } = await tellStory(server);
  const put = (one: { id: string; version: number; name: string }, text: string) =>
    mara.put(`/api/phrases/${one.id}`).send({ ...PHRASE, name: one.name, text, version: one.version, struck: false });
  const add = async (text: string, name = 'Another'): Promise<Phrase> => {
    const answer = await mara
      .post(`/api/sections/${section.id}/phrases`)
      .send({ ...PHRASE, name, text })
      .expect(201);
    const row: Phrase = answer.body;
    return row;
  };
  const refer = (one: { id: string; version: number }, to: string | null, move: Partial<Move> = {}) =>
    mara.post(`/api/phrases/${one.id}/reference`).send({ version: one.version, to, move: { ...UNMOVED, ...move } });
  /** The phrases of the song as they stand, and the one with an id. */
  const phrases = async (): Promise<readonly Phrase[]> => {
    const song: Transcription = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
    return song.sections.flatMap((one) => one.phrases);
  };
  const phraseNow = async (id: string): Promise<Phrase> => {
    const found = (await phrases()).find((one) => one.id === id);
    if (!found) throw new Error(`no phrase ${id} in the song`);
    return found;
  };
  return { mara, section, phrase, songId, put, add, refer, phrases, phraseNow };
}

describe('how sure a phrase is', () => {
  test('layer, certainty and reason are kept; checked by whom, against what and when; a new text is a draft again', async () => {
    const { mara, phrase, put } = await tell();
    const said = { layer: 'rhythm', certainty: 'likely', reason: 'two guitars there' };
    const change = { ...PHRASE, ...said, name: phrase.name, text: FIRST, version: 1, struck: false };
    const changed = await mara.put(`/api/phrases/${phrase.id}`).send(change).expect(200);
    expect(changed.body).toMatchObject({ ...said, status: 'draft', checkedAt: null });
    const mark = (version: number, status: string, against: string) =>
      mara.post(`/api/phrases/${phrase.id}/mark`).send({ version, status, against });
    await mark(2, 'checked', '').expect(422);
    await mark(1, 'checked', 'the recording').expect(409);
    const checked = await mark(2, 'checked', 'the recording at half speed').expect(200);
    expect(checked.body).toMatchObject({
      status: 'checked',
      checkedBy: 'mara',
      checkedAgainst: 'the recording at half speed',
      checkedAt: '2026-03-14T10:00:00.000Z',
    });
    const again = await put(checked.body, '/8 5G 8G').expect(200);
    expect(again.body).toMatchObject({ status: 'draft', checkedBy: '', checkedAt: null });
  });
});

describe('earlier texts', () => {
  test('a text that was typed over is kept, one for a sitting, with who and when', async () => {
    const { mara, phrase, put } = await tell();
    const odile = await server.signIn('odile');
    const two = await put(phrase, '5G 6G').expect(200);
    const three = await put(two.body, '5G 6G 7G').expect(200);
    const name = { ...PHRASE, name: 'Renamed', text: '5G 6G 7G', version: three.body.version, struck: false };
    const renamed = await mara.put(`/api/phrases/${phrase.id}`).send(name).expect(200);
    const other = { ...name, text: '9G', version: renamed.body.version };
    await odile.put(`/api/phrases/${phrase.id}`).send(other).expect(200);
    const { body } = await mara.get(`/api/phrases/${phrase.id}/revisions`).expect(200);
    expect(body.map(({ text, by }: { text: string; by: string }) => [text, by])).toEqual([
      ['5G 6G 7G', 'odile'],
      [FIRST, 'mara'],
    ]);
  });
});

describe('alternates', () => {
  test('are kept beside a phrase, one of them chosen for this student', async () => {
    const { mara, phrase, phrases } = await tell();
    const other = await mara.post(`/api/phrases/${phrase.id}/alternates`).expect(201);
    expect(other.body).toMatchObject({ alternateOf: phrase.id, chosen: false, text: FIRST });
    const third = await mara.post(`/api/phrases/${other.body.id}/alternates`).expect(201);
    expect(third.body.alternateOf).toBe(phrase.id);
    await mara.post(`/api/phrases/${other.body.id}/chosen`).send({ version: 1 }).expect(200);
    const chosen = (await phrases()).filter((one) => one.chosen);
    expect(chosen.map(({ id }) => id)).toEqual([other.body.id]);
    await mara.post(`/api/phrases/${phrase.id}/chosen`).send({ version: 9 }).expect(409);
  });
});

describe('alternates struck out', () => {
  test('what is left is in use; put back, a phrase does not push it out', async () => {
    const { mara, phrase, phrases } = await tell();
    const other: Phrase = (await mara.post(`/api/phrases/${phrase.id}/alternates`).expect(201)).body;
    const strike = (version: number, struck: boolean) =>
      mara.put(`/api/phrases/${phrase.id}`).send({ ...PHRASE, name: phrase.name, text: FIRST, version, struck });
    const inUse = async () => (await phrases()).filter(({ chosen }) => chosen).map(({ id }) => id);
    await strike(1, true).expect(200);
    expect(await inUse()).toEqual([other.id]);
    await strike(2, false).expect(200);
    expect(await inUse()).toEqual([other.id]);
  });
});

describe('referring instead of repeating', () => {
  test('a phrase follows another, moved, until its own text is changed', async () => {
    const { phrase, add, refer, put, phraseNow } = await tell();
    const other = await add('7G');
    const referring = await refer(other, phrase.id, { semitones: 2 }).expect(200);
    expect(referring.body).toMatchObject({
      refersTo: phrase.id,
      move: { ...UNMOVED, semitones: 2 },
      text: '/8 7G 9Gb1r 7G 9D',
    });
    await put(phrase, '/8 5G 8G').expect(200);
    const followed = await phraseNow(other.id);
    expect(followed.text).toBe('/8 7G 10G');
    const own = await put(followed, '/8 7G 11G').expect(200);
    expect(own.body).toMatchObject({ refersTo: null, move: UNMOVED });
  });

  test('on other strings, with open strings as they are, it follows, too', async () => {
    const { phrase, add, refer, put, phraseNow } = await tell();
    await put(phrase, '/8 0E 5D 7D 7G').expect(200);
    const other = await add('7G');
    const move = { semitones: 5, strings: 1, openStays: true };
    expect((await refer(other, phrase.id, move).expect(200)).body).toMatchObject({ move, text: '/8 0E 5G 7G 8B' });
    await put(await phraseNow(phrase.id), '/8 0E 7D 9G').expect(200);
    expect((await phraseNow(other.id)).text).toBe('/8 0E 7G 10B');
    // Moved so, it would lie beyond the thinnest string.
    await put(await phraseNow(phrase.id), '/8 5e').expect(200);
    expect(await phraseNow(other.id)).toMatchObject({ refersTo: null, move: UNMOVED, text: '/8 0E 7G 10B' });
  });

  test('never in a circle, nor off the neck, nor to another song', async () => {
    const { phrase, add, refer } = await tell();
    const stranger = (await tell()).phrase;
    const other = await add('7G');
    const referring = (await refer(other, phrase.id).expect(200)).body;
    const refused = await refer(phrase, other.id).expect(422);
    expect(refused.body.error.problems).toEqual([
      {
        field: 'to',
        message: 'These phrases would refer to each other in a circle; refer to one that is written out.',
      },
    ]);
    await refer(phrase, phrase.id).expect(422);
    await refer(await add('3G'), referring.id).expect(422);
    await refer(await add('3G'), stranger.id).expect(422);
    const off = await refer(await add('3G'), phrase.id, { semitones: -9 }).expect(422);
    expect(off.body.error.problems[0].message).toBe('Moved 9 frets lower, some of it would leave the neck.');
  });

  test('a phrase that could not follow off the neck stands for itself from then on', async () => {
    const { phrase, add, refer, put, phraseNow } = await tell();
    const other = (await refer(await add('7G'), phrase.id, { semitones: -3 }).expect(200)).body;
    await put(phrase, '1G').expect(200);
    const left = await phraseNow(other.id);
    expect(left).toMatchObject({ refersTo: null, text: '/8 2G 4Gb1r 2G 4D' });
  });
});

describe('the set-up and the form', () => {
  test('all of it is kept: own tuning, second key, changes, rig, repeats, passes, jump', async () => {
    const { mara, section, songId } = await tell();
    const { version } = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
    const setUp = {
      ...SET_UP,
      tuning: 'B1 E2 A2 D3 G3 B3 E4',
      secondKey: 'E minor',
      feel: 'shuffle',
      changes: [{ atSeconds: 69, tempo: 96, meter: '3/4', key: 'B minor' }],
      rig: [{ fromSeconds: 0, toSeconds: null, note: 'neck pickup' }],
      songSeconds: 200,
      pitchWay: 'shift the playback',
      studentLayer: 'rhythm',
    };
    const changed = await mara
      .put(`/api/transcriptions/${songId}`)
      .send({ ...setUp, version })
      .expect(200);
    expect(changed.body).toMatchObject(setUp);
    const form = {
      ...SECTION,
      role: 'the loud bit',
      times: 4,
      open: true,
      passes: [{ pass: 'last', change: 'stops on the power chord', bars: 3 }],
      jump: { to: section.id, times: 2 },
    };
    const put = await mara
      .put(`/api/sections/${section.id}`)
      .send({ ...form, version: 1, struck: false })
      .expect(200);
    expect(put.body).toMatchObject(form);
  });

  test('two people at one section: the later is refused with what the first kept', async () => {
    const { mara, section } = await tell();
    const put = (bars: number) =>
      mara.put(`/api/sections/${section.id}`).send({ ...SECTION, bars, version: 1, struck: false });
    await put(8).expect(200);
    const late = await put(6).expect(409);
    expect(late.body.error.current).toMatchObject({ bars: 8, version: 2 });
  });
});

describe('a section that comes again', () => {
  test('is laid out like the first, and its phrases follow those of the first', async () => {
    const { mara, section, phrase, add, put, songId } = await tell();
    const second = await add('7G 9G');
    const again = await mara
      .post(`/api/sections/${section.id}/again`)
      .send({ startSeconds: 61, startKnown: false })
      .expect(201);
    expect(again.body).toMatchObject({
      ...{ label: section.label, role: section.role, bars: section.bars, startSeconds: 61, startKnown: false },
      phrases: [
        { name: phrase.name, text: FIRST, refersTo: phrase.id, status: 'draft' },
        { text: '7G 9G', refersTo: second.id },
      ],
    });
    await put(phrase, '/8 3G').expect(200);
    const { body } = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    const texts = body.sections.flatMap((one: { phrases: readonly Phrase[] }) => one.phrases.map(({ text }) => text));
    expect(texts.filter((text: string) => text === '/8 3G')).toHaveLength(2);
    // Once more refers to the first as well, never to what refers.
    const third = await mara
      .post(`/api/sections/${again.body.id}/again`)
      .send({ startSeconds: 90, startKnown: true })
      .expect(201);
    expect(third.body.phrases[0].refersTo).toBe(phrase.id);
  });

  test('what is only supposed to start somewhere goes along with what stands before it', async () => {
    const { mara, section, songId } = await tell();
    const lay = (label: string, startSeconds: number, startKnown: boolean) =>
      mara
        .post(`/api/transcriptions/${songId}/sections`)
        .send({ ...SECTION, label, startSeconds, startKnown })
        .expect(201);
    await lay('1B', 30, false);
    await lay('1C', 50, true);
    await lay('1D', 60, false);
    const { phrases: _p, id, version, ...body } = section;
    await mara
      .put(`/api/sections/${id}`)
      .send({ ...body, startSeconds: 27, version })
      .expect(200);
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(
      song.body.sections.map((one: { label: string; startSeconds: number }) => [one.label, one.startSeconds]),
    ).toEqual([
      [section.label, 27],
      ['1B', 40],
      ['1C', 50],
      ['1D', 60],
    ]);
  });
});

describe('another guitar from a section on', () => {
  test('is what its phrases are read and practised on', async () => {
    const { mara, section, phrase, songId } = await tell();
    const plan = await mara.get(`/api/transcriptions/${songId}/plan`).expect(200);
    const piece = plan.body.pieces.find(
      ({ parts }: { parts: readonly { phraseId: string }[] }) => parts[0]?.phraseId === phrase.id,
    );
    const { phrases: _p, id, version, ...body } = section;
    await mara
      .put(`/api/sections/${id}`)
      .send({ ...body, tuning: 'drop D', capo: 2, version })
      .expect(200);
    const shown = await mara.get(`/api/pieces/${piece.id}`).expect(200);
    expect(shown.body.song).toMatchObject({ tuning: 'drop D', capo: 2 });
    const refused = await mara
      .put(`/api/sections/${id}`)
      .send({ ...body, tuning: 'no tuning', version })
      .expect(422);
    expect(JSON.stringify(refused.body)).toContain('"field":"tuning"');
  });
});

describe('places that a text leaves open', () => {
  test('are written in as a piece of it is given, and do not move any more', async () => {
    const { mara, add, phraseNow, songId } = await tell();
    const open = await add("/8 :A7 ^3 'E 7?");
    expect((await phraseNow(open.id)).text).toBe("/8 :A7 ^3 'E 7?");
    await mara.post('/api/pieces').send({ phraseId: open.id, startBpm: 60, targetBpm: 120 }).expect(201);
    const given = await phraseNow(open.id);
    expect(given.text).toMatch(/^\/8 :A7 \d+[EADGBe] \d+[EADGBe] 7[EADGBe]$/);
    const revisions = await mara.get(`/api/phrases/${open.id}/revisions`).expect(200);
    expect(revisions.body.map(({ text }: { text: string }) => text)).toEqual(["/8 :A7 ^3 'E 7?"]);
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.body.sections[0].phrases).toContainEqual(expect.objectContaining({ id: open.id, text: given.text }));
  });

  test('of a phrase that refers to another, where it is written', async () => {
    const { mara, add, refer, phraseNow } = await tell();
    const first = await add("'F# 'A");
    const second = await add('5G');
    await refer(second, first.id).expect(200);
    await mara.post('/api/pieces').send({ phraseId: second.id, startBpm: 60, targetBpm: 120 }).expect(201);
    const [one, other] = [await phraseNow(first.id), await phraseNow(second.id)];
    expect(one.text).toMatch(/^\d+\w \d+\w$/);
    expect(other).toMatchObject({ text: one.text, refersTo: first.id });
  });

  test('by feel, a phrase alone says that only the order of its notes is known', async () => {
    const { mara, songId, phrase } = await tell();
    const song = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    await mara
      .put(`/api/transcriptions/${songId}`)
      .send({ ...SET_UP, rhythm: 'by feel', tempoKnown: false, version: song.body.version })
      .expect(200);
    const read = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(read.body).toMatchObject({ rhythm: 'by feel', tempoKnown: false });
    const licks = await mara.get('/api/licks?words=Opening').expect(200);
    const lick = licks.body.licks.find((one: { phraseId: string }) => one.phraseId === phrase.id);
    expect(lick.text).toMatch(/^\/8 /);
  });
});
