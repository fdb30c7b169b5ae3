import { timingSafeEqual } from 'node:crypto';
import type { Beginning, BeginningBody } from '@jam-ledger/contract';
import { addPerson, addStudio, emptyBook, findStudioKinds, type Store } from '../../store/index.ts';
import { Forbidden, Invalid } from '../context/errors.ts';
import { digestOf } from '../context/tokens.ts';
import { requireStrong } from './password.ts';
import { hashPassword } from './signIn.ts';
import { checkZone } from './zone.ts';

const BEGUN = 'A studio was begun here already; whoever owns it invites you.';

/** Whether a studio of one’s own can be begun here: with a key that is known to whoever started the server, as long as none was. */
export async function showBeginning(store: Store, beginKey: string | undefined): Promise<Beginning> {
  const { own, demo } = await findStudioKinds(store);
  return { open: beginKey !== undefined && !own, demo };
}

/**
 * Begins a studio of somebody’s own, with them as its owner; the demo studio, whoever is signed in there and all that is theirs goes in
 * the same transaction. Who the owner is. @throws Forbidden where none can be begun; Invalid for a wrong key, a zone that is not
 * there or a password that is easy to guess
 */
export async function beginStudio(
  store: Store,
  beginKey: string | undefined,
  { key, studio, zone, name, signInName, password }: BeginningBody,
): Promise<{ readonly id: string; readonly studioId: string }> {
  if (beginKey === undefined || (await findStudioKinds(store)).own) throw new Forbidden(BEGUN);
  if (!isSame(key.trim(), beginKey))
    throw new Invalid([{ field: 'key', message: 'This is not the key that the start command told.' }]);
  const zoneProblems = checkZone(zone);
  if (zoneProblems.length > 0) throw new Invalid(zoneProblems);
  await requireStrong(password, [signInName, name, studio]);
  const passwordHash = await hashPassword(password);
  return store.inTransaction(async () => {
    // Of two who begin at once, and of a server that is entering the demo, one goes first.
    await store.lock('demo');
    const { own, demo } = await findStudioKinds(store);
    if (own) throw new Forbidden(BEGUN);
    if (demo) await emptyBook(store);
    const studioId = await addStudio(store, { name: studio, zone });
    const id = await addPerson(store, { studioId, role: 'owner', name, signInName: signInName.trim(), passwordHash });
    return { id, studioId };
  });
}

/** Compares without telling by its time how much was right. */
function isSame(a: string, b: string): boolean {
  return timingSafeEqual(Buffer.from(digestOf(a)), Buffer.from(digestOf(b)));
}
