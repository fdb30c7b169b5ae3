import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { openStore } from '../apps/server/src/store/index.ts';
import { openArchive } from '../apps/server/src/studio/index.ts';

const ROOT = resolve(import.meta.dirname, '..');

/** Runs a command of the book with its words, and kills it after so long unless it has ended. Whether it was killed. */
export async function killed(
  command: 'backup' | 'restore' | 'eraseDue',
  words: readonly string[],
  {
    databaseUrl,
    afterMs,
    backups,
  }: { readonly databaseUrl: string; readonly afterMs: number; readonly backups: string },
): Promise<boolean> {
  const script = command === 'eraseDue' ? 'e2e/eraseDue.ts' : `tools/${command}.ts`;
  const child = spawn(process.execPath, ['--import', 'tsx', '--conditions=studio-src', join(ROOT, script), ...words], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: databaseUrl, BACKUP_FOLDER: backups },
    stdio: 'ignore',
  });
  const ended = new Promise<boolean>((done) => child.once('exit', (_code, signal) => done(signal !== null)));
  await Promise.race([ended, pause(afterMs)]);
  child.kill('SIGKILL');
  return ended;
}

/** What stands in a book, as one digest: every row of every table. */
export async function digestOfBook(databaseUrl: string): Promise<string> {
  const store = openStore(databaseUrl);
  try {
    const tables = await store.rows<{ name: string }>(
      `SELECT table_name AS name FROM information_schema.tables
        WHERE table_schema = 'public' AND NOT (table_name = ANY ($1::text[])) ORDER BY 1`,
      [['migrations', 'sessions', 'counted_sign_ins', 'secrets', 'devices', 'book_jobs', 'phrase_facts']],
    );
    const hash = createHash('sha256');
    for (const { name } of tables) {
      const rows = await store.rows<{ row: string }>(
        `SELECT (to_jsonb(t) - ARRAY['kept', 'call', 'learning_rate', 'at'])::text AS row FROM "${name}" t ORDER BY 1`,
        [],
      );
      hash.update(
        `${name}\n${rows.map(({ row }) => row.replace(/"id": "[^"]*", /, name === 'trail' ? '' : '$&')).join('\n')}`,
      );
    }
    return hash.digest('hex');
  } finally {
    await store.close();
  }
}

/** Whether an archive is whole: every line of every table can be read. */
export async function isWhole(file: string): Promise<boolean> {
  const archive = await openArchive(file);
  try {
    for (const table of archive.manifest.tables) for await (const lines of archive.linesOf(table)) void lines;
    return true;
  } finally {
    archive.close();
  }
}
