import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Ledger } from '@jam-ledger/contract';
import { readShorthand, readMeter } from '@jam-ledger/core/notation';
import { readTuning } from '@jam-ledger/core/pitch';
import { demoSignIns, enterDemoStudio } from '../src/demo/index.ts';
import { demoSongs } from '../src/demo/songs.ts';
import { migrate, MigrationRefused, openStore, PREPARED, type Store } from '../src/store/index.ts';
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
      '012-trust',
      '013-words',
      '014-positions',
      '015-moves',
      '016-second-edition',
      '017-formats',
      '018-own-studio',
      '019-safe-book',
      '020-sounds',
    ];
    expect(await migrate(url)).toEqual(all);
    expect(await migrate(url, { back: '002-songs' })).toEqual(['001-people', '002-songs']);
    expect(await migrate(url, { back: 'none' })).toEqual([]);
    expect(await migrate(url)).toEqual(all);
  });

  test('a way back to a migration that does not exist changes nothing', async () => {
    const url = await freshDatabase();
    const all = await migrate(url);
    await expect(migrate(url, { back: '002-song' })).rejects.toThrow('There is no migration “002-song”');
    expect(await migrate(url)).toEqual(all);
  });

  test('a migration is done with its record, or not at all', async () => {
    const url = await freshDatabase();
    await migrate(url);
    const before = await migrate(url, { back: '011-week' });
    const store = openStore(url);
    // In the way of the last thing but one that the next migration does.
    await store.rows('CREATE TABLE one_phrase_a_place (id integer)', []);
    await expect(migrate(url)).rejects.toThrow();
    const columns = `SELECT 1 FROM information_schema.columns WHERE table_name = 'entries' AND column_name = 'counts_for'`;
    expect(await store.rows(columns, [])).toEqual([]);
    await store.rows('DROP TABLE one_phrase_a_place', []);
    expect((await migrate(url)).length).toBe(before.length + 9);
    await store.close();
  });

  test('what an earlier version did without recording it is recorded, not done again', async () => {
    const url = await freshDatabase();
    const all = await migrate(url);
    const store = openStore(url);
    await store.rows(`DELETE FROM migrations WHERE name >= '010' RETURNING name`, []);
    expect(await migrate(url)).toEqual(all);
    await store.close();
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

describe('a book of the version before', () => {
  test('comes forward with links taken out of its messages, and a place of its own for every phrase and piece', async () => {
    const server = await openDemoStudio();
    const { store } = server.app;
    await migrate(server.databaseUrl, { back: '011-week', mayLose: true });
    const token = 'A1_-'.repeat(10) + 'xyz';
    await store.rows(
      `INSERT INTO outbox (studio_id, person_id, subject, body, made_at)
       SELECT studio_id, id, 'Your place', 'Choose a password at /welcome/' || $1 || ' until Friday.', now() FROM people LIMIT 1 RETURNING id`,
      [token],
    );
    // As one by one, or at once, had left them.
    await store.rows('UPDATE pieces SET place = 1000000 RETURNING id', []);
    await store.rows('UPDATE phrases SET place = 0 RETURNING id', []);
    await migrate(server.databaseUrl);
    const [mail] = await store.rows<{ body: string }>(`SELECT body FROM outbox WHERE subject = 'Your place'`, []);
    expect(mail?.body).toBe('Choose a password at (a link that was handed over) until Friday.');
    const shared = await store.rows(
      `SELECT song_id FROM pieces WHERE NOT struck GROUP BY song_id, position HAVING count(*) > 1
       UNION ALL SELECT section_id FROM phrases WHERE alternate_of IS NULL GROUP BY section_id, position HAVING count(*) > 1`,
      [],
    );
    expect(shared).toEqual([]);
    const [uncounted] = await store.rows<{ count: number }>(
      'SELECT count(*)::int AS count FROM entries WHERE counts_for IS DISTINCT FROM piece_id',
      [],
    );
    expect(uncounted?.count).toBe(0);
    await server.close();
  });
});

describe('a book on its way back', () => {
  /** Every row of every table of the book, without what is computed anew from the rest. */
  async function bookOf(store: Store): Promise<readonly string[]> {
    const tables = await store.rows<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.tables
        WHERE table_schema = 'public' AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
      [['migrations', 'sessions', 'counted_sign_ins', 'secrets', 'phrase_facts']],
    );
    const rows = tables.map(({ name }) =>
      store.rows<{ row: string }>(
        `SELECT (to_jsonb(t) - ARRAY['kept', 'call', 'learning_rate'])::text AS row FROM "${name}" t ORDER BY 1`,
        [],
      ),
    );
    return (await Promise.all(rows)).flatMap((some, index) => some.map(({ row }) => `${tables[index]?.name} ${row}`));
  }

  test('comes back row by row as it was, or does not go at all', async () => {
    const server = await openDemoStudio();
    const { store } = server.app;
    const all = await migrate(server.databaseUrl);
    // Whom a message is about and what a value was before are new, and lost on the way back; the rest is compared.
    await store.rows('DELETE FROM corrections RETURNING id', []);
    await store.rows('UPDATE outbox SET about_id = NULL, written_at = made_at RETURNING id', []);
    const before = await bookOf(store);
    expect(before.length).toBeGreaterThan(150);
    const refused: string[] = [];
    for (const back of [...all.slice(0, -1).reverse(), 'none']) {
      const gone = await migrate(server.databaseUrl, { back }).catch((error: unknown) => {
        expect([back, String(error)]).toEqual([back, expect.stringContaining('would lose')]);
        expect(error).toBeInstanceOf(MigrationRefused);
        refused.push(back);
      });
      if (gone) await migrate(server.databaseUrl);
      expect([back, await bookOf(store)]).toEqual([back, before]);
    }
    // The demo has summaries, hours, guardians and messages, so that only the eight newest steps can be taken back.
    expect(refused).toEqual([...all.slice(0, -10).reverse(), 'none']);
    await expect(migrate(server.databaseUrl, { back: '010-house' })).rejects.toThrow(/would lose .*lesson_notes/);
    expect(await migrate(server.databaseUrl, { back: '010-house', mayLose: true })).toEqual(all.slice(0, 10));
    await server.close();
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

  test('what is asked for often is prepared once on each connection, and answered by its parameters at every turn', async () => {
    const { store } = server.app;
    const answers = await store.inTransaction(async () => {
      const add = async (number: number) => (await store.rows(`SELECT $1::int + 1 AS sum ${PREPARED}`, [number]))[0];
      const sums = [await add(1), await add(41), (await store.rows('SELECT $1::int + 1 AS sum', [6]))[0]];
      const kept = await store.rows(
        `SELECT statement FROM pg_prepared_statements WHERE statement LIKE '% AS sum%'`,
        [],
      );
      return { sums, kept };
    });
    expect(answers.sums).toEqual([{ sum: 2 }, { sum: 42 }, { sum: 7 }]);
    expect(answers.kept).toEqual([{ statement: 'SELECT $1::int + 1 AS sum /* prepared */' }]);
  });

  test('health says which migration the database has', async () => {
    const { body } = await server.anonymous().get('/api/health').expect(200);
    expect(body).toEqual({ database: 'up', migration: '020-sounds' });
  });

  test('health says when the database is down', async () => {
    await server.app.store.close();
    const { body } = await server.anonymous().get('/api/health').expect(503);
    expect(body).toEqual({ database: 'down', migration: null });
  });
});
