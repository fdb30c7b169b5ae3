import type { Plan, PlanBody, PlanPiece } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import { openTestStudio, PHRASE, tellStory, type Browser, type TestServer } from './studio.ts';

let server: TestServer;
beforeAll(async () => void (server = await openTestStudio()));
afterAll(() => server.close());

const RULES = { cleanNeeded: 2, fallsAfter: 2, restMinutes: 10 };
const BAR = 80_640;

/** A song of two phrases with nothing planned but the first, given. */
async function songOfTwo() {
  const story = await tellStory(server);
  const second = await story.mara
    .post(`/api/sections/${story.section.id}/phrases`)
    .send({ ...PHRASE, name: 'Answer', text: '/8 7D 5D 7D 5D 7A 5A 7A - | /2 5D 7D' })
    .expect(201);
  return { ...story, second: second.body };
}

const whole = (phraseId: string) => ({ phraseId, from: 0, to: null });
const planned = (kind: PlanPiece['kind'], parts: PlanPiece['parts'], more: Partial<PlanPiece> = {}): PlanPiece => ({
  id: randomUUID(),
  kind,
  parts,
  startBpm: 60,
  targetBpm: 120,
  floorBpm: null,
  difficulty: 40,
  fixed: false,
  lesson: null,
  ...more,
});
const body = (pieces: readonly PlanPiece[], version = 1, more: Partial<PlanBody> = {}): PlanBody => ({
  version,
  learning: null,
  raising: null,
  targetPercent: 100,
  rules: RULES,
  pieces,
  ...more,
});
async function show(browser: Browser, songId: string): Promise<Plan> {
  const plan: Plan = (await browser.get(`/api/transcriptions/${songId}/plan`).expect(200)).body;
  return plan;
}
const names = ({ pieces }: Plan) => pieces.map(({ name }) => name);

describe('the plan of a song', () => {
  test('begins with what was given, is kept as a whole, and named after its phrases', async () => {
    const { mara, songId, phrase, second } = await songOfTwo();
    const first = await show(mara, songId);
    expect(first).toMatchObject({ version: 1, learning: null, targetPercent: 100, rules: RULES });
    expect(names(first)).toEqual(['Opening']);
    const pieces = [
      planned('phrase', [whole(phrase.id)]),
      planned('half', [{ phraseId: second.id, from: 0, to: BAR }]),
      planned('half', [{ phraseId: second.id, from: BAR, to: null }]),
      planned('phrase', [whole(second.id)]),
      planned('join', [whole(phrase.id), whole(second.id)]),
      planned('run', [whole(phrase.id), whole(second.id)]),
    ];
    const kept = await mara.put(`/api/transcriptions/${songId}/plan`).send(body(pieces)).expect(200);
    expect(names(kept.body)).toEqual([
      'Opening',
      'Answer, first half',
      'Answer, second half',
      'Answer',
      'Opening into Answer',
      'Opening through Answer',
    ]);
    // The phrase that was given already is the same piece as before, whatever id the plan has for it.
    expect(kept.body.pieces[0].id).toBe(first.pieces[0]?.id);
    expect(kept.body.pieces[0].assignedOn).toBe('2026-03-14');
    expect(kept.body.pieces[1].assignedOn).toBeNull();
    expect(kept.body.version).toBe(2);
  });

  test('a stale plan is refused with the newer one, and two at once do not both win', async () => {
    const { mara, songId, phrase, second } = await songOfTwo();
    const one = body([planned('phrase', [whole(phrase.id)]), planned('phrase', [whole(second.id)])]);
    const two = body([planned('phrase', [whole(second.id)])]);
    const both = await Promise.all([one, two].map((sent) => mara.put(`/api/transcriptions/${songId}/plan`).send(sent)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    const refused = both.find(({ status }) => status === 409);
    expect(refused?.body.error.current.version).toBe(2);
    const won = both[0]?.status === 200 ? ['Opening', 'Answer'] : ['Answer'];
    expect(names(await show(mara, songId))).toEqual(won);
  });

  test('what is left out is taken from the student and comes back with its lines', async () => {
    const { mara, ines, songId, phrase, second, piece } = await songOfTwo();
    await ines
      .post(`/api/pieces/${piece.id}/entries`)
      .send({ id: randomUUID(), bpm: 84, outcome: 'clean', remark: '' });
    const put = (pieces: readonly PlanPiece[], version: number) =>
      mara.put(`/api/transcriptions/${songId}/plan`).send(body(pieces, version)).expect(200);
    await put([planned('phrase', [whole(second.id)])], 1);
    expect((await ines.get('/api/ledger').expect(200)).body.pieces.map((one: { id: string }) => one.id)).not.toContain(
      piece.id,
    );
    const back = await put([planned('phrase', [whole(phrase.id)])], 2);
    expect(back.body.pieces[0]).toMatchObject({ id: piece.id, state: 'building', share: 0.7 });
  });

  test('nonsense is answered piece by piece, and nothing of it is kept', async () => {
    const { mara, songId, phrase, piece, second } = await songOfTwo();
    const other = await tellStory(server);
    const wrong = [
      planned('join', [whole(phrase.id)]),
      planned('phrase', [whole(other.phrase.id)]),
      planned('phrase', [whole(phrase.id)]),
      planned('phrase', [whole(phrase.id)]),
      planned('phrase', [whole(second.id)], { id: piece.id }),
    ];
    const answer = await mara.put(`/api/transcriptions/${songId}/plan`).send(body(wrong)).expect(422);
    expect(answer.body.error.problems.map(({ field }: { field: string }) => field)).toEqual([
      'pieces.0.parts',
      'pieces.1.parts',
      'pieces.3.parts',
      'pieces.4.id',
    ]);
    const backwards = planned('half', [{ phraseId: phrase.id, from: 10, to: 10 }], { startBpm: 130 });
    const refused = await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send(body([backwards]))
      .expect(422);
    expect(refused.body.error.problems).toEqual([
      { field: 'pieces.0.parts.0', message: 'An excerpt ends after it begins.' },
      { field: 'pieces.0.targetBpm', message: 'The start tempo must not be above the target.' },
    ]);
    expect((await show(mara, songId)).version).toBe(1);
  });

  test('is no business of students, nor of a song that is not there', async () => {
    const { ines, mara, songId } = await songOfTwo();
    await ines.get(`/api/transcriptions/${songId}/plan`).expect(403);
    await ines.put(`/api/transcriptions/${songId}/plan`).send(body([])).expect(403);
    await mara.get(`/api/transcriptions/${randomUUID()}/plan`).expect(404);
  });
});

describe('pieces of every kind', () => {
  test('a planned one is not for the student until it is given; then its music is put together', async () => {
    const { mara, ines, songId, phrase, second } = await songOfTwo();
    const join = planned('join', [whole(phrase.id), whole(second.id)]);
    const half = planned('half', [{ phraseId: second.id, from: BAR, to: null }]);
    await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send(body([join, half]))
      .expect(200);
    const post = { id: randomUUID(), bpm: 60, outcome: 'clean', remark: '' };
    await ines.post(`/api/pieces/${join.id}/entries`).send(post).expect(422);
    const give = { startBpm: 60, targetBpm: 120, version: 1, given: true, struck: false };
    await ines.put(`/api/pieces/${join.id}`).send(give).expect(403);
    await mara.put(`/api/pieces/${join.id}`).send(give).expect(200);
    await mara.put(`/api/pieces/${half.id}`).send(give).expect(200);
    const { body: shown } = await ines.get(`/api/pieces/${join.id}`).expect(200);
    expect(shown.phrase).toMatchObject({ name: 'Opening into Answer' });
    expect(shown.phrase.text).toBe('5G 7Gb1r 5G 7D | 7D 5D 7D 5D 7A 5A 7A - | /2 5D 7D');
    expect(shown.parts).toMatchObject([
      { name: 'Opening', at: 0, length: BAR / 2 },
      { name: 'Answer', at: BAR / 2, length: 2 * BAR },
    ]);
    expect((await ines.get(`/api/pieces/${half.id}`).expect(200)).body.phrase.text).toBe('/2 5D 7D');
    await ines.post(`/api/pieces/${join.id}/entries`).send(post).expect(201);
  });

  test('schools and rules of the plan hold for the ladder: fragments are posted as parts', async () => {
    const { mara, ines, songId, phrase, piece } = await songOfTwo();
    const settings = { raising: 'short fragments', rules: { ...RULES, cleanNeeded: 1 } } as const;
    await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send(body([planned('phrase', [whole(phrase.id)])], 1, settings))
      .expect(200);
    const { body: shown } = await ines.get(`/api/pieces/${piece.id}`).expect(200);
    expect(shown.next).toMatchObject({ move: 'begin', bpm: 120, percent: 25 });
    const take = { id: randomUUID(), bpm: 120, outcome: 'clean', remark: '', percent: 25 };
    const { body: posted } = await ines.post(`/api/pieces/${piece.id}/entries`).send(take).expect(201);
    expect(posted.next).toMatchObject({ move: 'up', bpm: 120, percent: 50 });
    expect(posted.standing.share).toBe(0);
  });

  test('where hard pieces were first clean is told to the song desk', async () => {
    const { mara, ines, songId, phrase, piece } = await songOfTwo();
    await mara
      .put(`/api/transcriptions/${songId}/plan`)
      .send(body([planned('phrase', [whole(phrase.id)])]))
      .expect(200);
    const post = (bpm: number) =>
      ines.post(`/api/pieces/${piece.id}/entries`).send({ id: randomUUID(), bpm, outcome: 'clean', remark: '' });
    await post(72);
    await post(90);
    const { body: song } = await mara.get(`/api/transcriptions/${songId}`).expect(200);
    expect(song.student.shown).toContainEqual({ difficulty: 40, share: 0.6 });
  });
});

describe('notes pinned to an event', () => {
  test('are seen by student and teacher, told apart, and taken out by whoever pinned them', async () => {
    const { mara, ines, phrase, piece } = await songOfTwo();
    const note = { id: randomUUID(), phraseId: phrase.id, at: 10_080, text: 'Is this a release?' };
    await ines.post(`/api/pieces/${piece.id}/pins`).send(note).expect(201);
    await ines.post(`/api/pieces/${piece.id}/pins`).send(note).expect(201);
    const watch = { id: randomUUID(), phraseId: phrase.id, at: 0, text: 'Third finger.' };
    const { body: shown } = await mara.post(`/api/pieces/${piece.id}/pins`).send(watch).expect(201);
    expect(shown.pins.map(({ text, by }: { text: string; by: { teaches: boolean } }) => [text, by.teaches])).toEqual([
      ['Third finger.', true],
      ['Is this a release?', false],
    ]);
    await ines.put(`/api/pins/${watch.id}`).send({ version: 1, struck: true }).expect(403);
    await ines.put(`/api/pins/${note.id}`).send({ version: 1, struck: true }).expect(200);
    await ines.put(`/api/pins/${note.id}`).send({ version: 1, struck: true }).expect(409);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.pins).toHaveLength(1);
  });

  test('empty ones, those elsewhere and those of others are refused', async () => {
    const { ines, phrase, piece, second } = await songOfTwo();
    const tomas = await server.signIn('tomas');
    const note = (more: object) => ({ id: randomUUID(), phraseId: phrase.id, at: 0, text: 'x', ...more });
    await ines
      .post(`/api/pieces/${piece.id}/pins`)
      .send(note({ text: '  ' }))
      .expect(422);
    await ines
      .post(`/api/pieces/${piece.id}/pins`)
      .send(note({ at: -1 }))
      .expect(422);
    await ines
      .post(`/api/pieces/${piece.id}/pins`)
      .send(note({ phraseId: second.id }))
      .expect(404);
    await tomas.post(`/api/pieces/${piece.id}/pins`).send(note({})).expect(403);
  });
});

describe('the plan of a whole song', () => {
  test('holds what 200 phrases are cut into, and tells of each piece that is wrong', async () => {
    const { mara, songId, phrase } = await tellStory(server);
    const plan: Plan = (await mara.get(`/api/transcriptions/${songId}/plan`).expect(200)).body;
    const { version, learning, raising, targetPercent, rules } = plan;
    const drill = (index: number) => ({
      id: randomUUID(),
      kind: 'drill',
      parts: [{ phraseId: phrase.id, from: index, to: index + 1 }],
      startBpm: 60,
      targetBpm: 90,
      floorBpm: null,
      difficulty: null,
      fixed: false,
      lesson: null,
    });
    const pieces = Array.from({ length: 1147 }, (_, index) => drill(index));
    const put = (body: object) => mara.put(`/api/transcriptions/${songId}/plan`).send(body);
    const kept: Plan = (await put({ version, learning, raising, targetPercent, rules, pieces }).expect(200)).body;
    expect(kept.pieces).toHaveLength(1147);
    const [one, two, ...more] = pieces;
    const wrong = [one, { ...two, startBpm: 0 }, { ...more[0], parts: [] }, one];
    const refused = await put({ version: kept.version, learning, raising, targetPercent, rules, pieces: wrong }).expect(
      422,
    );
    expect(refused.body.error.problems.map(({ field }: { field: string }) => field)).toEqual([
      'pieces.1.startBpm',
      'pieces.2.parts',
      'pieces.3',
    ]);
    expect((await mara.get(`/api/transcriptions/${songId}/plan`).expect(200)).body.pieces).toHaveLength(1147);
  });
});
