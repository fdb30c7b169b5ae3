import type {
  Ledger,
  Mail,
  Piece,
  RequestHours,
  Series,
  SeriesBody,
  StudioReport,
  StudioSchools,
} from '@jam-ledger/contract';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { randomUUID } from 'node:crypto';
import {
  NOW,
  openServer,
  openTestStudio,
  REQUEST_SOON,
  endSeries,
  seriesOf,
  take,
  tellStory,
  type Browser,
  type TestServer,
} from './studio.ts';

let server: TestServer;
let story: Awaited<ReturnType<typeof tellStory>>;
let mara: Browser;
let odile: Browser;
let inesId: string;
beforeAll(async () => {
  server = await openTestStudio();
  story = await tellStory(server);
  mara = story.mara;
  // All that is written is given; she goes on with what is not written yet.
  await server.app.store.rows(`UPDATE requests SET state = 'in work' WHERE id = $1 RETURNING id`, [story.request.id]);
  odile = await server.signIn('odile');
  inesId = story.piece.student.id;
  await story.ines
    .post('/api/requests')
    .send({ ...REQUEST_SOON, title: 'Too Soon' })
    .expect(201);
});
afterAll(() => server.close());

const DAY = '2026-03-14';
async function begun(more: Partial<SeriesBody> = {}, rule: Partial<SeriesBody['rule']> = {}): Promise<Series> {
  const made: Series = (
    await mara
      .post('/api/series')
      .send(seriesOf(inesId, more, rule))
      .expect(201)
  ).body;
  return made;
}
const end = (series: Series) => endSeries(mara, series);
async function studio(): Promise<StudioSchools> {
  const body: StudioSchools = (await odile.get('/api/studio').expect(200)).body;
  return body;
}
describe('hours of requests', () => {
  const hours = async (): Promise<RequestHours> => {
    const body: RequestHours = (await mara.get('/api/requests/hours').expect(200)).body;
    return body;
  };
  const time = (action: string, id: string = story.request.id) =>
    mara.post(`/api/requests/${id}/work`).send({ action });
  const back = (minutes: number, column: 'started_at' | 'seen_at') =>
    server.app.store.rows(
      `UPDATE work_spans SET ${column} = '${new Date(NOW.getTime() - minutes * 60_000).toISOString()}'
        WHERE ended_at IS NULL RETURNING id`,
      [],
    );
  const spent = async () => (await hours()).works.find(({ id }) => id === story.request.id)?.spentMinutes;

  test('a timer counts while it shows life, and a forgotten one until it last did', async () => {
    await time('start').expect(200);
    await back(30, 'started_at');
    await back(2, 'seen_at');
    expect([await spent(), (await hours()).running?.requestId]).toEqual([30, story.request.id]);
    await back(20, 'seen_at');
    expect([await spent(), (await hours()).running]).toEqual([10, null]);
    await time('start').expect(200);
    expect([await spent(), (await hours()).running?.requestId]).toEqual([10, story.request.id]);
  });

  test('one timer runs a person: starting another ends the first, and two windows start one', async () => {
    const other: string = (await hours()).works.find(({ title }) => title === 'Too Soon')?.id ?? '';
    await Promise.all([time('start', other), time('start', other)]);
    const rows = await server.app.store.rows('SELECT id FROM work_spans WHERE ended_at IS NULL', []);
    expect(rows).toHaveLength(1);
    expect((await hours()).running?.requestId).toBe(other);
    await time('stop', other).expect(200);
    expect((await hours()).running).toBeNull();
    await time('nap').expect(422);
    await story.ines.post(`/api/requests/${other}/work`).send({ action: 'start' }).expect(403);
  });

  test('estimates learn from what was delivered, and what was spent is taken off', async () => {
    const before = await hours();
    const work = before.works.find(({ id }) => id === story.request.id);
    expect(work?.minutesLeft).toBe(Math.max(5, (work?.estimate.minutes ?? 0) - 10));
    const titles = ['a', 'b', 'c'];
    for (const title of titles) {
      const asked = await story.ines
        .post('/api/requests')
        .send({ ...REQUEST_SOON, title })
        .expect(201);
      await server.app.store.rows(
        `INSERT INTO work_spans (studio_id, request_id, person_id, started_at, seen_at, ended_at)
         SELECT studio_id, id, student_id, '2026-03-01T10:00:00Z', '2026-03-01T10:20:00Z', '2026-03-01T10:20:00Z'
           FROM requests WHERE id = $1 RETURNING id`,
        [asked.body.id],
      );
      await server.app.store.rows(`UPDATE requests SET state = 'delivered' WHERE id = $1 RETURNING id`, [
        asked.body.id,
      ]);
    }
    const soon = ({ works }: RequestHours) => works.find(({ title }) => title === 'Too Soon')?.estimate;
    const [plain, after] = [soon(before), soon(await hours())];
    expect([plain?.from, after?.from]).toEqual([0, 3]);
    expect(after?.minutes).toBeLessThan((plain?.minutes ?? 0) * 0.5);
    const report: StudioReport = (await odile.get('/api/studio/report').expect(200)).body;
    expect(report.work.map(({ title, minutes, estimate }) => [title, minutes, estimate.from])).toEqual([
      ['a', 20, 0],
      ['b', 20, 1],
      ['c', 20, 2],
    ]);
    await story.ines.get('/api/studio/report').expect(403);
  });

  test('a student who types a request is told its earliest day, and nothing else of the desk', async () => {
    const earliest = async (parts: number): Promise<string> => {
      const { body } = await story.ines.get(`/api/requests/earliest?parts=${parts}&blended=false`).expect(200);
      expect(Object.keys(body)).toEqual(['day']);
      return String(body.day);
    };
    const [one, many] = [await earliest(1), await earliest(12)];
    // Saturday the fourteenth and Sunday are no days of work.
    expect([one >= '2026-03-16', many >= one]).toEqual([true, true]);
    await story.ines.get('/api/requests/earliest?parts=0&blended=false').expect(422);
    await story.ines.get('/api/requests/hours').expect(403);
  });

  test('a promise is kept with its request, told home, and comes before the day wanted', async () => {
    const { version } = (await mara.get('/api/requests').expect(200)).body.find(
      ({ id }: { id: string }) => id === story.request.id,
    );
    const promise = (body: object) => mara.post(`/api/requests/${story.request.id}/promise`).send(body);
    await promise({ version, promisedFor: '2026-03-13' }).expect(422);
    const kept = await promise({ version, promisedFor: '2026-04-10' }).expect(200);
    expect(kept.body).toMatchObject({ promisedFor: '2026-04-10', wantedBy: '2026-05-01' });
    expect(kept.body.history.at(-1).note).toBe('promised for 10 April 2026');
    expect((await hours()).works.find(({ id }) => id === story.request.id)?.due).toBe('2026-04-10');
    await promise({ version, promisedFor: null }).expect(409);
  });

  test('parts handed out in lessons are due at those lessons', async () => {
    const instalments = ['2026-03-21', '2026-03-28'].map((day, index) => ({
      requestId: story.request.id,
      part: `part ${index + 1}`,
      day,
      delivered: index === 0,
    }));
    const made = await begun({ instalments });
    expect((await hours()).works.find(({ id }) => id === story.request.id)?.instalments).toEqual(['2026-03-28']);
    const foreign = seriesOf(inesId, {
      instalments: [{ requestId: randomUUID(), part: '', day: null, delivered: false }],
    });
    const refused = await mara.post('/api/series').send(foreign).expect(422);
    expect(refused.body.error.problems[0].field).toBe('instalments');
    await end(made);
  });
});

describe('holidays, zone and swaps', () => {
  const change = (before: StudioSchools, to: Partial<StudioSchools>) =>
    odile.put('/api/studio').send({ ...before, ...to });

  test('lessons of the rule leave the holidays out, those moved by hand stay, and all come back', async () => {
    const made = await begun();
    const before = await studio();
    const holidays = [{ from: '2026-03-20', to: '2026-03-29', name: 'spring' }];
    const after = (await change(before, { holidays }).expect(200)).body;
    const shut: Series = (await mara.get(`/api/series/${made.id}`).expect(200)).body;
    expect(shut.lessons.map(({ day }) => day)).toEqual([DAY, '2026-04-04']);
    expect(shut.closed).toEqual([
      { day: '2026-03-21', name: 'spring' },
      { day: '2026-03-28', name: 'spring' },
    ]);
    expect((await mara.get('/api/lessons?days=20').expect(200)).body).toHaveLength(1);
    await change(after, { holidays: [] }).expect(200);
    expect((await mara.get('/api/lessons?days=20').expect(200)).body).toHaveLength(3);
    await end(made);
  });

  test('a holiday that ends before it begins, a zone that does not exist, and another’s studio are refused', async () => {
    const before = await studio();
    const bad = await change(before, { holidays: [{ from: '2026-03-20', to: '2026-03-19', name: 'none' }] }).expect(
      422,
    );
    expect(bad.body.error.problems[0]).toEqual({
      field: 'holidays',
      message: '“none” is no stretch of days: it ends before it begins.',
    });
    const zone = await change(before, { zone: 'Europe/Averrow' }).expect(422);
    expect(zone.body.error.problems).toEqual([{ field: 'zone', message: 'There is no time zone “Europe/Averrow”.' }]);
    await mara.put('/api/studio').send(before).expect(403);
    expect((await studio()).version).toBe(before.version);
  });

  test('in another zone lessons keep their time on the wall', async () => {
    const made = await begun();
    const moved = (await change(await studio(), { zone: 'America/New_York' }).expect(200)).body;
    const [lesson] = (await mara.get(`/api/series/${made.id}`).expect(200)).body.lessons;
    expect([lesson.time, lesson.startsAt]).toEqual(['17:00', '2026-03-14T21:00:00Z']);
    await change(moved, { zone: 'Europe/Oslo' }).expect(200);
    await end(made);
  });

  test('in another zone a piece is due again by the days of that zone, on its page and in the ledger', async () => {
    const { id, targetBpm, student } = story.piece;
    await mara
      .post(`/api/pieces/${id}/entries`)
      .send(take({ bpm: targetBpm }))
      .expect(201);
    const lastDays = async () => {
      await mara.get('/api/desk').expect(200);
      const ledger: Ledger = (await mara.get(`/api/ledger?studentId=${student.id}`).expect(200)).body;
      const page: Piece = (await mara.get(`/api/pieces/${id}`).expect(200)).body;
      return [page.due?.lastDay, ledger.pieces.find((one) => one.id === id)?.due?.lastDay];
    };
    expect(await lastDays()).toEqual([DAY, DAY]);
    // Ten in the morning in Greenwich is midnight there, of the next day.
    const moved = (await change(await studio(), { zone: 'Pacific/Kiritimati' }).expect(200)).body;
    expect(await lastDays()).toEqual(['2026-03-15', '2026-03-15']);
    await change(moved, { zone: 'Europe/Oslo' }).expect(200);
    expect(await lastDays()).toEqual([DAY, DAY]);
  });

  test('two lessons of two students change places, both or neither', async () => {
    const tomas: string = (await mara.get('/api/students').expect(200)).body.find(
      ({ name }: { name: string }) => name === 'tomas',
    ).id;
    const [a, b] = [await begun(), await begun({ studentId: tomas, title: 'Sundays' }, { firstDay: '2026-03-15' })];
    const swap = (versions: readonly [number, number], lessons: readonly [string | undefined, string | undefined]) =>
      mara.post('/api/series/swap').send({
        lessons: [
          { seriesId: a.id, version: versions[0], startsAt: lessons[0] },
          { seriesId: b.id, version: versions[1], startsAt: lessons[1] },
        ],
      });
    const [first, second] = [a.lessons[1]?.startsAt, b.lessons[1]?.startsAt];
    await swap([a.version, 7], [first, second]).expect(409);
    const done: readonly Series[] = (await swap([a.version, b.version], [first, second]).expect(200)).body;
    expect(done.map(({ lessons }) => lessons[1]?.day)).toEqual(['2026-03-22', '2026-03-21']);
    const gone = await swap([a.version + 1, b.version + 1], [first, first]).expect(422);
    expect(gone.body.error.problems[0].message).toMatch(/not there any more/);
    const told: readonly Mail[] = (await mara.get('/api/outbox').expect(200)).body;
    expect(
      told
        .slice(0, 2)
        .map(({ to }) => to)
        .sort(),
    ).toEqual(['ines', 'tomas']);
    for (const one of done) await end(one);
  });
});

describe('schools', () => {
  test('a student’s own school comes before their teacher’s, and that before the studio’s', async () => {
    const shown = async (): Promise<Piece> => {
      const piece: Piece = (await story.ines.get(`/api/pieces/${story.piece.id}`).expect(200)).body;
      return piece;
    };
    expect((await shown()).raising).toBe('small even steps');
    const mine = (await mara.get('/api/studio/mine').expect(200)).body;
    await mara
      .put('/api/studio/mine')
      .send({ ...mine, schools: { ...mine.schools, raising: 'past and back', naming: 'numbers' } })
      .expect(200);
    await server.app.store.rows(
      `UPDATE people SET teacher_id = (SELECT id FROM people WHERE name = 'mara') WHERE name = 'ines' RETURNING id`,
      [],
    );
    expect(await shown()).toMatchObject({ raising: 'past and back', naming: 'numbers', fidelity: 'note for note' });
    const me = (await story.ines.get('/api/session').expect(200)).body;
    expect(me.taught).toEqual({ naming: 'numbers', fidelity: 'note for note' });
    const ines = (await mara.get('/api/students').expect(200)).body.find(({ id }: { id: string }) => id === inesId);
    const { version, guitar, schools } = ines;
    await mara
      .put(`/api/students/${inesId}`)
      .send({ version, guitar, schools: { ...schools, raising: 'small even steps' } })
      .expect(200);
    expect((await shown()).raising).toBe('small even steps');
    await story.ines.get('/api/studio/mine').expect(403);
  });
});

describe('two servers on one database', () => {
  test('under load nobody’s entry is lost, and of two changes of one row one is told of the other', async () => {
    const second = await openServer(server.databaseUrl);
    const [here, there] = [story.ines, await second.signIn('ines')];
    const ids = Array.from({ length: 60 }, () => randomUUID());
    const answers = await Promise.all(
      // Every entry is sent to both servers, as a device does that lost the first answer.
      ids.flatMap((id, index) =>
        [here, there].map((browser) =>
          browser
            .post(`/api/pieces/${story.piece.id}/entries`)
            .send({ id, bpm: 60 + (index % 30), outcome: index % 3 === 0 ? 'not-yet' : 'clean', remark: '' }),
        ),
      ),
    );
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201));
    const rows = await server.app.store.rows<{ id: string }>('SELECT id FROM entries WHERE id = ANY ($1::uuid[])', [
      ids,
    ]);
    expect(new Set(rows.map(({ id }) => id))).toEqual(new Set(ids));
    const maras = [mara, await second.signIn('mara')];
    const { version } = (await mara.get(`/api/pieces/${story.piece.id}`).expect(200)).body;
    const changes = await Promise.all(
      maras.map((browser, index) =>
        browser
          .put(`/api/pieces/${story.piece.id}`)
          .send({ startBpm: 60 + index, targetBpm: 120, version, given: true, struck: false }),
      ),
    );
    expect(changes.map(({ status }) => status).sort()).toEqual([200, 409]);
    const shown = (await mara.get(`/api/pieces/${story.piece.id}`).expect(200)).body;
    const [kept] = await server.app.store.rows<{ move: string; bpm: number }>(
      `SELECT kept -> 'next' ->> 'move' AS move, (kept -> 'next' ->> 'bpm')::int AS bpm FROM pieces WHERE id = $1`,
      [story.piece.id],
    );
    expect(kept).toEqual({ move: shown.next.move, bpm: shown.next.bpm });
    await second.close();
  });
});
