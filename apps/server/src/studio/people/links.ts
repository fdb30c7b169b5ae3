import type { Invitation } from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { addRow, endInvitations, findRows, type Store } from '../../store/index.ts';
import { writeTrail } from '../book/trail.ts';
import { digestOf, makeToken } from '../context/tokens.ts';
import { NotFound } from '../context/errors.ts';

/** An invitation can be used for so long, days. Our choice. */
const INVITED_DAYS = 14;

/** Whose link it is, and who hands it on. */
interface Linked {
  readonly studioId: string;
  readonly personId: string;
  readonly madeBy: string;
  readonly now: Date;
}

/** Makes a link that works once; earlier ones of the same person no longer hold, and only a digest of its token is kept. */
export async function makeLink(store: Store, { studioId, personId, madeBy, now }: Linked): Promise<Invitation> {
  const token = makeToken();
  const expiresAt = DateTime.fromJSDate(now).plus({ days: INVITED_DAYS }).toJSDate();
  await endInvitations(store, studioId, personId, now);
  await addRow(store.invitations, { studioId, personId, madeBy, tokenHash: digestOf(token), expiresAt });
  return { path: `/welcome/${token}`, expiresAt: expiresAt.toISOString() };
}

/**
 * A link for an owner who forgot their password, for whoever runs the machine. By name where there are several owners.
 * @throws NotFound where there is no such owner, or it is not clear which
 */
export async function ownerLink(
  store: Store,
  { name, now }: { readonly name: string | undefined; readonly now: Date },
): Promise<Invitation & { readonly name: string }> {
  const owners = await findRows(store.people, { role: 'owner', archivedAt: null });
  const names = owners.map((owner) => owner.name).join(', ');
  const fitting = owners.filter((owner) => name === undefined || owner.name === name);
  const [owner, other] = fitting;
  if (!owner)
    throw new NotFound(
      owners.length === 0 ? 'No studio is begun here.' : `No owner is called “${name ?? ''}”; there is ${names}.`,
    );
  if (other) throw new NotFound(`There are several owners, ${names}; say which with --name.`);
  const { id, studioId } = owner;
  await writeTrail(store, { studioId, at: now, personId: null, act: 'made a link for', aboutId: id });
  return { name: owner.name, ...(await makeLink(store, { studioId, personId: id, madeBy: id, now })) };
}
