import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { enterDemoStudio } from '../apps/server/src/demo/index.ts';
import { migrate, openStore } from '../apps/server/src/store/index.ts';
import { makeBackup } from '../apps/server/src/studio/index.ts';
import { freshDatabase } from '../tools/cluster.ts';
import { digestOfBook, isWhole, killed } from './killingBook.ts';

let folder: string;
let databaseUrl: string;
let file: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jam-ledger-killed-'));
  databaseUrl = await freshDatabase();
  await migrate(databaseUrl);
  const store = openStore(databaseUrl);
  await enterDemoStudio(store, new Date());
  await store.close();
  file = join(folder, (await makeBackup(databaseUrl, folder, { why: 'by hand', now: new Date(), keep: 99 })).file);
}, 60_000);
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Moments at which a command is killed, milliseconds: while it starts, works and ends. */
const MOMENTS = [1200, 1700, 2200] as const;
/** A busy machine may take its time for one that is not killed, milliseconds. */
const UNTIL_IT_ENDS_MS = 180_000;

describe('killed at any moment', () => {
  test('a backup leaves the others whole, and what it left half written is no backup', async () => {
    for (const afterMs of MOMENTS) await killed('backup', [], { databaseUrl, afterMs, backups: folder });
    for (const name of (await readdir(folder)).filter((one) => one.endsWith('.zip')))
      expect([name, await isWhole(join(folder, name))]).toEqual([name, true]);
  }, 400_000);

  test('a restore has brought all of the book, or nothing', async () => {
    const whole = await digestOfBook(databaseUrl);
    const seen = new Set<string>();
    for (const afterMs of MOMENTS) {
      const url = await freshDatabase();
      await migrate(url);
      const empty = await digestOfBook(url);
      await killed('restore', [file, '--none-erased'], { databaseUrl: url, afterMs, backups: join(folder, 'none') });
      const store = openStore(url);
      // What a restore that went through writes down of itself is not in the backup.
      await store.rows('DELETE FROM trail RETURNING id', []);
      await store.close();
      const found = await digestOfBook(url);
      expect([afterMs, found === whole || found === empty]).toEqual([afterMs, true]);
      seen.add(found === whole ? 'whole' : 'empty');
      // And the next one goes through.
      if (found === empty && seen.size === 1)
        expect(
          await killed('restore', [file, '--none-erased'], {
            databaseUrl: url,
            afterMs: UNTIL_IT_ENDS_MS,
            backups: join(folder, 'none'),
          }),
        ).toBe(false);
    }
    expect(seen.has('empty')).toBe(true);
  }, 400_000);

  test('an erasure has taken all of somebody, or nothing', async () => {
    const url = await freshDatabase();
    await migrate(url);
    const store = openStore(url);
    await enterDemoStudio(store, new Date());
    await store.rows(
      `UPDATE people SET erase_on = '2020-01-01', archived_at = now() WHERE sign_in_name = 'pia' RETURNING id`,
      [],
    );
    const [pia] = await store.rows<{ id: string }>(`SELECT id FROM people WHERE sign_in_name = 'pia'`, []);
    const before = await digestOfBook(url);
    for (const afterMs of MOMENTS) {
      await killed('eraseDue', [], { databaseUrl: url, afterMs, backups: join(folder, 'erased') });
      const [left] = await store.rows<{ count: number }>(
        `SELECT (SELECT count(*) FROM people WHERE id = $1) + (SELECT count(*) FROM requests WHERE student_id = $1)
              + (SELECT count(*) FROM pieces WHERE student_id = $1)::int AS count`,
        [pia?.id],
      );
      const isBefore = (await digestOfBook(url)) === before;
      expect([afterMs, isBefore || Number(left?.count) === 0]).toEqual([afterMs, true]);
    }
    await killed('eraseDue', [], { databaseUrl: url, afterMs: UNTIL_IT_ENDS_MS, backups: join(folder, 'erased') });
    expect(await readdir(join(folder, 'erased'))).toEqual(['erased.json']);
    await store.close();
  }, 400_000);
});
