import type { Readable } from 'node:stream';
import {
  JOB_KINDS,
  JOB_STATES,
  type Backup,
  type BookState,
  type FileGiven,
  type Restoring,
} from '@jam-ledger/contract';
import {
  addRow,
  databaseTrouble,
  endCutJobs,
  findErasing,
  findNewestJob,
  findOwn,
  openStore,
  seeJob,
  setJobAside,
  type BookJobModel,
  type Store,
} from '../../store/index.ts';
import { Invalid, Trouble } from '../context/errors.ts';
import type { RequestContext } from '../context/context.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { rightPassword } from '../people/signIn.ts';
import { backupPath, bringBackup, describeBackup, listBackups, makeBackup } from './backups.ts';
import { BookTrouble } from './bookTrouble.ts';
import { erasedBeside } from './erasePerson.ts';
import { restoreArchive } from './restoreArchive.ts';
import { trace } from './trail.ts';
import type { Progress } from './writeArchive.ts';

/** So often a job says how far it is, milliseconds. Our choice. */
const SAY_MS = 250;

/** How safe the book is. @throws Forbidden for all but the owner */
export async function showBook({ store, studio, book, now }: RequestContext): Promise<BookState> {
  await endCutJobs(store);
  const { backupFolder, everyHours, keep } = book;
  const job = await findNewestJob(store, studio.id);
  return {
    hasFolder: backupFolder !== undefined,
    everyHours,
    keep,
    backups: backupFolder === undefined ? [] : await listBackups(backupFolder),
    job: job ? describeJob(job) : null,
    erasing: (await findErasing(store, studio.id, now)).map(({ id, name, on }) => ({ id, name, on })),
  };
}

function describeJob({ id, kind, state, done, total, says }: BookJobModel): NonNullable<BookState['job']> {
  return { id, kind: parseWord(JOB_KINDS, kind), state: parseWord(JOB_STATES, state), done, total, says };
}

function folderOf({ book }: RequestContext): string {
  if (book.backupFolder === undefined)
    throw new Invalid([
      { field: 'book', message: 'No folder for backups is set; whoever runs the machine names one (BACKUP_FOLDER).' },
    ]);
  return book.backupFolder;
}

/** Begins to make a backup; it goes on after the answer. @throws Forbidden, Invalid where one is made already */
export async function startBackup(context: RequestContext): Promise<BookState> {
  const { book, now } = context;
  const folder = folderOf(context);
  await trace(context, 'made a backup');
  return startJob(context, 'backup', async (progress, signal) => {
    const { databaseUrl, keep } = book;
    const { file } = await makeBackup(databaseUrl, folder, { why: 'by hand', now, keep, progress, signal });
    return `${file} is made.`;
  });
}

/**
 * Begins to make the book what it was in a backup; a backup of how it is now is made first. Everybody is signed out when it is done.
 * @throws Forbidden, Invalid for a wrong password or a backup that is none
 */
export async function startRestore(context: RequestContext, { file, password }: Restoring): Promise<BookState> {
  const { store, studio, person, book, now } = context;
  const folder = folderOf(context);
  const me = orNotFound(await findOwn(store.people, { studioId: studio.id, id: person.id }));
  if (!(await rightPassword(me.passwordHash ?? null, password)))
    throw new Invalid([{ field: 'password', message: 'This is not your password.' }]);
  const { trouble } = await said(() => describeBackup(folder, file));
  if (trouble !== null) throw new Invalid([{ field: 'file', message: trouble }]);
  const erased = await said(() => erasedBeside(folder));
  return startJob(context, 'restore', async (progress, signal) => {
    const { databaseUrl, keep } = book;
    // The one that is restored is not let go for it.
    await makeBackup(databaseUrl, folder, { why: 'before a restore', now, keep: keep + 1, signal });
    const by = person.id;
    const { madeAt } = await restoreArchive(databaseUrl, backupPath(folder, file), {
      ...{ erased, replace: true, by, now, progress, signal },
    });
    return `The book is what it was on ${madeAt.slice(0, 16).replace('T', ' ')} UTC.`;
  });
}

/** Stops what is done with the book; what was begun of it is taken back. @throws Forbidden */
export async function stopJob(context: RequestContext): Promise<BookState> {
  const job = await findNewestJob(context.store, context.studio.id);
  if (job) await setJobAside(context.store, job.id, 'stopped', 'It was stopped; nothing was changed.');
  return showBook(context);
}

/** Does something with the book behind the answer; how far it is stands in the book, so that every server can tell, and stop it. */
async function startJob(context: RequestContext, kind: JobKind, work: JobWork): Promise<BookState> {
  const { store, studio, book } = context;
  const id = await beginJob(store, studio.id, kind);
  void runJob(book.databaseUrl, id, work);
  return showBook(context);
}

/** Does something with the book, and waits until it is done. @throws Invalid where something else is done with it just now */
export async function runJobOf(
  { store, databaseUrl, studioId }: { readonly store: Store; readonly databaseUrl: string; readonly studioId: string },
  kind: JobKind,
  work: JobWork,
): Promise<void> {
  await runJob(databaseUrl, await beginJob(store, studioId, kind), work);
}

type JobKind = (typeof JOB_KINDS)[number];
type JobWork = (progress: Progress, signal: AbortSignal) => Promise<string>;

/** Writes down that something begins, one thing at a time whatever the server. @throws Invalid */
function beginJob(store: Store, studioId: string, kind: JobKind): Promise<string> {
  return store.inTransaction(async () => {
    await store.lock('book job');
    await endCutJobs(store);
    const running = await findNewestJob(store, studioId);
    if (running?.state === 'running')
      throw new Invalid([
        { field: 'book', message: 'Something is done with the book just now; wait until it is done.' },
      ]);
    const at = new Date();
    return (await addRow(store.bookJobs, { studioId, kind, startedAt: at, seenAt: at })).id;
  });
}

async function runJob(
  databaseUrl: string,
  id: string,
  work: (progress: Progress, signal: AbortSignal) => Promise<string>,
): Promise<void> {
  const store: Store = openStore(databaseUrl);
  const stopping = new AbortController();
  let at = { done: 0, total: 0 };
  const tell = async () => {
    if (!(await seeJob(store, id, at))) stopping.abort();
  };
  // Also while nothing comes forward it gives signs of life.
  const life = setInterval(() => void tell().catch(() => undefined), SAY_MS);
  try {
    const says = await work((done, total) => void (at = { done, total }), stopping.signal);
    await tell();
    await setJobAside(store, id, 'done', says);
  } catch (error) {
    await setJobAside(store, id, 'failed', sayTrouble(error)).catch(() => undefined);
  } finally {
    clearInterval(life);
    await store.close();
  }
}

function sayTrouble(error: unknown): string {
  if (error instanceof Trouble) return error.message;
  const code = databaseTrouble(error)?.code;
  return `It could not be done${code === undefined ? '' : ` (${code})`}; nothing was changed.`;
}

/** Trouble with a book as what is wrong with what was asked. */
async function said<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof BookTrouble) throw new Invalid([{ field: 'file', message: error.message }]);
    throw error;
  }
}

/** A backup as a file. @throws Forbidden, Invalid where there is none */
export async function takeBackup(context: RequestContext, file: string): Promise<FileGiven> {
  const folder = folderOf(context);
  const path = await said(async () => {
    await describeBackup(folder, file);
    return backupPath(folder, file);
  });
  await trace(context, 'took a backup');
  return { name: file, path };
}

/** Puts a backup from elsewhere beside the others. @throws Forbidden, Invalid where it is none, is cut, or of a newer version */
export async function takeInBackup(context: RequestContext, sent: Readable): Promise<Backup> {
  const folder = folderOf(context);
  const backup = await said(() => bringBackup(folder, sent, context.now));
  await trace(context, 'brought a backup');
  return backup;
}
