import { dirname, join } from 'node:path';
import { existsSync } from 'node:fs';
import { readErasedFile, makeBackup, openArchive, restoreArchive } from '../apps/server/src/studio/index.ts';
import { openSnapshot } from '../apps/server/src/store/index.ts';
import { backupsOf, folderOf, fromHere, progressLine, run, withBook } from './openBook.ts';
import { parsedBy, Plain } from './plain.ts';

const HELP = `bin/restore FILE [--erased FILE | --none-erased] [--replace] [--check] [--data DIR]

Makes the book what it was in a backup: an empty book, or with --replace one of the same studio, of which a backup is made first. All of
it or nothing; everybody is signed out.

  --erased FILE   who was erased since (erased.json, beside the backups); they are erased again
  --none-erased   says that nobody was, where there is no such file
  --check         reads the backup through and changes nothing
  --data DIR      the folder of the studio
DATABASE_URL names a PostgreSQL database of your own.`;

const options = {
  erased: { type: 'string' },
  'none-erased': { type: 'boolean' },
  replace: { type: 'boolean' },
  check: { type: 'boolean' },
  data: { type: 'string' },
  help: { type: 'boolean' },
} as const;

await run(async (signal) => {
  const { help, check, data, replace = false, positionals, ...values } = parsedBy(options, HELP, 1);
  if (help) return void process.stdout.write(`${HELP}\n`);
  const [named] = positionals;
  if (named === undefined) throw new Plain(`Name the backup.\n\n${HELP}`);
  const file = fromHere(named);
  const studios = await checked(file);
  if (check) return void process.stdout.write(`${file} is whole; it holds ${studios}.\n`);
  const folder = folderOf(data);
  const backups = backupsOf(folder);
  const erased = await erasedSince(file, backups, values);
  const now = new Date();
  const progress = progressLine('Filling');
  await withBook(folder, async (databaseUrl) => {
    if (replace && (await hasBook(databaseUrl)))
      await makeBackup(databaseUrl, backups, { why: 'before a restore', now, keep: 1000 });
    await restoreArchive(databaseUrl, file, { erased, replace, by: null, now, progress, signal });
  });
  process.stdout.write(`The book is what it was in ${file}: ${studios}.\n`);
}, 'The backup could not be restored');

/** Reads a backup through; which studios it holds. */
async function checked(file: string): Promise<string> {
  const archive = await openArchive(file);
  try {
    for (const table of archive.manifest.tables) for await (const lines of archive.linesOf(table)) void lines;
    return archive.manifest.studios.map(({ name }) => name).join(', ') || 'no studio';
  } finally {
    archive.close();
  }
}

/** Who was erased since; a restore that could bring somebody back asks for it. */
async function erasedSince(
  file: string,
  backups: string,
  { erased, 'none-erased': none = false }: { readonly erased?: string; readonly 'none-erased'?: boolean },
): Promise<readonly string[]> {
  const named =
    erased === undefined ? [dirname(file), backups].map((folder) => join(folder, 'erased.json')) : [fromHere(erased)];
  const found = named.filter((path) => existsSync(path));
  if (found.length === 0 && erased !== undefined) throw new Plain(`${named[0] ?? ''} is not there.`);
  if (found.length === 0 && !none)
    throw new Plain(
      'Was anybody erased since this backup was made? Name the list with --erased (erased.json, beside the backups of the studio), or say --none-erased.',
    );
  const lists = await Promise.all(found.map((path) => readErasedFile(path)));
  return [...new Set(lists.flatMap((list) => list ?? []))];
}

async function hasBook(databaseUrl: string): Promise<boolean> {
  const { edition, close } = await openSnapshot(databaseUrl);
  await close();
  return edition !== null;
}
