import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import pg from 'pg';
import { Trouble } from '../apps/server/src/studio/index.ts';
import { runningCluster, startCluster } from './cluster.ts';
import { BACKUPS, defaultFolder, runFile } from './dataFolder.ts';
import { fieldOf, Plain } from './plain.ts';

const ROOT = resolve(import.meta.dirname, '..');

/** A path as it was meant where the command was given. */
export function fromHere(path: string): string {
  return resolve(process.env['JAM_LEDGER_FROM'] ?? '', path);
}

/** The folder of the studio that a command is about. */
export function folderOf(named: string | undefined): string {
  return named === undefined ? defaultFolder(ROOT) : fromHere(named);
}

/** Where the backups of a folder lie. */
export function backupsOf(folder: string): string {
  return process.env['BACKUP_FOLDER'] ?? join(folder, BACKUPS);
}

/** Where the studio of a folder is open; empty where another program says. */
export function addressIn(folder: string): string {
  const file = runFile(folder);
  return existsSync(file) ? `http://127.0.0.1:${String(fieldOf(readFileSync(file, 'utf8'), 'port'))}` : '';
}

/**
 * Does something with the book of a folder, or with the one that DATABASE_URL names, whether its studio is open or not: a private
 * database that is closed is opened for it, and closed again.
 */
export async function withBook<T>(folder: string, work: (databaseUrl: string) => Promise<T>): Promise<T> {
  const own = process.env['DATABASE_URL'];
  if (own) return work(own);
  const running = await runningCluster(folder).catch((error: unknown) => {
    if (error instanceof Plain) return undefined;
    throw error;
  });
  // A file that tells of a database which was cut says nothing.
  if (running !== undefined && (await answers(running))) return work(running);
  const cluster = await startCluster({ folder, durable: true });
  try {
    return await work(cluster.databaseUrl);
  } finally {
    await cluster.stop();
  }
}

async function answers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.end();
    return true;
  } catch {
    return false;
  }
}

/** Tells how far something is, on a line of its own that is written over. */
export function progressLine(what: string): (done: number, total: number) => void {
  if (!process.stderr.isTTY) return () => undefined;
  return (done, total) => void process.stderr.write(`\r${what}: ${done} of ${total} rows${done === total ? '\n' : ''}`);
}

/** Runs a command; what goes wrong is told in a sentence, without a stack. */
export async function run(main: (signal: AbortSignal) => Promise<void>, failed: string): Promise<void> {
  const stopping = new AbortController();
  process.once('SIGINT', () => stopping.abort());
  await main(stopping.signal).catch((error: unknown) => {
    const isPlain = error instanceof Plain || error instanceof Trouble;
    process.stderr.write(`${isPlain ? error.message : `${failed}: ${String(error)}`}\n`);
    process.exit(1);
  });
}
