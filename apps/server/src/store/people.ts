import { within, type Store } from './database.ts';

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
export function findStudents(
  store: Store,
  studioId: string,
): Promise<readonly { id: string; name: string; frets: number }[]> {
  return store.rows(`SELECT id, name, frets FROM people WHERE studio_id = $1 AND role = 'student' ORDER BY name`, [
    studioId,
  ]);
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
  person: { studioId: string; role: string; name: string; signInName: string; passwordHash: string; frets: number },
): Promise<string> {
  return (await store.people.create(person, within(store))).id;
}
