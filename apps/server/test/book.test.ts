import { mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { BookState } from '@jam-ledger/contract';
import { unzipSync, zipSync, strFromU8, strToU8 } from 'fflate';
import { migrate, openStore, type Store } from '../src/store/index.ts';
import { makeBackup, openArchive, restoreArchive } from '../src/studio/index.ts';
import { ARCHIVE_PAGE, archivePage } from '../../../tools/archivePage.ts';
import { freshDatabase } from '../../../tools/cluster.ts';
import { NOW, openDemoStudio, openServer, openTestStudio, tellStory, type Browser, type TestServer } from './studio.ts';

let folder: string;
beforeEach(async () => void (folder = await mkdtemp(join(tmpdir(), 'book-'))));
afterEach(() => rm(folder, { recursive: true, force: true }));

const PLAIN = { erased: [], replace: false, by: null, now: NOW } as const;
const byHand = { why: 'by hand', now: NOW, keep: 5 } as const;

/** Every row of every table that is part of the book, as text, without what is computed anew from the rest. */
async function bookOf(store: Store, without: readonly string[] = []): Promise<readonly string[]> {
  const left = ['migrations', 'sessions', 'counted_sign_ins', 'secrets', 'devices', 'book_jobs', ...without];
  const tables = await store.rows<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.tables
      WHERE table_schema = 'public' AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
    [left],
  );
  const rows: string[] = [];
  for (const { name } of tables)
    for (const { row } of await store.rows<{ row: string }>(
      `SELECT (to_jsonb(t) - ARRAY['kept', 'call', 'learning_rate'])::text AS row FROM "${name}" t ORDER BY 1`,
      [],
    ))
      rows.push(`${name} ${row}`);
  return rows;
}

async function emptyBook(): Promise<{ readonly url: string; readonly store: Store }> {
  const url = await freshDatabase();
  await migrate(url);
  return { url, store: openStore(url) };
}

/** What restoring a file into a book is refused with. */
async function refusal(url: string, file: string, more: object = {}): Promise<string> {
  const refused = await restoreArchive(url, file, { ...PLAIN, ...more }).then(
    () => undefined,
    (error: unknown) => (error instanceof Error ? error : undefined),
  );
  return refused?.message ?? 'nothing';
}

describe('a backup', () => {
  test('of the demo comes back into an empty book row by row, numbers go on after it, and everybody can sign in', async () => {
    const server = await openDemoStudio();
    const { file, manifest } = await makeBackup(server.databaseUrl, folder, byHand);
    expect((await stat(join(folder, file))).mode & 0o777).toBe(0o600);
    const before = await bookOf(server.app.store);
    expect(before.length).toBe(manifest.tables.reduce((sum, { rows }) => sum + rows, 0));
    const { url, store } = await emptyBook();
    await restoreArchive(url, join(folder, file), PLAIN);
    expect(await bookOf(store, ['trail'])).toEqual(before);
    const [line] = await store.rows<{ line: number; newest: number }>(
      `SELECT nextval(pg_get_serial_sequence('entries', 'line'))::int AS line, max(line)::int AS newest FROM entries`,
      [],
    );
    expect(line?.line).toBe((line?.newest ?? 0) + 1);
    const again = await openServer(url);
    await again.signIn('mara', 'ink-and-paper').catch(() => again.signIn('mara'));
    const deferred = await store.rows(`SELECT conname FROM pg_constraint WHERE contype = 'f' AND condeferrable`, []);
    expect(deferred).toEqual([]);
    await store.close();
    await again.close();
    await server.close();
  });

  test('is what the page says, table by table, and opens with any tool for zips', async () => {
    const server = await openDemoStudio();
    const { file } = await makeBackup(server.databaseUrl, folder, byHand);
    const files = unzipSync(await readFile(join(folder, file)));
    const manifest = JSON.parse(strFromU8(files['archive.json'] ?? new Uint8Array()));
    for (const { name, rows, bytes } of manifest.tables) {
      const text = strFromU8(files[`tables/${name}.jsonl`] ?? new Uint8Array());
      expect([name, text.length === 0 ? 0 : text.trimEnd().split('\n').length]).toEqual([name, rows]);
      expect(strToU8(text).length).toBe(bytes);
    }
    expect(Object.keys(files).some((name) => /sessions|secrets|devices/.test(name))).toBe(false);
    await server.close();
  });

  test('keeps the newest so many and never what it just made', async () => {
    const server = await openTestStudio();
    for (let day = 1; day <= 5; day += 1)
      await makeBackup(server.databaseUrl, folder, {
        why: 'by schedule',
        now: new Date(Date.UTC(2026, 2, day)),
        keep: 3,
      });
    expect(await readdir(folder)).toHaveLength(3);
    await server.close();
  });

  test('into a folder that cannot be written, or with no room, is a sentence and leaves nothing', async () => {
    const server = await openTestStudio();
    await writeFile(join(folder, 'taken'), '');
    await expect(makeBackup(server.databaseUrl, join(folder, 'taken'), byHand)).rejects.toThrow(
      /is no place for a file|cannot be written/,
    );
    const { url } = await emptyBook();
    await expect(makeBackup(url, join(folder, 'new'), byHand)).resolves.toBeDefined();
    await expect(makeBackup(await freshDatabase(), folder, byHand)).rejects.toThrow(
      'There is no book in this database yet.',
    );
    expect((await readdir(folder)).filter((name) => name.endsWith('.part'))).toEqual([]);
    await server.close();
  });
});

/** What an archive says of itself, to be changed. */
interface Said {
  version: number;
  edition: string;
  tables: { name: string; rows: number; bytes: number; sha256: string }[];
}

test('the page of the archive says what is in it', async () => {
  expect(await readFile(ARCHIVE_PAGE, 'utf8')).toBe(await archivePage());
});

describe('a restore', () => {
  let server: TestServer;
  let file: string;
  beforeEach(async () => {
    server = await openTestStudio();
    await tellStory(server);
    ({ file } = await makeBackup(server.databaseUrl, folder, byHand));
  });
  afterEach(() => server.close());

  /** The archive with something changed in it. */
  async function changed(change: (files: Record<string, Uint8Array>) => void): Promise<string> {
    const files = unzipSync(await readFile(join(folder, file)));
    change(files);
    const path = join(folder, 'changed.zip');
    await writeFile(path, zipSync(files));
    return path;
  }
  const edit = (files: Record<string, Uint8Array>, to: (manifest: Said) => void) => {
    const manifest: Said = JSON.parse(strFromU8(files['archive.json'] ?? new Uint8Array()));
    to(manifest);
    files['archive.json'] = strToU8(JSON.stringify(manifest));
  };

  test('of a file that is cut, changed, foreign or from a newer version says so and changes nothing', async () => {
    const { url, store } = await emptyBook();
    const whole = await readFile(join(folder, file));
    const cut = join(folder, 'cut.zip');
    await writeFile(cut, whole.subarray(0, whole.length / 2));
    expect(await refusal(url, cut)).toBe('cut.zip is no backup, or was cut: it cannot be unpacked.');
    await writeFile(cut, '');
    expect(await refusal(url, cut)).toBe('cut.zip is no backup, or was cut: it cannot be unpacked.');
    const flipped = Buffer.from(whole);
    const at = flipped.indexOf('tables/people.jsonl') + 120;
    flipped.writeUInt8(flipped.readUInt8(at) ^ 255, at);
    await writeFile(cut, flipped);
    expect(await refusal(url, cut)).toMatch(/^cut\.zip is (damaged|no backup)/);
    expect(await refusal(url, join(folder, 'none.zip'))).toBe('none.zip is not there.');
    expect(await refusal(url, await changed((files) => void delete files['archive.json']))).toMatch(
      /does not say what it is/,
    );
    expect(await refusal(url, await changed((files) => edit(files, (said) => (said.version = 2))))).toMatch(
      /newer version/,
    );
    expect(await refusal(url, await changed((files) => edit(files, (said) => (said.edition = '999-later'))))).toMatch(
      /newer version/,
    );
    expect(
      await refusal(
        url,
        await changed((files) => edit(files, (said) => Object.assign(said.tables[0] ?? {}, { name: '../x' }))),
      ),
    ).toMatch(/is no backup of Jam Ledger/);
    expect(await refusal(url, await changed((files) => edit(files, (said) => void said.tables.pop())))).toMatch(
      /does not have “.*” as a book of/,
    );
    const swapped = await changed((files) => {
      const text = strFromU8(files['tables/people.jsonl'] ?? new Uint8Array());
      files['tables/people.jsonl'] = strToU8(text.replace('mara', 'mira'));
    });
    expect(await refusal(url, swapped)).toMatch(/tables\/people\.jsonl is not what was written/);
    expect(await bookOf(store)).toEqual([]);
    await store.close();
  });

  test('of rows that cannot be says which table, and changes nothing', async () => {
    const { createHash } = await import('node:crypto');
    const { url, store } = await emptyBook();
    const wrong = await changed((files) => {
      const name = 'tables/entries.jsonl';
      const line = { id: NOW.toISOString() };
      files[name] = strToU8(`${JSON.stringify(line)}\n`);
      edit(files, (said) => {
        const table = said.tables.find((one) => one.name === 'entries');
        Object.assign(table ?? {}, {
          rows: 1,
          bytes: files[name]?.length,
          sha256: createHash('sha256')
            .update(files[name] ?? '')
            .digest('hex'),
        });
      });
    });
    expect(await refusal(url, wrong)).toMatch(/^The backup holds a row that cannot be/);
    expect(await bookOf(store)).toEqual([]);
    await store.close();
  });

  test('of a bomb is refused before it is unpacked', async () => {
    const { url, store } = await emptyBook();
    const bomb = await changed((files) => {
      files['tables/entries.jsonl'] = new Uint8Array(60_000_000).fill(32);
      edit(files, (said) => {
        Object.assign(said.tables.find(({ name }) => name === 'entries') ?? {}, { bytes: 60_000_000 });
      });
    });
    expect(await refusal(url, bomb)).toMatch(/would unpack to more than a book can be/);
    await store.close();
  });

  test('goes into an empty book, the demo, or over its own studio when told so; never over another', async () => {
    expect(await refusal(server.databaseUrl, join(folder, file))).toMatch(/The book of Test Loft is not empty/);
    const other = await openTestStudio();
    expect(await refusal(other.databaseUrl, join(folder, file), { replace: true })).toMatch(
      /This is a backup of another studio than Test Loft/,
    );
    const demo = await openDemoStudio();
    await restoreArchive(demo.databaseUrl, join(folder, file), PLAIN);
    await demo.signIn('mara');
    const mara = await server.signIn('mara');
    await mara.post('/api/people').send({ role: 'student', name: 'Later', wards: [] }).expect(201);
    await restoreArchive(server.databaseUrl, join(folder, file), { ...PLAIN, replace: true });
    await mara.get('/api/counts').expect(401);
    const people = (await (await server.signIn('mara')).get('/api/people').expect(200)).body;
    expect(people.map(({ name }: { name: string }) => name)).not.toContain('Later');
    await Promise.all([other.close(), demo.close()]);
  });

  test('while somebody types, what they send is kept, refused or asked for again, never half', async () => {
    const mara = await server.signIn('mara');
    const songs = (await mara.get('/api/transcriptions').expect(200)).body;
    const { sections } = (await mara.get(`/api/transcriptions/${songs[0].id}`).expect(200)).body;
    const [phrase] = sections[0].phrases;
    const sends = Array.from({ length: 12 }, async (_one, index) => {
      await setTimeout(index * 8);
      const body = {
        name: 'Opening',
        text: `5G ${index}G`,
        layer: 'lead',
        certainty: 'heard',
        reason: '',
        version: phrase.version,
        struck: false,
      };
      const { status } = await mara
        .put(`/api/phrases/${phrase.id}`)
        .send(body)
        .ok(() => true);
      return status;
    });
    await restoreArchive(server.databaseUrl, join(folder, file), { ...PLAIN, replace: true });
    for (const status of await Promise.all(sends)) expect([200, 401, 409]).toContain(status);
    const texts = await server.app.store.rows<{ text: string; version: number }>(
      'SELECT text, version FROM phrases',
      [],
    );
    expect(texts).toHaveLength(1);
  });
});

describe('an archive of an older version', () => {
  const OLD = new URL('./archives/018-own-studio.zip', import.meta.url).pathname;

  test('comes forward as a migration brings it, with all that was in it', async () => {
    const archive = await openArchive(OLD);
    archive.close();
    expect(archive.manifest.edition).toBe('018-own-studio');
    const { url, store } = await emptyBook();
    await restoreArchive(url, OLD, PLAIN);
    for (const { name, rows } of archive.manifest.tables) {
      const [found] = await store.rows<{ count: number }>(`SELECT count(*)::int AS count FROM "${name}"`, []);
      expect([name, found?.count]).toEqual([name, rows]);
    }
    const server = await openServer(url);
    const ines = await server.signIn('ines', 'pencil-case');
    expect((await ines.get('/api/ledger').expect(200)).body.pieces).toHaveLength(4);
    await store.close();
    await server.close();
  });
});

describe('the owner’s page of the book', () => {
  let server: TestServer;
  let odile: Browser;
  beforeEach(async () => {
    const url = await freshDatabase();
    await migrate(url);
    const { enterPeople } = await import('./studio.ts');
    server = await openServer(url, { backupFolder: folder, backupKeep: 3 });
    await enterPeople(server.app.store, 'Test Loft', ['mara', 'ines', 'tomas', 'odile']);
    await tellStory(server);
    odile = await server.signIn('odile');
  });
  afterEach(() => server.close());

  async function ended(browser: Browser): Promise<NonNullable<BookState['job']>> {
    for (let tries = 0; tries < 200; tries += 1) {
      const { job }: BookState = (await browser.get('/api/book').expect(200)).body;
      if (job && job.state !== 'running') return job;
      await setTimeout(25);
    }
    throw new Error('the job did not end');
  }

  test('makes a backup, gives it, takes one in, and goes back to it with the password', async () => {
    await odile.post('/api/book/backups').expect(201);
    expect((await ended(odile)).state).toBe('done');
    const { backups }: BookState = (await odile.get('/api/book').expect(200)).body;
    expect(backups).toMatchObject([{ trouble: null, studios: ['Test Loft'], why: 'by hand' }]);
    const [backup] = backups;
    const taken = await odile
      .get(`/api/book/backups/${backup?.file}`)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      });
    expect(taken.headers['content-disposition']).toContain(backup?.file);
    await odile.post('/api/people').send({ role: 'student', name: 'Later', wards: [] }).expect(201);
    const brought = await odile.post('/api/book/backups/file').type('application/zip').send(taken.body).expect(201);
    expect(brought.body).toMatchObject({ studios: ['Test Loft'], trouble: null });
    await odile.post('/api/book/restore').send({ file: brought.body.file, password: 'wrong' }).expect(422);
    await odile.post('/api/book/restore').send({ file: brought.body.file, password: 'correct-horse' }).expect(201);
    for (let tries = 0; (await odile.get('/api/counts').ok(() => true)).status === 200; tries += 1) {
      expect(tries).toBeLessThan(200);
      await setTimeout(25);
    }
    const again = await server.signIn('odile');
    expect((await ended(again)).says).toMatch(/^The book is what it was on 2026-03-14 10:00 UTC/);
    const names = (await again.get('/api/people').expect(200)).body.map(({ name }: { name: string }) => name);
    expect(names).not.toContain('Later');
    const acts = (await again.get('/api/trail').expect(200)).body.lines.map(({ act }: { act: string }) => act);
    expect(acts).toEqual(expect.arrayContaining(['restored']));
    await again.post('/api/book/backups/file').type('application/zip').send(Buffer.from('no zip')).expect(422);
    await again.get('/api/book/backups/..%2Fx.zip').expect(422);
    await again.get('/api/book/backups/none.zip').expect(422);
  });

  test('a student is erased after a waiting time: gone from every table and from what is restored', async () => {
    await odile.post('/api/book/backups').expect(201);
    await ended(odile);
    const people = (await odile.get('/api/people').expect(200)).body;
    const ines = people.find(({ name }: { name: string }) => name === 'ines');
    const preview = (await odile.get(`/api/people/${ines.id}/erasure`).expect(200)).body;
    expect(preview.counts).toEqual(
      expect.arrayContaining([
        { table: 'transcriptions', rows: 1 },
        { table: 'pieces', rows: 1 },
      ]),
    );
    await odile.post(`/api/people/${ines.id}/erasure`).send({ version: ines.version, name: 'tomas' }).expect(422);
    const asked = (
      await odile.post(`/api/people/${ines.id}/erasure`).send({ version: ines.version, name: 'ines' }).expect(201)
    ).body;
    expect(asked.on).toBe('2026-03-21');
    await odile.delete(`/api/people/${ines.id}/erasure`).expect(200);
    const { version } = (await odile.get(`/api/people/${ines.id}/erasure`).expect(200)).body;
    await odile.post(`/api/people/${ines.id}/erasure`).send({ version, name: 'ines' }).expect(201);
    const { eraseDue } = await import('../src/studio/index.ts');
    const { store } = server.app;
    expect(await eraseDue(store, new Date('2026-03-20T12:00:00Z'), folder)).toBe(0);
    expect(await eraseDue(store, new Date('2026-03-21T12:00:00Z'), folder)).toBe(1);
    const traces = (rows: readonly string[]) => rows.filter((row) => row.includes(ines.id) || /\bines\b/i.test(row));
    expect(traces(await bookOf(store, ['trail', 'erased']))).toEqual([]);
    expect(traces(await bookOf(store)).every((row) => /^(trail|erased) /.test(row) && !/\bines\b/i.test(row))).toBe(
      true,
    );
    expect(JSON.parse(await readFile(join(folder, 'erased.json'), 'utf8'))).toEqual({ erased: [ines.id] });
    const { backups }: BookState = (await odile.get('/api/book').expect(200)).body;
    const { url, store: other } = await emptyBook();
    await restoreArchive(url, join(folder, backups[0]?.file ?? ''), { ...PLAIN, erased: [ines.id] });
    expect(traces(await bookOf(other, ['trail', 'erased']))).toEqual([]);
    await other.close();
  });

  test('everything of one student opens without us', async () => {
    const ines = await server.signIn('ines');
    const note = { version: 0, words: 'for the studio alone', home: 'Slow bends.', assigned: [], send: false };
    const { id } = (await ines.get('/api/session').expect(200)).body;
    const mara = await server.signIn('mara');
    await mara.put(`/api/lessons/of/${id}/2026-03-14`).send(note).expect(200);
    const zip = await ines
      .get('/api/everything')
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      });
    const files = unzipSync(zip.body);
    expect(Object.keys(files).sort()).toEqual(['README.txt', 'everything.json', 'ledger.csv', 'songs/1 Slow Tide.txt']);
    expect(strFromU8(files['songs/1 Slow Tide.txt'] ?? new Uint8Array())).toContain('/8 5G 7Gb1r 5G 7D');
    const all = strFromU8(files['everything.json'] ?? new Uint8Array());
    expect(all).not.toMatch(/password_hash|token_hash|\$argon2|for the studio alone/);
    expect(all).toContain('Slow bends.');
    expect(Object.keys(JSON.parse(all))).toEqual(expect.arrayContaining(['requests', 'pieces', 'phrases', 'people']));
    await (
      await server.signIn('tomas')
    )
      .get(`/api/everything?studentId=${(await ines.get('/api/session')).body.id}`)
      .expect(403);
  });
});
