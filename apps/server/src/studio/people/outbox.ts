import type { Mail } from '@jam-ledger/contract';
import { addRow, findHousehold, findMail } from '../../store/index.ts';
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
): Promise<void> {
  await addRow(store.outbox, { ...message, studioId: studio.id, personId, madeAt: now });
}

/** Puts a message to a student and their guardians into the outbox, but not to whoever is writing. */
export async function writeHome(context: RequestContext, studentId: string, message: Message): Promise<void> {
  const people = await findHousehold(context.store, context.studio.id, studentId);
  for (const { id } of people) if (id !== context.person.id) await writeTo(context, id, message);
}

/** The newest messages that would have been sent, the last first: all for the owner, a teacher’s own. @throws Forbidden */
export async function listMail(context: RequestContext): Promise<readonly Mail[]> {
  const { store, studio, person } = context;
  const teacherId = person.role === 'owner' ? undefined : person.id;
  const rows = await findMail(store, studio.id, { teacherId, max: MAX_SHOWN });
  return rows.map(({ madeAt, ...mail }) => ({ ...mail, at: madeAt.toISOString() }));
}
