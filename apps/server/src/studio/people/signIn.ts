import { hash, verify } from '@node-rs/argon2';
import type { Me, Role, SignIn } from '@jam-ledger/contract';
import { ROLES } from '@jam-ledger/contract';
import { findPersonById, findPersonBySignIn, findWards, type PersonRow, type Store } from '../../store/index.ts';
import { taughtAs } from './students.ts';
import { Forbidden, WrongSignIn } from '../context/errors.ts';
import { dayOf, NO_KEEPING, type BookKeeping, type RequestContext } from '../context/context.ts';

/** A hash of nobody's password, so that an unknown name takes as long as a known one. */
let nobodysHash: Promise<string> | undefined;

/** The hash that is stored for a password (argon2id). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** The person whose name and password these are. @throws WrongSignIn; Forbidden for somebody who was put away. */
export async function signIn(store: Store, { name, password }: SignIn): Promise<PersonRow> {
  const person = await findPersonBySignIn(store, name);
  const right = await rightPassword(person?.passwordHash ?? null, password);
  if (!person || !right) throw new WrongSignIn();
  if (person.archivedAt) throw new Forbidden('You are no longer in this book; the studio can take you back into it.');
  return person;
}

/** Whether a password is the one with this hash; takes as long where there is none. */
export async function rightPassword(passwordHash: string | null, password: string): Promise<boolean> {
  nobodysHash ??= hash('nobody');
  return (await verify(passwordHash ?? (await nobodysHash), password)) && passwordHash !== null;
}

/** What stands around a request, whoever asks. */
interface Around {
  readonly sessionId?: string;
  readonly now: Date;
  readonly book?: BookKeeping;
}

/** What a request of a person is answered from; undefined when they are no longer in the studio. */
export async function contextOf(
  store: Store,
  { personId, ...around }: Around & { readonly personId: string },
): Promise<RequestContext | undefined> {
  return contextOfPerson(store, await findPersonById(store, personId), around);
}

/** The same, where the person was looked up already. */
export async function contextOfPerson(
  store: Store,
  row: PersonRow | undefined,
  { sessionId = '', now, book = NO_KEEPING }: Around,
): Promise<RequestContext | undefined> {
  if (!row || row.archivedAt) return undefined;
  const role = roleOf(row.role);
  return {
    store,
    person: { id: row.id, name: row.name, signInName: row.signInName ?? '', role },
    studio: { id: row.studioId, name: row.studioName, demo: row.demo, zone: row.zone, holidays: row.holidays },
    wards: role === 'guardian' ? await findWards(store, row.studioId, row.id) : [],
    now,
    snapshot: row.snapshot,
    book,
    sessionId,
  };
}

/** What the interface shows of the person signed in. */
export async function describeMe(context: RequestContext): Promise<Me> {
  const { person, studio, wards } = context;
  const { name, demo, zone, holidays } = studio;
  return {
    ...person,
    wards,
    taught: await taughtAs(context),
    studio: { name, demo, zone, holidays, today: dayOf(context) },
  };
}

function roleOf(text: string): Role {
  return ROLES.find((role) => role === text) ?? 'guardian';
}
