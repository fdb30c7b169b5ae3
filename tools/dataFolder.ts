import { createHash, randomBytes } from 'node:crypto';
import { existsSync, statSync } from 'node:fs';
import { chmod, mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { fieldOf, Plain, reasonOf } from './plain.ts';
import type { Account } from './postgres.ts';

/** Says that a folder is ours, and holds the password of its database. */
export const MARK = 'jam-ledger.json';
/** Where the log files lie in a folder. */
export const LOGS = 'logs';
/** Where backups lie in a folder, and messages for a mail system. */
export const BACKUPS = 'backups';
export const MAIL = 'mail';
/** Where it is told who has a folder open, and at which port. */
export const runFile = (folder: string) => join(folder, 'running.json');
/** The mark while it is written. */
const PART = '.jam-ledger.json.part';

/** Where data is kept unless told otherwise: beside the application where the database's account can reach it, else under /var/lib. */
export function defaultFolder(root: string): string {
  if (process.getuid?.() !== 0 || isOpenTo(root)) return join(root, '.data');
  return join('/var/lib/jam-ledger', createHash('sha256').update(root).digest('hex').slice(0, 12));
}

/** Makes the folder ours and gives the password kept in it. @throws Plain */
export async function prepareFolder(folder: string, account: Account): Promise<string> {
  const mark = join(folder, MARK);
  if (existsSync(mark)) return readSecret(mark);
  const others = existsSync(folder)
    ? (await list(folder)).filter((name) => ![PART, LOGS, BACKUPS, MAIL].includes(name))
    : [];
  if (others.length > 0)
    throw new Plain(`The folder ${folder} is not empty and was not made by Jam Ledger; choose another with --data.`);
  await mkdir(folder, { recursive: true }).catch((error: unknown) => {
    throw new Plain(`The folder ${folder} cannot be made (${reasonOf(error)}); choose another with --data.`);
  });
  requireTraversable(folder, account);
  await chmod(folder, 0o755);
  const secret = randomBytes(24).toString('hex');
  // Whoever is cut here leaves no mark, or a whole one.
  await rm(join(folder, PART), { force: true });
  await writeFile(join(folder, PART), JSON.stringify({ secret }), { mode: 0o600 });
  await rename(join(folder, PART), mark);
  return secret;
}

async function readSecret(mark: string): Promise<string> {
  const text = await readFile(mark, 'utf8').catch((error: unknown) => {
    throw new Plain(
      `The folder ${dirname(mark)} belongs to somebody else (${reasonOf(error)}); choose another with --data.`,
    );
  });
  const secret = fieldOf(text, 'secret');
  if (typeof secret !== 'string') throw new Plain(`The file ${mark} is damaged; the data folder cannot be opened.`);
  return secret;
}

async function list(folder: string): Promise<readonly string[]> {
  return readdir(folder).catch((error: unknown) => {
    throw new Plain(`The folder ${folder} belongs to somebody else (${reasonOf(error)}); choose another with --data.`);
  });
}

/** Whether an account other than its owner may pass through a folder and every one above it. */
export function isOpenTo(folder: string): boolean {
  return closedAbove(folder) === undefined;
}

/** The folder, or the nearest one above it, that others may not pass through. */
function closedAbove(folder: string): string | undefined {
  for (let at = resolve(folder); ; at = dirname(at)) {
    if (existsSync(at) && (statSync(at).mode & 0o001) === 0) return at;
    if (at === dirname(at)) return undefined;
  }
}

function requireTraversable(folder: string, { uid }: Account): void {
  const closed = uid === undefined ? undefined : closedAbove(dirname(resolve(folder)));
  if (closed)
    throw new Plain(
      `The account “postgres” cannot reach ${folder}, since ${closed} is closed to it; choose another folder with --data.`,
    );
}
