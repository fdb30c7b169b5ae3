import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Ledger } from '@jam-ledger/contract';
import { readShorthand, readMeter } from '@jam-ledger/core/notation';
import { readTuning } from '@jam-ledger/core/pitch';
import { demoSignIns, enterDemoStudio } from '../src/demo/index.ts';
import { demoSongs } from '../src/demo/songs.ts';
import { migrate, openStore } from '../src/store/index.ts';
import { freshDatabase } from '../../../tools/cluster.ts';
import { NOW, openDemoStudio, type TestServer } from './studio.ts';

describe('the database', () => {
  test('goes forward, all the way back, and forward again', async () => {
    const url = await freshDatabase();
    const all = [
      '001-people',
      '002-songs',
      '003-pieces',
      '004-service',
      '005-scope',
      '006-form',
      '007-hands',
      '008-plans',
      '009-series',
      '010-house',
      '011-week',
    ];
    expect(await migrate(url)).toEqual(all);
    expect(await migrate(url, '002-songs')).toEqual(['001-people', '002-songs']);
    expect(await migrate(url, 'none')).toEqual([]);
    expect(await migrate(url)).toEqual(all);
  });

  test('two servers that start together migrate and enter the demo once', async () => {
    const url = await freshDatabase();
    await Promise.all([migrate(url), migrate(url)]);
    const stores = [openStore(url), openStore(url)];
    const entered = await Promise.all(stores.map((store) => enterDemoStudio(store, NOW)));
    expect(entered.filter((name) => name !== undefined)).toHaveLength(1);
    await Promise.all(stores.map((store) => store.close()));
  });

  test('every table of the studio carries its studio and a version', async () => {
    const url = await freshDatabase();
    await migrate(url);
    const store = openStore(url);
    const rows = await store.rows<{ table: string; columns: readonly string[] }>(
      `SELECT table_name AS table, array_agg(column_name::text) AS columns FROM information_schema.columns
        WHERE table_schema = 'public' GROUP BY table_name`,
      [],
    );
    const shared = ['studios', 'migrations', 'counted_sign_ins', 'secrets'];
    const bare = rows.filter(({ table, columns }) => !shared.includes(table) && !columns.includes('studio_id'));
    expect(bare).toEqual([]);
    const edited = rows.filter(
      ({ table }) => !['migrations', 'counted_sign_ins', 'secrets', 'sessions'].includes(table),
    );
    expect(edited.filter(({ columns }) => !columns.includes('version'))).toEqual([]);
    await store.close();
  });
});

describe('the demo studio', () => {
  let server: TestServer;
  beforeAll(async () => void (server = await openDemoStudio()));
  afterAll(() => server.close());

  test('everybody in it can sign in', async () => {
    for (const { signInName, password } of demoSignIns) await server.signIn(signInName, password);
  });

  test('its phrases add up and read without an error', () => {
    for (const { setUp, sections } of demoSongs)
      for (const { name, text } of sections.flatMap(({ phrases }) => phrases)) {
        const meter = readMeter(setUp.meter);
        const tuning = readTuning(setUp.tuning);
        const { problems } = readShorthand(text, { ...(meter && { meter }), ...(tuning && { tuning }) });
        expect([name, problems.map(({ message }) => message)]).toEqual([name, []]);
      }
  });

  test('Ines’s ledger has a held phrase and a stuck one', async () => {
    const ines = await server.signIn('ines', 'pencil-case');
    const { body } = await ines.get('/api/ledger').expect(200);
    const { pieces }: Ledger = body;
    expect(pieces.map(({ phrase, next, mastery }) => [phrase.name, next.move, mastery.state])).toEqual([
      ['Opening bend', 'join', 'held'],
      ['Opening bend into Answer', 'stay', 'building'],
      ['Answer', 'stay', 'building'],
      ['Climb to the top', 'split', 'building'],
    ]);
    expect(pieces.map(({ due }) => due !== null)).toEqual([true, false, false, false]);
    const [held, , coming, stuck] = pieces.map(({ expected }) => expected);
    expect(held).toBeNull();
    expect(coming).toMatchObject({ early: expect.any(String), wanted: { chance: expect.any(Number) } });
    expect(stuck).toEqual({ tooLittle: expect.stringContaining('Too little to say') });
  });

  test('health says which migration the database has', async () => {
    const { body } = await server.anonymous().get('/api/health').expect(200);
    expect(body).toEqual({ database: 'up', migration: '011-week' });
  });

  test('health says when the database is down', async () => {
    await server.app.store.close();
    const { body } = await server.anonymous().get('/api/health').expect(503);
    expect(body).toEqual({ database: 'down', migration: null });
  });
});
