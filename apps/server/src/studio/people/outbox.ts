import type { Mail } from '@jam-ledger/contract';
import { addRow, findHousehold, findMail, type PersonModel } from '../../store/index.ts';
import { writeMailFile } from './mailFiles.ts';
import { type RequestContext } from '../context/context.ts';

/** A message, before it is known to whom. */
export interface Message {
  readonly subject: string;
  readonly body: string;
}

/** Most messages shown. Our choice. */
const MAX_SHOWN = 100;

/** Puts a message to one person into the outbox; nothing leaves the machine. */
export async function writeTo(
  { store, studio, now }: RequestContext,
  personId: string,
  message: Message,
  aboutId: string | null = null,
): Promise<void> {
  await addRow(store.outbox, { ...message, studioId: studio.id, personId, aboutId, madeAt: now });
}

/**
 * Puts a message with a link into the outbox without it; with it, it is written for a mail system, where the person has an address and it
 * is known where the studio is reached. Whether it was.
 */
export async function writeLink(
  { store, studio, now, book }: RequestContext,
  person: Pick<PersonModel, 'id' | 'name' | 'email'>,
  { subject, body, path }: Message & { readonly path: string },
): Promise<boolean> {
  const { mailFolder, publicUrl } = book;
  const address = person.email;
  const isMailed = address != null && mailFolder !== undefined && publicUrl !== undefined;
  const row = { subject, body, studioId: studio.id, personId: person.id, aboutId: person.id, madeAt: now };
  const { id } = await addRow(store.outbox, { ...row, writtenAt: isMailed ? now : null });
  if (!isMailed) return false;
  const words = `${body}\n\n${publicUrl}${path}\n`;
  await writeMailFile(mailFolder, {
    ...{ id, studio: studio.name, to: { name: person.name, address }, subject, body: words, at: now, hasLink: true },
  });
  return true;
}

/** Puts a message to a student and their guardians into the outbox, but not to whoever is writing. */
export async function writeHome(context: RequestContext, studentId: string, message: Message): Promise<void> {
  const people = await findHousehold(context.store, context.studio.id, studentId);
  for (const { id } of people) if (id !== context.person.id) await writeTo(context, id, message, studentId);
}

/** The newest messages that would have been sent, the last first: all for the owner, a teacher’s own. @throws Forbidden */
export async function listMail(context: RequestContext): Promise<readonly Mail[]> {
  const { store, studio, person } = context;
  const teacherId = person.role === 'owner' ? undefined : person.id;
  const rows = await findMail(store, studio.id, { teacherId, max: MAX_SHOWN });
  return rows.map(({ madeAt, ...mail }) => ({ ...mail, at: madeAt.toISOString() }));
}
