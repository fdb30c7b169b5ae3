import { addOnce, findDevice, type Store } from '../../store/index.ts';
import { trace } from '../book/trail.ts';
import type { RequestContext } from '../context/context.ts';
import { digestOf, makeToken } from '../context/tokens.ts';

/** Whether somebody has signed in on a device before, by their name and what its browser keeps. */
export async function isKnownDevice(store: Store, signInName: string, token: string): Promise<boolean> {
  return findDevice(store, signInName, digestOf(token));
}

/** Lets the device that somebody just signed in on be known again; what its browser keeps for that. A new one is told in the trail. */
export async function knowDevice(context: RequestContext, kept: string | undefined): Promise<string> {
  const { store, studio, person, now } = context;
  const token = kept ?? makeToken();
  const isKnown = kept !== undefined && (await isKnownDevice(store, person.signInName, kept));
  if (isKnown) return token;
  await store.inTransaction(async () => {
    await addOnce(store.devices, {
      studioId: studio.id,
      personId: person.id,
      tokenHash: digestOf(token),
      firstAt: now,
    });
    await trace(context, 'signed in on a new device', { aboutId: person.id });
  });
  return token;
}
