import type { Schools } from '@jam-ledger/contract';
import { within, type Store } from './database.ts';
import type { PersonModel, StudioModel } from './models.ts';

/** A person with their studio. */
export interface PersonRow {
  readonly id: string;
  readonly studioId: string;
  readonly studioName: string;
  readonly zone: string;
  readonly role: string;
  readonly name: string;
  readonly passwordHash: string;
}

/** A guitar and a hand, as the database keeps them. */
type GuitarColumns = Pick<
  PersonModel,
  'frets' | 'strings' | 'scaleLengthMm' | 'tremoloArm' | 'leftHanded' | 'spanFrets' | keyof Schools
>;

const PERSON = `SELECT p.id, p.studio_id AS "studioId", s.name AS "studioName", s.zone, p.role, p.name,
                       p.password_hash AS "passwordHash"
                  FROM people p JOIN studios s ON s.id = p.studio_id`;

/** The person who signs in with a name, whatever its case. */
export async function findPersonBySignIn(store: Store, name: string): Promise<PersonRow | undefined> {
  return (await store.rows<PersonRow>(`${PERSON} WHERE lower(p.sign_in_name) = lower($1)`, [name]))[0];
}

/** The person with an id. */
export async function findPersonById(store: Store, id: string): Promise<PersonRow | undefined> {
  return (await store.rows<PersonRow>(`${PERSON} WHERE p.id = $1`, [id]))[0];
}

/** The students of a studio by name. */
export function findStudents(store: Store, studioId: string): Promise<PersonModel[]> {
  return store.people.findAll({ where: { studioId, role: 'student' }, order: ['name', 'id'], ...within(store) });
}

/** The studio itself. */
export function findStudio(store: Store, id: string): Promise<StudioModel | null> {
  return store.studios.findOne({ where: { id }, ...within(store) });
}

/** How a studio teaches. */
type TaughtAs = Partial<Pick<StudioModel, keyof Schools | 'workMinutes'>>;

/** Changes how the studio teaches if it still has the version the person saw; whether it had. */
export async function saveStudio(
  store: Store,
  { id, version }: { id: string; version: number },
  changes: TaughtAs,
): Promise<boolean> {
  const values = { ...changes, version: version + 1 };
  const [count] = await store.studios.update(values, { where: { id, version }, ...within(store) });
  return count > 0;
}

/** Whether there is no studio yet. */
export async function isEmpty(store: Store): Promise<boolean> {
  return (await store.studios.count(within(store))) === 0;
}

/** Enters a studio. */
export async function addStudio(store: Store, studio: { name: string; zone: string }): Promise<string> {
  return (await store.studios.create(studio, within(store))).id;
}

/** Enters a person. */
export async function addPerson(
  store: Store,
  person: Pick<PersonModel, 'studioId' | 'role' | 'name' | 'signInName' | 'passwordHash'> & Partial<GuitarColumns>,
): Promise<string> {
  return (await store.people.create(person, within(store))).id;
}
