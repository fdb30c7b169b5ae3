import { chmod, mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import nodemailer from 'nodemailer';
import { findUnwritten, markWritten, type Store } from '../../store/index.ts';

/** A message as it is written for a mail system. */
export interface MailFile {
  /** The same for the same message, so that it is never twice. */
  readonly id: string;
  readonly studio: string;
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly body: string;
  readonly at: Date;
  /** Whether a link stands in it that opens a door; such a file goes after a day. */
  readonly hasLink?: boolean;
}

/** What messages come from; no such machine exists (RFC 2606), so that a mail system puts its own in its place. */
const FROM = 'studio@jam-ledger.invalid';
/** So many are written at once. Our choice. */
const AT_ONCE = 50;
/** A file with a link that nobody took goes after so long, milliseconds. */
const LINK_MS = 24 * 60 * 60 * 1000;

const transport = nodemailer.createTransport({ streamTransport: true, buffer: true, newline: 'unix' });

/**
 * Writes a message as a file (RFC 5322) into `new` of a folder, where a mail system takes it: first into `tmp`, then renamed, so that
 * nobody reads half of one (common practice for folders of mail). Mode 0600.
 */
export async function writeMailFile(
  folder: string,
  { id, studio, to, subject, body, at, hasLink = false }: MailFile,
): Promise<void> {
  const { message } = await transport.sendMail({
    ...{ from: { name: studio, address: FROM }, to, subject, text: body, date: at },
    messageId: `<${id}@jam-ledger.invalid>`,
    // Whoever is away answers a person, and no studio (RFC 3834).
    headers: { 'Auto-Submitted': 'auto-generated' },
  });
  if (!Buffer.isBuffer(message)) throw new Error('the message was not made as a whole');
  for (const one of ['tmp', 'new', 'cur']) await mkdir(join(folder, one), { recursive: true, mode: 0o700 });
  const name = `${id}${hasLink ? LINK : ''}.eml`;
  await writeFile(join(folder, 'tmp', name), message, { mode: 0o600, flush: true });
  await chmod(join(folder, 'tmp', name), 0o600);
  await rename(join(folder, 'tmp', name), join(folder, 'new', name));
}

const LINK = '-link';

/**
 * Writes the messages of the outbox that go to somebody with an address and were not written yet; how many that were. Several servers
 * share the work, and none writes one that another does.
 */
export async function writeMail(store: Store, folder: string, now: Date): Promise<number> {
  const written = await store.inTransaction(async () => {
    const rows = await findUnwritten(store, AT_ONCE);
    for (const { id, studio, name, address, subject, body, madeAt } of rows)
      await writeMailFile(folder, { id, studio, to: { name, address }, subject, body, at: madeAt });
    await markWritten(
      store,
      rows.map(({ id }) => id),
      now,
    );
    return rows.length;
  });
  await letLinksGo(folder, now);
  return written;
}

/** Takes files with links away that nobody took within a day. */
async function letLinksGo(folder: string, now: Date): Promise<void> {
  for (const name of await readdir(join(folder, 'new')).catch((): readonly string[] => [])) {
    if (!name.endsWith(`${LINK}.eml`)) continue;
    const file = join(folder, 'new', name);
    const made = (await stat(file).catch(() => undefined))?.mtimeMs ?? Infinity;
    if (now.getTime() - made > LINK_MS) await rm(file, { force: true });
  }
}
