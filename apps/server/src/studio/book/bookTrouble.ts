import { Trouble } from '../context/errors.ts';

/** Why a book was not written, read or filled. Carries a plain sentence; nothing was left half-done. */
export class BookTrouble extends Trouble {}

/** Work on a book that somebody stopped. */
export class Stopped extends Trouble {
  constructor() {
    super('It was stopped; nothing was changed.');
  }
}

/** The short code of an error of a file, `ENOENT`; empty where it has none. */
export function codeOf(error: unknown): string {
  return typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
}

const NO_ROOM: ReadonlySet<string> = new Set(['ENOSPC', 'EDQUOT', 'EFBIG']);
const NOT_OURS: ReadonlySet<string> = new Set(['EACCES', 'EPERM', 'EROFS']);

/** What went wrong with a file, as a sentence; the error itself where it was no file’s. */
export function fileTrouble(error: unknown, path: string): Error {
  const code = codeOf(error);
  if (NO_ROOM.has(code)) return new BookTrouble(`There is no room for ${path}; make some, then try again.`);
  if (NOT_OURS.has(code)) return new BookTrouble(`${path} cannot be written here (${code}).`);
  if (code === 'ENOENT') return new BookTrouble(`${path} is not there.`);
  if (code === 'ENOTDIR' || code === 'EISDIR' || code === 'EEXIST')
    return new BookTrouble(`${path} is no place for a file.`);
  return error instanceof Error ? error : new Error(String(error));
}
