import type { Schools } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import type { Store } from './database.ts';
import type { GuardianModel, PersonModel, StudioModel, WithPerson } from './models.ts';

/** A person with their studio. */
export interface PersonRow {
  readonly id: string;
  readonly studioId: string;
  readonly studioName: string;
  readonly zone: string;
  readonly demo: boolean;
  readonly role: string;
  readonly name: string;
  /** Both null until they accept an invitation. */
  readonly signInName: string | null;
  readonly passwordHash: string | null;
  readonly holidays: readonly Holiday[];
  readonly archivedAt: Date | null;
  /** What of the database the query saw: the same as long as no transaction that wrote has ended since. */
  readonly snapshot: string;
}

/** A guitar and a hand, as the database keeps them. */
type GuitarColumns = Pick<
  PersonModel,
  'frets' | 'strings' | 'scaleLengthMm' | 'tremoloArm' | 'leftHanded' | 'spanFrets' | keyof Schools
>;

/** What a `PersonRow` is made of, of a person `p` and their studio `s`. */
export const PERSON_COLUMNS = `p.id, p.studio_id AS "studioId", s.name AS "studioName", s.zone, s.demo, p.role, p.name,
  p.sign_in_name AS "signInName", p.password_hash AS "passwordHash", s.holidays, p.archived_at AS "archivedAt",
  pg_current_snapshot()::text AS snapshot`;

const PERSON = `SELECT ${PERSON_COLUMNS} FROM people p JOIN studios s ON s.id = p.studio_id`;

/**
 * The person who signs in with a name, whatever its case.
 * SQL by hand: it stands before every request, in one query with the studio.
 */
export async function findPersonBySignIn(store: Store, name: string): Promise<PersonRow | undefined> {
  return (await store.rows<PersonRow>(`${PERSON} WHERE lower(p.sign_in_name) = lower($1)`, [name]))[0];
}

/** The person with an id. SQL by hand: it stands before every request, in one query with the studio. */
export async function findPersonById(store: Store, id: string): Promise<PersonRow | undefined> {
  return (await store.rows<PersonRow>(`${PERSON} WHERE p.id = $1`, [id]))[0];
}

/** The students of a studio by name, those who left aside. */
export function findStudents(store: Store, studioId: string): Promise<PersonModel[]> {
  return store.people.findAll({
    where: { studioId, role: 'student', archivedAt: null },
    order: ['name', 'id'],
  });
}

/** Somebody of the studio, as the list of people has them. */
export interface ListedPerson {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly role: string;
  readonly signsIn: boolean;
  readonly invitedUntil: Date | null;
  readonly archivedAt: Date | null;
  readonly wards: readonly { readonly id: string; readonly name: string }[];
  readonly teacherId: string | null;
  readonly teacherName: string | null;
  readonly email: string | null;
  readonly eraseOn: string | null;
  readonly lessonsToCome: number;
}

/**
 * Everybody of a studio, or the one with an id, those who are here first.
 * SQL by hand: what is asked of lessons and invitations would be a query a person.
 */
export function findPeople(
  store: Store,
  studioId: string,
  { now, id }: { readonly now: Date; readonly id?: string },
): Promise<readonly ListedPerson[]> {
  return store.rows<ListedPerson>(
    `SELECT p.id, p.version, p.name, p.role, p.password_hash IS NOT NULL AS "signsIn", p.archived_at AS "archivedAt",
            (SELECT max(i.expires_at) FROM invitations i
              WHERE i.studio_id = p.studio_id AND i.person_id = p.id AND i.used_at IS NULL AND i.expires_at > $2) AS "invitedUntil",
            (SELECT coalesce(json_agg(json_build_object('id', w.id, 'name', w.name) ORDER BY w.name), '[]')
               FROM guardians g JOIN people w ON w.studio_id = g.studio_id AND w.id = g.student_id
              WHERE g.studio_id = p.studio_id AND g.guardian_id = p.id) AS wards,
            p.teacher_id AS "teacherId", t.name AS "teacherName", p.email, p.erase_on::text AS "eraseOn",
            (SELECT count(*)::int FROM series e JOIN lessons l ON l.studio_id = e.studio_id AND l.series_id = e.id
              WHERE e.studio_id = p.studio_id AND e.student_id = p.id AND NOT e.struck AND l.starts_at > $2) AS "lessonsToCome"
       FROM people p
       LEFT JOIN people t ON t.studio_id = p.studio_id AND t.id = p.teacher_id
      WHERE p.studio_id = $1 AND ($3::uuid IS NULL OR p.id = $3)
      ORDER BY p.archived_at IS NOT NULL, array_position(ARRAY['owner', 'teacher', 'student', 'guardian'], p.role), p.name, p.id`,
    [studioId, now.toISOString(), id ?? null],
  );
}

/** The students whose pages a guardian reads, those who left aside. */
export async function findWards(
  store: Store,
  studioId: string,
  guardianId: string,
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  const rows: readonly (GuardianModel & Partial<WithPerson>)[] = await store.guardians.findAll({
    where: { studioId, guardianId },
    include: { model: store.people, as: 'person', attributes: ['id', 'name'], where: { archivedAt: null } },
    order: [
      ['person', 'name', 'ASC'],
      ['person', 'id', 'ASC'],
    ],
  });
  return rows.flatMap(({ person }) => (person ? [{ id: person.id, name: person.name }] : []));
}

/** Makes the wards of a guardian those given. SQL by hand: what is there already stays, in two statements whatever their number. */
export async function keepWards(
  store: Store,
  { studioId, guardianId }: { readonly studioId: string; readonly guardianId: string },
  wards: readonly string[],
): Promise<void> {
  await store.rows(
    `DELETE FROM guardians WHERE studio_id = $1 AND guardian_id = $2 AND NOT (student_id = ANY ($3::uuid[])) RETURNING id`,
    [studioId, guardianId, wards],
  );
  await store.rows(
    `INSERT INTO guardians (studio_id, guardian_id, student_id) SELECT $1, $2, w FROM unnest($3::uuid[]) w
     ON CONFLICT DO NOTHING RETURNING id`,
    [studioId, guardianId, wards],
  );
}

/** A student and their guardians, as far as mail goes to them. SQL by hand: a row and what hangs on it, in one query. */
export function findHousehold(
  store: Store,
  studioId: string,
  studentId: string,
): Promise<readonly { readonly id: string }[]> {
  return store.rows(
    `SELECT p.id FROM people p WHERE p.studio_id = $1 AND p.archived_at IS NULL
        AND (p.id = $2 OR p.id IN (SELECT g.guardian_id FROM guardians g WHERE g.studio_id = $1 AND g.student_id = $2))`,
    [studioId, studentId],
  );
}

/**
 * An invitation that was neither used nor is over, by the digest of its token.
 * SQL by hand: the digest is compared where it is kept.
 */
export async function findInvitation(
  store: Store,
  tokenHash: string,
  now: Date,
): Promise<{ readonly id: string; readonly personId: string; readonly signInName: string | null } | undefined> {
  const rows = await store.rows<{ id: string; personId: string; signInName: string | null }>(
    `SELECT i.id, i.person_id AS "personId", p.sign_in_name AS "signInName"
       FROM invitations i JOIN people p ON p.studio_id = i.studio_id AND p.id = i.person_id
      WHERE i.token_hash = $1 AND i.used_at IS NULL AND i.expires_at > $2 AND p.archived_at IS NULL`,
    [tokenHash, now.toISOString()],
  );
  return rows[0];
}

/**
 * Uses an invitation up; whether it was there to be used. Of two at once only one is told so.
 * SQL by hand: of two at once only one may be told so, which one UPDATE does.
 */
export async function useInvitation(store: Store, id: string, now: Date): Promise<boolean> {
  const rows = await store.rows(
    `UPDATE invitations SET used_at = $2, version = version + 1
      WHERE id = $1 AND used_at IS NULL AND expires_at > $2 RETURNING id`,
    [id, now.toISOString()],
  );
  return rows.length > 0;
}

/** Ends the invitations of somebody that were not used. SQL by hand: it counts up versions of many rows at once. */
export async function endInvitations(store: Store, studioId: string, personId: string, now: Date): Promise<void> {
  await store.rows(
    `UPDATE invitations SET expires_at = $3, version = version + 1
      WHERE studio_id = $1 AND person_id = $2 AND used_at IS NULL AND expires_at > $3 RETURNING id`,
    [studioId, personId, now.toISOString()],
  );
}

/** Signs somebody out everywhere but in one session. SQL by hand: the table of sessions is not ours to model. */
export async function endSessions(store: Store, personId: string, but: string): Promise<void> {
  await store.rows(`DELETE FROM sessions WHERE sess ->> 'personId' = $1 AND sid <> $2 RETURNING 1`, [personId, but]);
}

/** A message with the name of whom it is to. */
export interface MailRow {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly body: string;
  readonly madeAt: Date;
}

/**
 * The newest messages of a studio, the last first; with a teacher, those to them, their students and the guardians of these.
 * SQL by hand: whose mail it is hangs on teachers of students of guardians.
 */
export function findMail(
  store: Store,
  studioId: string,
  { teacherId, max }: { readonly teacherId: string | undefined; readonly max: number },
): Promise<readonly MailRow[]> {
  return store.rows<MailRow>(
    `SELECT o.id, p.name AS "to", o.subject, o.body, o.made_at AS "madeAt"
       FROM outbox o JOIN people p ON p.studio_id = o.studio_id AND p.id = o.person_id
      WHERE o.studio_id = $1
        AND ($3::uuid IS NULL OR p.id = $3 OR p.role = 'student' AND (p.teacher_id = $3 OR p.teacher_id IS NULL)
             OR EXISTS (SELECT 1 FROM guardians g JOIN people w ON w.studio_id = g.studio_id AND w.id = g.student_id
                         WHERE g.studio_id = $1 AND g.guardian_id = p.id AND (w.teacher_id = $3 OR w.teacher_id IS NULL)))
      ORDER BY o.line DESC LIMIT $2`,
    [studioId, max, teacherId ?? null],
  );
}

/** The studio itself. */
export function findStudio(store: Store, id: string): Promise<StudioModel | null> {
  return store.studios.findOne({ where: { id } });
}

/** How a studio teaches. */
type TaughtAs = Partial<Pick<StudioModel, keyof Schools | 'name' | 'workMinutes' | 'zone' | 'holidays'>>;

/** Changes how the studio teaches if it still has the version the person saw; whether it had. */
export async function saveStudio(
  store: Store,
  { id, version }: { id: string; version: number },
  changes: TaughtAs,
): Promise<boolean> {
  const values = { ...changes, version: version + 1 };
  const [count] = await store.studios.update(values, { where: { id, version } });
  return count > 0;
}

/** Whether there is a studio of somebody’s own, and whether there is the demo. */
export async function findStudioKinds(store: Store): Promise<{ readonly own: boolean; readonly demo: boolean }> {
  const [own, demo] = await Promise.all([false, true].map((kind) => store.studios.count({ where: { demo: kind } })));
  return { own: (own ?? 0) > 0, demo: (demo ?? 0) > 0 };
}

/** Whether there is no studio yet. */
export async function isEmpty(store: Store): Promise<boolean> {
  return (await store.studios.count()) === 0;
}

/** Enters a studio. */
export async function addStudio(store: Store, studio: { name: string; zone: string; demo?: boolean }): Promise<string> {
  return (await store.studios.create(studio)).id;
}

/** Enters a person. */
export async function addPerson(
  store: Store,
  person: Pick<PersonModel, 'studioId' | 'role' | 'name'> &
    Partial<Pick<PersonModel, 'signInName' | 'passwordHash' | 'teacherId'> & GuitarColumns>,
): Promise<string> {
  return (await store.people.create(person)).id;
}
