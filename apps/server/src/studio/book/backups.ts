import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MAX_BACKUP_BYTES, type Backup } from '@jam-ledger/contract';
import type { Manifest } from './archive.ts';
import { BookTrouble, codeOf, fileTrouble } from './bookTrouble.ts';
import { openArchive } from './readArchive.ts';
import { writeArchive, type Writing } from './writeArchive.ts';

/** What a file of a backup is called. */
const BACKUP = /^[a-z0-9][a-z0-9-]*\.zip$/;
/** What is still written, or was when its server was cut. */
const PART = /\.zip\.part$/;
/** A part that nobody wrote to for so long was left behind, milliseconds. Our choice. */
const LEFT_MS = 60 * 60 * 1000;

/** The name of the backup of a moment: `jam-ledger-2026-03-14-100000-by-hand.zip`, in UTC. */
function nameOf({ now, why }: Writing): string {
  const moment = now
    .toISOString()
    .replace(/[T:]/g, '-')
    .slice(0, 19)
    .replace(/-(\d\d)-(\d\d)$/, '$1$2');
  return `jam-ledger-${moment}-${why.replaceAll(' ', '-')}.zip`;
}

/** Makes a backup in a folder, which is made where it is missing, and lets the oldest go beyond so many. @throws BookTrouble */
export async function makeBackup(
  databaseUrl: string,
  folder: string,
  { keep, ...writing }: Writing & { readonly keep: number },
): Promise<{ readonly file: string; readonly manifest: Manifest }> {
  await makeFolder(folder);
  const file = nameOf(writing);
  const manifest = await writeArchive(databaseUrl, join(folder, file), writing);
  await letOldGo(folder, keep, file);
  return { file, manifest };
}

async function makeFolder(folder: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 }).catch((error: unknown) => {
    throw fileTrouble(error, folder);
  });
}

/** Lets backups go beyond the newest so many, but never the one just made; and what a cut server left half written. */
async function letOldGo(folder: string, keep: number, made: string): Promise<void> {
  const old = (await namesIn(folder)).filter((name) => name !== made).slice(Math.max(0, keep - 1));
  for (const name of old) await rm(join(folder, name), { force: true });
  for (const name of (await list(folder)).filter((one) => PART.test(one))) {
    const { mtimeMs } = await stat(join(folder, name)).catch(() => ({ mtimeMs: Date.now() }));
    if (Date.now() - mtimeMs > LEFT_MS) await rm(join(folder, name), { force: true });
  }
}

async function list(folder: string): Promise<readonly string[]> {
  return readdir(folder).catch((error: unknown) => {
    if (codeOf(error) === 'ENOENT') return [];
    throw fileTrouble(error, folder);
  });
}

/** The backups of a folder by name, the newest first. */
async function namesIn(folder: string): Promise<readonly string[]> {
  const names = (await list(folder)).filter((name) => BACKUP.test(name));
  const dated = await Promise.all(
    names.map(async (name) => ({ name, at: (await stat(join(folder, name)).catch(() => undefined))?.mtimeMs ?? 0 })),
  );
  return dated.sort((a, b) => b.at - a.at || b.name.localeCompare(a.name)).map(({ name }) => name);
}

/** The backups of a folder, the newest first, each with what it says of itself. */
export async function listBackups(folder: string): Promise<readonly Backup[]> {
  const backups: Backup[] = [];
  for (const file of await namesIn(folder)) backups.push(await describeBackup(folder, file));
  return backups.sort((a, b) => b.madeAt.localeCompare(a.madeAt));
}

/** A backup by the name of its file; what is wrong with it stands in it. */
export async function describeBackup(folder: string, file: string): Promise<Backup> {
  const { size, mtime } = await stat(backupPath(folder, file)).catch((error: unknown) => {
    throw fileTrouble(error, file);
  });
  const found = { file, bytes: size };
  try {
    const archive = await openArchive(join(folder, file));
    archive.close();
    const { madeAt, why, studios, tables } = archive.manifest;
    const rows = tables.reduce((sum, table) => sum + table.rows, 0);
    return { ...found, madeAt, why, studios: studios.map(({ name }) => name), rows, trouble: null };
  } catch (error) {
    if (!(error instanceof BookTrouble)) throw error;
    return { ...found, madeAt: mtime.toISOString(), why: '', studios: [], rows: 0, trouble: error.message };
  }
}

/** Where a backup lies. @throws BookTrouble for a name that is none */
export function backupPath(folder: string, file: string): string {
  if (!BACKUP.test(file)) throw new BookTrouble('This is no name of a backup.');
  return join(folder, file);
}

/** Puts a backup that is sent beside the others: it is taken in whole and is one, or it is not there. @throws BookTrouble */
export async function bringBackup(folder: string, sent: Readable, now: Date): Promise<Backup> {
  await makeFolder(folder);
  const file = `brought-${now
    .toISOString()
    .slice(0, 19)
    .replace(/[^0-9]/g, '')}.zip`;
  const part = join(folder, `${file}.part`);
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      bytes += chunk.length;
      if (bytes > MAX_BACKUP_BYTES)
        done(new BookTrouble('This is larger than a backup that can be sent; restore it on the machine.'));
      else done(null, chunk);
    },
  });
  try {
    await rm(part, { force: true });
    await pipeline(sent, counted, createWriteStream(part, { flags: 'wx', mode: 0o600, flush: true }));
    const archive = await openArchive(part).catch((error: unknown) => {
      throw error instanceof BookTrouble ? new BookTrouble(error.message.replace(`${file}.part`, 'This file')) : error;
    });
    archive.close();
    await rename(part, join(folder, file));
  } catch (error) {
    await rm(part, { force: true }).catch(() => undefined);
    throw fileTrouble(error, file);
  }
  return describeBackup(folder, file);
}
