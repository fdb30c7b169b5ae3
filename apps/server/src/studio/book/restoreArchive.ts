import {
  columnsOfBook,
  databaseTrouble,
  emptyBook,
  fillAtEdition,
  fillRows,
  findErased,
  findStudiosInBook,
  migrate,
  numberOn,
  openStore,
  withKeysAtTheEnd,
  type Store,
} from '../../store/index.ts';
import { BookTrouble, Stopped } from './bookTrouble.ts';
import { gatherMissingFacts } from '../licks/licks.ts';
import { computeAll } from '../pieces/keptStandings.ts';
import { erasePerson } from './erasePerson.ts';
import type { Manifest } from './archive.ts';
import { openArchive, type Archive } from './readArchive.ts';
import { writeTrail } from './trail.ts';
import type { Progress } from './writeArchive.ts';

/** How an archive is restored. */
export interface Restoring {
  /** People who were erased, by their ids; what an archive still has of them goes again. */
  readonly erased: readonly string[];
  /** Whether a book of the same studio may be replaced; else only an empty one, or the demo. */
  readonly replace: boolean;
  /** Who restores it; null for whoever runs the machine. */
  readonly by: string | null;
  readonly now: Date;
  readonly progress?: Progress;
  readonly signal?: AbortSignal;
}

/**
 * Makes the book of a database what an archive holds, in one transaction: all of it, or nothing is changed. Rows of an older version are
 * filled into a book of that version, which is then brought forward. Everybody is signed out. @throws BookTrouble
 */
export async function restoreArchive(databaseUrl: string, file: string, restoring: Restoring): Promise<Manifest> {
  const archive = await openArchive(file);
  try {
    await migrate(databaseUrl);
    const store = openStore(databaseUrl);
    try {
      await store.inTransaction(() => fillBook(store, archive, restoring));
      // Of an older version, what is computed from the rest may be missing.
      await gatherMissingFacts(store);
      await computeAll(store);
    } finally {
      await store.close();
    }
    return archive.manifest;
  } catch (error) {
    const trouble = databaseTrouble(error);
    // What the database refuses of rows that a file brings lies with the file (PostgreSQL 15, appendix A, classes 22 and 23).
    if (trouble && /^2[23]/.test(trouble.code))
      throw new BookTrouble(
        `The backup holds a row that cannot be${trouble.table === undefined ? '' : ` in ${trouble.table}`} (${trouble.code}); nothing was changed.`,
      );
    throw error;
  } finally {
    archive.close();
  }
}

async function fillBook(store: Store, archive: Archive, restoring: Restoring): Promise<void> {
  const { manifest } = archive;
  // Two that begin, restore or migrate at once go one after the other.
  await store.lock('migrations');
  await store.lock('demo');
  await requireRoom(store, manifest, restoring.replace);
  const erased = new Set([...restoring.erased, ...(await findErased(store))]);
  await emptyBook(store);
  await fillAtEdition(store, manifest.edition, async () => {
    const tables = await columnsOfBook(store);
    requireFitting(manifest, tables);
    await withKeysAtTheEnd(store, () => fillTables(store, archive, restoring));
    await numberOn(store, tables);
  });
  for (const id of [...erased, ...(await findErased(store))]) await erasePerson(store, id, restoring.now);
  for (const { id } of manifest.studios)
    await writeTrail(store, {
      ...{ studioId: id, at: restoring.now, personId: restoring.by, act: 'restored', aboutId: null },
      detail: `as of ${manifest.madeAt.slice(0, 16).replace('T', ' ')}`,
    });
}

/** Lets an archive go on into a book that is empty, has the demo alone, or may be replaced by one of its own. @throws BookTrouble */
async function requireRoom(store: Store, manifest: Manifest, replace: boolean): Promise<void> {
  const studios = (await findStudiosInBook(store)).filter(({ demo }) => !demo);
  const isSame = studios.every(({ id }) => manifest.studios.some((one) => one.id === id));
  const [studio] = studios;
  if (studio === undefined) return;
  if (!isSame)
    throw new BookTrouble(`This is a backup of another studio than ${studio.name}; restore it into an empty book.`);
  if (!replace)
    throw new BookTrouble(
      `The book of ${studio.name} is not empty. Say that it may be replaced, after a backup of it.`,
    );
}

/** Lets an archive go on whose tables are those of its edition. @throws BookTrouble */
function requireFitting({ tables, edition }: Manifest, book: ReadonlyMap<string, readonly string[]>): void {
  const isSame = (a: readonly string[], b: readonly string[] | undefined) =>
    b !== undefined && a.length === b.length && a.every((name) => b.includes(name));
  const strange = tables.find(({ name, columns }) => !isSame(columns, book.get(name)));
  const missing = [...book.keys()].find((name) => !tables.some((table) => table.name === name));
  const name = strange?.name ?? missing;
  if (name !== undefined)
    throw new BookTrouble(`The backup does not have “${name}” as a book of ${edition} has it; nothing was changed.`);
}

async function fillTables(store: Store, archive: Archive, { progress, signal }: Restoring): Promise<void> {
  const { tables } = archive.manifest;
  const total = tables.reduce((sum, { rows }) => sum + rows, 0);
  let done = 0;
  for (const table of tables)
    for await (const lines of archive.linesOf(table)) {
      if (signal?.aborted) throw new Stopped();
      await fillRows(store, table.name, table.columns, lines);
      done += lines.length;
      await progress?.(done, total);
    }
}
