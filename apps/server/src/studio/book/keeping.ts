import { EDITIONS, openSnapshot, type Store } from '../../store/index.ts';
import type { BookKeeping } from '../context/context.ts';
import { listBackups, makeBackup } from './backups.ts';
import { runJobOf } from './book.ts';
import { eraseDue } from './erasePerson.ts';

/**
 * Makes a backup of a book that is about to be brought to a newer version; what it is called, or undefined where there is nothing to
 * back up, or nowhere to. @throws BookTrouble; then nothing must be changed
 */
export async function backupBeforeMigrating(
  { databaseUrl, backupFolder, keep }: BookKeeping,
  now: Date,
): Promise<string | undefined> {
  if (backupFolder === undefined) return undefined;
  const { edition, studios, close } = await openSnapshot(databaseUrl);
  await close();
  if (edition === null || edition === EDITIONS.at(-1) || studios.length === 0) return undefined;
  const { file } = await makeBackup(databaseUrl, backupFolder, { why: 'before a migration', now, keep });
  return file;
}

/** What was done with the book by itself. */
export interface Kept {
  readonly erased: number;
  /** Whether a backup was begun. */
  readonly isBackedUp: boolean;
}

const HOUR_MS = 60 * 60 * 1000;

/** Erases whoever waited long enough, and makes a backup where the newest is older than it should be; to be asked now and then. */
export async function keepBook(store: Store, book: BookKeeping, now: Date): Promise<Kept> {
  const { backupFolder, everyHours, databaseUrl, keep } = book;
  const erased = await eraseDue(store, now, backupFolder);
  if (backupFolder === undefined || everyHours === 0) return { erased, isBackedUp: false };
  const [newest] = await listBackups(backupFolder);
  const age = newest ? now.getTime() - Date.parse(newest.madeAt) : Infinity;
  const studio = await store.studios.findOne();
  if (age < everyHours * HOUR_MS || !studio) return { erased, isBackedUp: false };
  await runJobOf({ store, databaseUrl, studioId: studio.id }, 'backup', async (progress, signal) => {
    const { file } = await makeBackup(databaseUrl, backupFolder, { why: 'by schedule', now, keep, progress, signal });
    return `${file} is made.`;
  });
  return { erased, isBackedUp: true };
}
