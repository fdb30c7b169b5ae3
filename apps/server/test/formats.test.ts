import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { openTestStudio, SECTION, seriesOf, tellStory, type TestServer } from './studio.ts';

let server: TestServer;
let story: Awaited<ReturnType<typeof tellStory>>;
beforeAll(async () => {
  server = await openTestStudio();
  story = await tellStory(server);
}, 60_000);
afterAll(() => server.close());

const file = (labels: readonly string[]) => ({
  ...{ from: 'from tune.musicxml', layer: 'lead' },
  sections: labels.map((label) => ({
    ...{ label, role: 'riff', bars: 4, times: 2 },
    phrases: [
      { name: 'One', text: '/8 7G 9G' },
      { name: 'Two', text: '/4 5G' },
    ],
  })),
});

describe('what a file brings in', () => {
  test('stands behind what is there, each phrase a draft that says where it came from', async () => {
    const { mara, songId } = story;
    const added = (
      await mara
        .post(`/api/transcriptions/${songId}/brought`)
        .send(file(['X', 'Y']))
        .expect(201)
    ).body;
    const song = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
    expect(song.sections.map(({ label }: { label: string }) => label).slice(-2)).toEqual(['X', 'Y']);
    const [first, second] = added;
    // Four bars twice, at the tempo and meter of the song.
    expect(second.startSeconds - first.startSeconds).toBeCloseTo((8 * 4 * 60) / song.tempo, 1);
    expect(first).toMatchObject({ startKnown: false, barsKnown: true, times: 2 });
    expect(
      first.phrases.map(({ name, text, status, reason }: Record<string, string>) => [name, text, status, reason]),
    ).toEqual([
      ['One', '/8 7G 9G', 'draft', 'from tune.musicxml'],
      ['Two', '/4 5G', 'draft', 'from tune.musicxml'],
    ]);

    const of = (struck: boolean, rows: readonly { id: string; version: number }[]) => ({
      struck,
      sections: rows.map(({ id, version }) => ({ id, version })),
    });
    const without = (await mara.post(`/api/transcriptions/${songId}/struck`).send(of(true, added)).expect(200)).body;
    expect(without.sections.some(({ label }: { label: string }) => label === 'X')).toBe(false);
    const seen = added.map(({ id, version }: { id: string; version: number }) => ({ id, version: version + 1 }));
    const back = (await mara.post(`/api/transcriptions/${songId}/struck`).send(of(false, seen)).expect(200)).body;
    expect(back.sections.slice(-1)[0].phrases).toHaveLength(2);
    // Stale: nothing of it is done.
    await mara.post(`/api/transcriptions/${songId}/struck`).send(of(true, added)).expect(409);
    const still = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
    expect(still.sections.some(({ label }: { label: string }) => label === 'X')).toBe(true);
  });

  test('nothing half-kept: one phrase too long, and none of it comes in', async () => {
    const { mara, songId } = story;
    const before = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body.sections.length;
    const [section] = file(['Z']).sections;
    const tooLong = { ...section, phrases: [{ name: 'Long', text: '7G '.repeat(30_000) }] };
    await mara
      .post(`/api/transcriptions/${songId}/brought`)
      .send({ ...file(['Z']), sections: [section, tooLong] })
      .expect(422);
    expect((await mara.get(`/api/transcriptions/${songId}`).expect(200)).body.sections).toHaveLength(before);
  });

  test('sections of another song are not struck with these', async () => {
    const { mara, songId } = story;
    const other = await tellStory(server);
    const made = (await mara.post(`/api/transcriptions/${other.songId}/sections`).send(SECTION).expect(201)).body;
    const body = { struck: true, sections: [{ id: made.id, version: made.version }] };
    await mara.post(`/api/transcriptions/${songId}/struck`).send(body).expect(404);
  });
});

describe('the sheet of a song', () => {
  test('is open to the student it was made for, without the notes of its making', async () => {
    const { mara, ines, songId } = story;
    const sheet = (await ines.get(`/api/transcriptions/${songId}/sheet`).expect(200)).body;
    const song = (await mara.get(`/api/transcriptions/${songId}`).expect(200)).body;
    expect(sheet.sections.map(({ label }: { label: string }) => label)).toEqual(
      song.sections.map(({ label }: { label: string }) => label),
    );
    const phrases = sheet.sections.flatMap((section: { phrases: readonly { reason: string }[] }) => section.phrases);
    expect(phrases.every(({ reason }: { reason: string }) => reason === '')).toBe(true);
    await ines.get(`/api/transcriptions/${songId}`).expect(403);
    const own = (await ines.get('/api/transcriptions').expect(200)).body;
    expect(own.map(({ id }: { id: string }) => id)).toContain(songId);
  });
});

describe('lessons in one’s own calendar', () => {
  test('a secret address says when and where, no names; it can be ended, and made anew', async () => {
    const { mara, ines } = story;
    const student = (await ines.get('/api/session').expect(200)).body;
    await mara.post('/api/series').send(seriesOf(student.id)).expect(201);
    expect((await ines.get('/api/calendar').expect(200)).body).toEqual({ madeAt: null });
    const first = (await ines.post('/api/calendar').expect(201)).body.path;
    expect(first).toMatch(/^\/api\/calendar\/[\w-]{43}\/lessons\.ics$/);
    const feed = await server
      .anonymous()
      .get(first)
      .expect(200)
      .expect('content-type', /^text\/calendar/);
    expect(feed.text).toContain('SUMMARY:Lesson\r\n');
    expect(feed.text).not.toContain(student.name);
    const of = (await mara.post('/api/calendar').expect(201)).body.path;
    expect((await server.anonymous().get(of).expect(200)).text).toContain('BEGIN:VEVENT');

    const second = (await ines.post('/api/calendar').expect(201)).body.path;
    await server.anonymous().get(first).expect(404);
    await server.anonymous().get(second).expect(200);
    await ines.delete('/api/calendar').expect(200);
    await server.anonymous().get(second).expect(404);
    await server
      .anonymous()
      .get(`/api/calendar/${'x'.repeat(43)}/lessons.ics`)
      .expect(404);
  });

  test('the address stands in no log, and its digest alone in the book', async () => {
    const { ines } = story;
    const path = (await ines.post('/api/calendar').expect(201)).body.path;
    const token = path.split('/')[3];
    const rows = await server.app.store.rows<Record<string, unknown>>('SELECT * FROM calendar_feeds', []);
    expect(JSON.stringify(rows)).not.toContain(token);
    expect(rows.length).toBeGreaterThan(1);
  });
});

describe('results as a table', () => {
  test('all of a student, and those of an older book, in ink, all or none, struck together', async () => {
    const { mara, ines, piece } = story;
    const student = (await ines.get('/api/session').expect(200)).body;
    const old = (day: string, bpm: number, pieceId = piece.id) => ({
      pieceId,
      day,
      bpm,
      outcome: 'clean',
      remark: 'old book',
    });
    const body = { studentId: student.id, entries: [old('2026-02-01', 70), old('2026-02-08', 80)] };
    const wrong = {
      ...body,
      entries: [old('2026-02-01', 70), old('2026-02-02', 70, student.id), old('2027-01-01', 70)],
    };
    const refused = await mara.post('/api/entries').send(wrong).expect(422);
    expect(refused.body.error.problems.map(({ field }: { field: string }) => field)).toEqual([
      'entries.1.pieceId',
      'entries.2.day',
    ]);
    expect((await ines.get('/api/entries').expect(200)).body).toEqual([]);

    const { ids } = (await mara.post('/api/entries').send(body).expect(201)).body;
    const rows = (await ines.get('/api/entries').expect(200)).body;
    expect(rows.map(({ day, bpm, medium, piece: name }: Record<string, unknown>) => [day, bpm, medium, name])).toEqual([
      ['2026-02-08', 80, 'ink', 'Opening'],
      ['2026-02-01', 70, 'ink', 'Opening'],
    ]);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.standing).toMatchObject({ inkBpm: 80 });
    await mara.post('/api/entries/struck').send({ ids, struck: true }).expect(200);
    expect((await ines.get('/api/entries').expect(200)).body).toEqual([]);
    expect((await ines.get(`/api/pieces/${piece.id}`).expect(200)).body.standing.inkBpm).toBeNull();
  });

  test('several students at once', async () => {
    const { mara } = story;
    const entered = (
      await mara
        .post('/api/students')
        .send({ names: ['One', 'Two'] })
        .expect(201)
    ).body;
    expect(entered.map(({ name, role }: Record<string, string>) => [name, role])).toEqual([
      ['One', 'student'],
      ['Two', 'student'],
    ]);
    await mara
      .post('/api/students')
      .send({ names: ['Three', ''] })
      .expect(422);
    const people = (await mara.get('/api/people').expect(200)).body;
    expect(people.some(({ name }: { name: string }) => name === 'Three')).toBe(false);
  });
});
