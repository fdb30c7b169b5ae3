import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { open, rename, rm } from 'node:fs/promises';
import { basename, dirname } from 'node:path';
import { Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { openSnapshot, type Snapshot, type TableShape } from '../../store/index.ts';
import {
  ARCHIVE_FORMAT,
  ARCHIVE_VERSION,
  fileOf,
  MANIFEST,
  type ArchivedTable,
  type BackupReason,
  type Manifest,
} from './archive.ts';
import { BookTrouble, fileTrouble, Stopped } from './bookTrouble.ts';

/** Told how far a work on a book is, in rows. */
export type Progress = (done: number, total: number) => Promise<void> | void;

/** How an archive is written. */
export interface Writing {
  readonly why: BackupReason;
  readonly now: Date;
  readonly progress?: Progress;
  readonly signal?: AbortSignal;
}

/** Files of archives are read by their owner alone. */
const MODE = 0o600;

/**
 * Writes the whole book of a database, as it stands now, into one file, a zip of JSON; `docs/archive.md` says what is in it. The file
 * is there whole or not at all, with mode 0600. @throws BookTrouble where there is no book, no room or no way to write there
 */
export async function writeArchive(databaseUrl: string, file: string, writing: Writing): Promise<Manifest> {
  const snapshot = await openSnapshot(databaseUrl);
  const part = `${file}.part`;
  try {
    if (snapshot.edition === null) throw new BookTrouble('There is no book in this database yet.');
    const manifest = await writePart(part, { ...snapshot, edition: snapshot.edition }, writing);
    await rename(part, file);
    await keepFolder(dirname(file));
    return manifest;
  } catch (error) {
    await rm(part, { force: true }).catch(() => undefined);
    throw fileTrouble(error, basename(file));
  } finally {
    await snapshot.close();
  }
}

async function writePart(
  part: string,
  { edition, studios, tables, rowsOf }: Snapshot & { readonly edition: string },
  { why, now, progress, signal }: Writing,
): Promise<Manifest> {
  // A part that was left by a server that was cut is written anew; whatever else stands there is not followed.
  await rm(part, { force: true });
  const out = createWriteStream(part, { flags: 'wx', mode: MODE, flush: true });
  const zip = new ZipFile();
  zip.on('error', (error) => out.destroy(error instanceof Error ? error : new Error(String(error))));
  const written = finished(zip.outputStream.pipe(out));
  // Whoever waits for it hears of it; until then it must not end the server.
  written.catch(() => undefined);
  const total = tables.reduce((sum, { rows }) => sum + rows, 0);
  const archived: ArchivedTable[] = [];
  let done = 0;
  for (const table of tables) {
    const made = await addTable(zip, written, table, async function* lines() {
      for await (const rows of rowsOf(table)) {
        if (signal?.aborted) throw new Stopped();
        yield `${rows.join('\n')}\n`;
        done += rows.length;
        await progress?.(done, total);
      }
    });
    archived.push({ ...table, ...made });
  }
  const manifest: Manifest = {
    ...{ format: ARCHIVE_FORMAT, version: ARCHIVE_VERSION, edition, madeAt: now.toISOString(), why },
    ...{ studios, tables: archived },
  };
  zip.addBuffer(Buffer.from(`${JSON.stringify(manifest, null, 2)}\n`), MANIFEST, { mtime: now });
  zip.end();
  await written;
  return manifest;
}

/** Writes the lines of one table into a zip, and waits until they are in it; their length and digest. */
async function addTable(
  zip: ZipFile,
  written: Promise<void>,
  { name }: TableShape,
  lines: () => AsyncGenerator<string>,
): Promise<{ readonly bytes: number; readonly sha256: string }> {
  const hash = createHash('sha256');
  let bytes = 0;
  async function* counted() {
    for await (const text of lines()) {
      const chunk = Buffer.from(text);
      hash.update(chunk);
      bytes += chunk.length;
      yield chunk;
    }
  }
  const stream = Readable.from(counted(), { objectMode: false });
  zip.addReadStream(stream, fileOf(name), { mode: 0o100600 });
  await Promise.race([
    once(stream, 'end'),
    written.then(() => Promise.reject(new Error('the archive ended too soon'))),
  ]);
  return { bytes, sha256: hash.digest('hex') };
}

/** Lets the name of a file that was renamed survive a power cut. */
async function keepFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  await handle.sync().finally(() => handle.close());
}
