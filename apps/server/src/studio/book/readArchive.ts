import { createHash } from 'node:crypto';
import { basename } from 'node:path';
import { StringDecoder } from 'node:string_decoder';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { EDITIONS } from '../../store/index.ts';
import { ARCHIVE_VERSION, fileOf, MANIFEST, manifestSchema, type ArchivedTable, type Manifest } from './archive.ts';
import { BookTrouble, fileTrouble } from './bookTrouble.ts';

/** An archive that is open for reading; its files are still to be checked. */
export interface Archive {
  readonly manifest: Manifest;
  /** The lines of a table, some at a time; what does not fit its length, its rows or its digest is refused at its end. */
  linesOf(table: ArchivedTable): AsyncGenerator<readonly string[]>;
  close(): void;
}

/** What an archive says of itself is so long at most, bytes. Our choice. */
const MAX_MANIFEST = 1_000_000;
/** More than so many times its packed length is no book: rows with ids made by chance pack to a fifth or so. Our choice. */
const MAX_PACKED = 200;
/** Longest line that is taken, bytes; the longest row has two texts of 65,536 characters. Our choice. */
const MAX_LINE = 8_000_000;
/** Rows that are given at once. */
const ROWS_AT_ONCE = 500;

/**
 * Opens an archive and reads what it says of itself. @throws BookTrouble where it is none, is cut, was made by a newer version, or holds
 * far more than its length lets it
 */
export async function openArchive(file: string): Promise<Archive> {
  const name = basename(file);
  const zip = await openPromise(file, { lazyEntries: true, autoClose: false, strictFileNames: true }).catch(
    (error: unknown) => {
      const trouble = fileTrouble(error, name);
      throw trouble instanceof BookTrouble
        ? trouble
        : new BookTrouble(`${name} is no backup, or was cut: it cannot be unpacked.`);
    },
  );
  try {
    const entries = await entriesOf(zip, name);
    const manifest = await manifestIn(zip, entries, name);
    requireHonest(entries, manifest, name);
    return {
      manifest,
      linesOf: (table) => linesOf(zip, entries, table, name),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

function entriesOf(zip: ZipFile, name: string): Promise<ReadonlyMap<string, Entry>> {
  return new Promise((done, fail) => {
    const entries = new Map<string, Entry>();
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.on('end', () => done(entries));
    zip.on('error', () => fail(new BookTrouble(`${name} is damaged: its list of files cannot be read.`)));
    zip.readEntry();
  });
}

async function manifestIn(zip: ZipFile, entries: ReadonlyMap<string, Entry>, name: string): Promise<Manifest> {
  const entry = entries.get(MANIFEST);
  if (!entry || entry.uncompressedSize > MAX_MANIFEST)
    throw new BookTrouble(`${name} is no backup of Jam Ledger: it does not say what it is.`);
  const chunks: Buffer[] = [];
  for await (const chunk of await chunksOf(zip, entry, name)) chunks.push(chunk);
  const said = parsed(Buffer.concat(chunks).toString('utf8'));
  // What a newer version says of itself may look otherwise.
  const version: unknown = typeof said === 'object' && said !== null ? Reflect.get(said, 'version') : undefined;
  if (typeof version === 'number' && version > ARCHIVE_VERSION) throw newer(name);
  const checked = manifestSchema.validate(said, { convert: false });
  if (checked.error) throw new BookTrouble(`${name} is no backup of Jam Ledger: ${checked.error.message}.`);
  if (!EDITIONS.includes(checked.value.edition)) throw newer(name);
  return checked.value;
}

const newer = (name: string) =>
  new BookTrouble(`${name} was made by a newer version of Jam Ledger; bring this one up to date, then try again.`);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return undefined;
  }
}

/** Lets archives go on whose files are those they name, and no larger than files of their length can be. @throws BookTrouble */
function requireHonest(entries: ReadonlyMap<string, Entry>, { tables }: Manifest, name: string): void {
  for (const table of tables) {
    const entry = entries.get(fileOf(table.name));
    if (entry?.uncompressedSize !== table.bytes)
      throw new BookTrouble(`${name} is damaged: ${fileOf(table.name)} is not as long as it should be.`);
    if (entry.uncompressedSize > MAX_LINE && entry.uncompressedSize > MAX_PACKED * entry.compressedSize)
      throw new BookTrouble(`${name} is refused: ${fileOf(table.name)} would unpack to more than a book can be.`);
  }
}

async function chunksOf(zip: ZipFile, entry: Entry, name: string): Promise<AsyncIterable<Buffer>> {
  return zip.openReadStreamPromise(entry).catch((error: unknown) => {
    throw new BookTrouble(
      `${name} is damaged: ${entry.fileName} cannot be read (${error instanceof Error ? error.message : ''}).`,
    );
  });
}

async function* linesOf(
  zip: ZipFile,
  entries: ReadonlyMap<string, Entry>,
  table: ArchivedTable,
  name: string,
): AsyncGenerator<readonly string[]> {
  const entry = entries.get(fileOf(table.name));
  if (!entry) return;
  const damaged = () => new BookTrouble(`${name} is damaged: ${entry.fileName} is not what was written.`);
  const hash = createHash('sha256');
  const decoder = new StringDecoder('utf8');
  let rows = 0;
  let rest = '';
  let some: string[] = [];
  try {
    for await (const chunk of await chunksOf(zip, entry, name)) {
      hash.update(chunk);
      const lines = (rest + decoder.write(chunk)).split('\n');
      rest = lines.pop() ?? '';
      if (rest.length > MAX_LINE) throw damaged();
      rows += lines.length;
      some.push(...lines);
      if (some.length < ROWS_AT_ONCE) continue;
      yield some;
      some = [];
    }
  } catch (error) {
    // What was packed is not what it unpacks to.
    throw error instanceof BookTrouble ? error : damaged();
  }
  if (rest !== '' || rows !== table.rows || hash.digest('hex') !== table.sha256) throw damaged();
  if (some.length > 0) yield some;
}
