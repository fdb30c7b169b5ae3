import type { Series, SeriesBody, Student } from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { enterPeople, openTestStudio, seriesOf, type Browser, type TestServer } from './studio.ts';

let server: TestServer;
let mara: Browser;
let ids: Readonly<Record<string, string>>;
beforeAll(async () => {
  server = await openTestStudio();
  mara = await server.signIn('mara');
  const students: readonly Student[] = (await mara.get('/api/students').expect(200)).body;
  ids = Object.fromEntries(students.map(({ name, id }) => [name, id]));
});
afterAll(() => server.close());

// The studio of the tests is in Oslo and has the fourteenth of March 2026, a Saturday.
const body = (more: Partial<SeriesBody> = {}, rule: Partial<SeriesBody['rule']> = {}) =>
  seriesOf(ids['ines'] ?? '', more, rule);
const problems = (answer: { body: { error: { problems: { field: string; message: string }[] } } }) =>
  answer.body.error.problems;

async function begun(more: Partial<SeriesBody> = {}, rule: Partial<SeriesBody['rule']> = {}): Promise<Series> {
  const series: Series = (await mara.post('/api/series').send(body(more, rule)).expect(201)).body;
  return series;
}
const put = (series: Series, more: Partial<SeriesBody>, struck = false) => {
  const { studentId, title, rule, changes, goal, goalDay, instalments, version } = series;
  return mara
    .put(`/api/series/${series.id}`)
    .send({ studentId, title, rule, changes, goal, goalDay, instalments, version, struck, ...more });
};
const end = async (series: Series) => put(series, {}, true).expect(200);

describe('a series of lessons', () => {
  test('keeps its time on the wall when clocks change, and is seen by its student', async () => {
    const series = await begun();
    expect(series.lessons.map(({ day, startsAt }) => `${day} ${startsAt.slice(11, 16)}`)).toEqual([
      '2026-03-14 16:00',
      '2026-03-21 16:00',
      '2026-03-28 16:00',
      '2026-04-04 15:00',
    ]);
    const ines = await server.signIn('ines');
    const tomas = await server.signIn('tomas');
    expect((await ines.get('/api/series').expect(200)).body).toMatchObject({
      total: 1,
      series: [{ title: 'Saturdays' }],
    });
    expect((await tomas.get('/api/series').expect(200)).body).toEqual({ total: 0, series: [] });
    await ines.post('/api/series').send(body()).expect(403);
    await ines
      .put(`/api/series/${series.id}`)
      .send({ ...body(), version: 1, struck: true })
      .expect(403);
    await end(series);
  });

  test('lessons are skipped, moved and made up, each change over the version seen', async () => {
    const series = await begun();
    const changes = {
      skips: ['2026-03-21'],
      moves: [{ from: '2026-03-28', day: '2026-03-30', time: '18:15' }],
      extras: [{ day: '2026-03-17', time: '10:00' }],
    };
    const changed = await put(series, { changes }).expect(200);
    expect(changed.body.lessons.map(({ day, time }: { day: string; time: string }) => `${day} ${time}`)).toEqual([
      '2026-03-14 17:00',
      '2026-03-17 10:00',
      '2026-03-30 18:15',
      '2026-04-04 17:00',
    ]);
    await put(series, { title: 'Late' }).expect(409);
    const soon = (await mara.get('/api/lessons?days=7').expect(200)).body;
    expect(soon).toMatchObject([
      { day: '2026-03-14', time: '17:00', minutes: 45, number: 1, of: 4, student: { name: 'ines' } },
      { day: '2026-03-17', time: '10:00', why: 'extra', number: 2 },
    ]);
    await end(changed.body);
    expect((await mara.get('/api/lessons?days=7').expect(200)).body).toEqual([]);
  });

  test('lessons that overlap are refused in a sentence with the day, and both at once cannot be kept', async () => {
    const series = await begun();
    const refused = await mara
      .post('/api/series')
      .send(body({ studentId: ids['tomas'] ?? '' }, { time: '17:30' }))
      .expect(422);
    expect(problems(refused)[0]).toEqual({
      field: 'rule.time',
      message: 'On 14 March 2026, 17:30 it overlaps the lesson of ines from 17:00 to 17:45.',
    });
    // Right after it is no overlap.
    const after = await begun({ studentId: ids['tomas'] ?? '' }, { time: '17:45' });
    await end(after);
    await end(series);
    const both = await Promise.all(
      ['ines', 'tomas'].map((name) =>
        mara.post('/api/series').send(body({ studentId: ids[name] ?? '' }, { time: '12:00' })),
      ),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([201, 422]);
    const won: Series | undefined = both.find(({ status }) => status === 201)?.body;
    if (won) await end(won);
  });

  test('a lesson moved onto another of the same series is refused', async () => {
    const series = await begun();
    const changes = { skips: [], moves: [{ from: '2026-03-28', day: '2026-03-21', time: '17:30' }], extras: [] };
    expect(problems(await put(series, { changes }).expect(422))[0]?.message).toBe(
      'On 21 March 2026, 17:00 two lessons of this series overlap.',
    );
    await end(series);
  });

  test('rules that cannot be are answered at their fields', async () => {
    const wrong = async (rule: Partial<SeriesBody['rule']>) =>
      problems(await mara.post('/api/series').send(body({}, rule)).expect(422)).map(({ field }) => field);
    expect(await wrong({ count: null })).toEqual(['rule.count']);
    expect(await wrong({ until: '2026-06-01' })).toEqual(['rule.until']);
    expect(await wrong({ count: 0 })).toEqual(['rule.count']);
    expect(await wrong({ time: 'noon' })).toEqual(['rule.time']);
    expect(await wrong({ firstDay: '2026-02-30' })).toEqual(['rule.firstDay']);
    expect(await wrong({ weekdays: [0] })).toEqual(['rule.weekdays.0']);
    await mara.get('/api/lessons?days=0').expect(422);
  });

  test('a student stays, a teacher is none, and another studio’s are not there', async () => {
    const series = await begun();
    await put(series, { studentId: ids['tomas'] ?? '' }).expect(422);
    const me = (await mara.get('/api/session').expect(200)).body;
    await mara
      .post('/api/series')
      .send(body({ studentId: me.id }))
      .expect(404);
    await enterPeople(server.app.store, 'Other Loft', ['otto']);
    const otto = await server.signIn('otto');
    await otto
      .put(`/api/series/${series.id}`)
      .send({ ...body(), version: 1, struck: true })
      .expect(404);
    expect((await otto.get('/api/lessons?days=30').expect(200)).body).toEqual([]);
    await end(series);
  });

  test('one that was ended comes back with its lessons', async () => {
    const series = await begun();
    const ended = await end(series);
    expect((await mara.get('/api/series').expect(200)).body).toEqual({ total: 0, series: [] });
    const back = await put({ ...series, version: ended.body.version }, {}).expect(200);
    expect(back.body.lessons).toHaveLength(4);
    await end(back.body);
  });
});
