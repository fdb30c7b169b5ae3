import { hash, verify } from '@node-rs/argon2';
import type { Me, Role, SignIn } from '@jam-ledger/contract';
import { ROLES } from '@jam-ledger/contract';
import { findPersonById, findPersonBySignIn, type PersonRow, type Store } from '../store/index.ts';
import { WrongSignIn } from './trouble.ts';
import { dayOf, type Visit } from './visit.ts';

/** A hash of nobody's password, so that an unknown name takes as long as a known one. */
let nobodysHash: Promise<string> | undefined;

/** The hash that is stored for a password (argon2id). */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

/** The person whose name and password these are. @throws WrongSignIn */
export async function signIn(store: Store, { name, password }: SignIn): Promise<PersonRow> {
  const person = await findPersonBySignIn(store, name);
  nobodysHash ??= hash('nobody');
  const right = await verify(person?.passwordHash ?? (await nobodysHash), password);
  if (!person || !right) throw new WrongSignIn();
  return person;
}

/** The visit of a signed-in person; undefined when they are no longer in the studio. */
export async function visitOf(store: Store, personId: string, now: Date): Promise<Visit | undefined> {
  const row = await findPersonById(store, personId);
  if (!row) return undefined;
  return {
    store,
    person: { id: row.id, name: row.name, role: roleOf(row.role) },
    studio: { id: row.studioId, name: row.studioName, zone: row.zone },
    now,
  };
}

/** What the interface shows of the person signed in. */
export function describeMe(visit: Visit): Me {
  const { person, studio } = visit;
  return { ...person, studio: { name: studio.name, zone: studio.zone, today: dayOf(visit) } };
}

function roleOf(text: string): Role {
  return ROLES.find((role) => role === text) ?? 'student';
}
