import { createHash, randomBytes } from 'node:crypto';
import {
  ENTERED_ROLES,
  ROLES,
  type Acceptance,
  type EnteredRole,
  type Invitation,
  type PasswordChange,
  type Person,
  type PersonBody,
  type PersonChange,
  type PersonChanged,
  type Welcome,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import {
  addPerson,
  endInvitations,
  endSessions,
  findInvitation,
  findOwn,
  findPeople,
  findPersonById,
  findPersonBySignIn,
  keepWards,
  saveVersioned,
  useInvitation,
  within,
  type ListedPerson,
  type PersonModel,
  type Store,
} from '../store/index.ts';
import { found, kept, known } from './keep.ts';
import { writeTo } from './outbox.ts';
import { endOverlapping } from './series.ts';
import { hashPassword, rightPassword } from './signIn.ts';
import { Invalid, NotYours, Unknown } from './trouble.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** An invitation can be used for so long, days. Our choice. */
const INVITED_DAYS = 14;

/** Everybody of the studio, with invitations and wards. @throws NotYours for others than teachers. */
export async function listPeople(visit: Visit): Promise<readonly Person[]> {
  requireTeacher(visit);
  const rows = await findPeople(visit.store, visit.studio.id, { now: visit.now });
  return rows.map(describe);
}

/** Enters somebody: a teacher enters students and guardians, the owner teachers, too. @throws NotYours, Invalid */
export async function enterPerson(visit: Visit, { role, name, wards }: PersonBody): Promise<Person> {
  requireRoom(visit, role);
  await requireWards(visit, role, wards);
  const { store, studio, person } = visit;
  const teacherId = role === 'student' && person.role === 'teacher' ? person.id : null;
  return store.atOnce(async (inside) => {
    const id = await addPerson(inside, { studioId: studio.id, role, name, teacherId });
    await keepWards(inside, { studioId: studio.id, guardianId: id }, wards);
    return show({ ...visit, store: inside }, id);
  });
}

/**
 * Changes somebody’s name, wards or teacher, puts them away, or takes that back. Whoever is put away is signed out at once and
 * their lessons leave the desk; nothing of theirs is lost. When a student comes back, series whose hours others have by now are
 * ended and named. @throws NotYours, Unknown, Stale, Invalid
 */
export async function changePerson(visit: Visit, id: string, change: PersonChange): Promise<PersonChanged> {
  const { store, studio, now } = visit;
  const before = found(await findOwn(store, store.people, { studioId: studio.id, id }));
  const role = ENTERED_ROLES.find((one) => one === before.role);
  if (!role) throw new NotYours('The owner is not changed here.');
  requireRoom(visit, role);
  await requireWards(visit, role, change.wards);
  await requireTeacherOf(visit, role, change.teacherId);
  const { version, wards, archived, ...values } = change;
  return store.atOnce(async (inside) => {
    const within = { ...visit, store: inside };
    const archivedAt = archived ? (before.archivedAt ?? now) : null;
    const saved = await saveVersioned(
      inside,
      inside.people,
      { studioId: studio.id, id, version },
      { ...values, archivedAt },
    );
    await kept(saved, () => show(within, id));
    await keepWards(inside, { studioId: studio.id, guardianId: id }, wards);
    if (archived) await signOutEverywhere(within, id);
    const isBack = role === 'student' && before.archivedAt && !archived;
    const ended = isBack ? await endOverlapping(within, id) : [];
    return { person: await show(within, id), ended };
  });
}

async function signOutEverywhere({ store, studio, now }: Visit, id: string): Promise<void> {
  await endInvitations(store, studio.id, id, now);
  await endSessions(store, id, '');
}

/**
 * Makes an invitation; earlier ones of the same person no longer hold. Only a digest of its token is kept; the message that would
 * carry it lies in the outbox. @throws NotYours, Unknown, Invalid
 */
export async function invite(visit: Visit, id: string): Promise<Invitation> {
  const { store, studio, person, now } = visit;
  const row = found(await findOwn(store, store.people, { studioId: studio.id, id }));
  const role = ENTERED_ROLES.find((one) => one === row.role);
  if (!role) throw new NotYours('The owner is not invited; they change their password themselves.');
  requireRoom(visit, role);
  if (row.archivedAt) throw new Invalid([{ field: 'id', message: `${row.name} is put away; take them back first.` }]);
  const token = randomBytes(32).toString('base64url');
  const path = `/welcome/${token}`;
  const expiresAt = DateTime.fromJSDate(now).plus({ days: INVITED_DAYS }).toJSDate();
  await store.atOnce(async (inside) => {
    await endInvitations(inside, studio.id, id, now);
    const values = { studioId: studio.id, personId: id, madeBy: person.id, tokenHash: digestOf(token), expiresAt };
    await inside.invitations.create(values, within(inside));
    const until = DateTime.fromJSDate(expiresAt, { zone: studio.zone }).toFormat('d LLLL yyyy');
    await writeTo({ ...visit, store: inside }, id, {
      subject: `Your place in the book of ${studio.name}`,
      body: `${row.name}, ${person.name} opens the book for you. Choose a name and a password at ${path}\nThe link works once, until ${until}.`,
    });
  });
  return { path, expiresAt: expiresAt.toISOString() };
}

/** Whom an invitation is for. @throws Unknown where it was used, is over, or never was. */
export async function showWelcome(store: Store, token: string, now: Date): Promise<Welcome> {
  const { person, signInName } = await invited(store, token, now);
  return {
    name: person.name,
    studio: person.studioName,
    role: known(ROLES, person.role),
    signInName: signInName ?? '',
  };
}

/** Chooses a name and a password by an invitation, which is used up with it. @throws Unknown, Invalid */
export async function acceptInvitation(
  store: Store,
  token: string,
  { now, signInName, password }: Acceptance & { readonly now: Date },
): Promise<null> {
  const { id, person } = await invited(store, token, now);
  const name = signInName.trim();
  const passwordHash = await hashPassword(password);
  await store.atOnce(async (inside) => {
    const other = await findPersonBySignIn(inside, name);
    if (other && other.id !== person.id)
      throw new Invalid([
        { field: 'signInName', message: 'Somebody already signs in with this name; choose another.' },
      ]);
    if (!(await useInvitation(inside, id, now))) throw new Unknown(NO_INVITATION);
    await inside.people.update({ signInName: name, passwordHash }, { where: { id: person.id }, ...within(inside) });
    await endSessions(inside, person.id, '');
  });
  return null;
}

/** Changes one’s own password and signs out everywhere else. @throws Invalid where the old one is wrong */
export async function changePassword(
  { store, person }: Visit,
  { old, password }: PasswordChange,
  sessionId: string,
): Promise<null> {
  const row = found(await findPersonById(store, person.id));
  if (!(await rightPassword(row.passwordHash, old)))
    throw new Invalid([{ field: 'old', message: 'This is not the password that holds.' }]);
  await store.people.update(
    { passwordHash: await hashPassword(password) },
    { where: { id: person.id }, ...within(store) },
  );
  await endSessions(store, person.id, sessionId);
  return null;
}

const NO_INVITATION = 'This invitation was used, or is over. Ask your teacher for another one.';

async function invited(store: Store, token: string, now: Date) {
  const invitation = await findInvitation(store, digestOf(token), now);
  const person = invitation && (await findPersonById(store, invitation.personId));
  if (!invitation || !person) throw new Unknown(NO_INVITATION);
  return { ...invitation, person };
}

/** Tokens are long and made by chance, so that a plain digest keeps them. */
function digestOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

function requireRoom(visit: Visit, role: EnteredRole): void {
  requireTeacher(visit);
  if (role === 'teacher' && visit.person.role !== 'owner')
    throw new NotYours('Only the owner enters and changes teachers.');
}

async function requireWards(visit: Visit, role: EnteredRole, wards: readonly string[]): Promise<void> {
  const wrong = (message: string) => new Invalid([{ field: 'wards', message }]);
  if (role === 'guardian' && wards.length === 0) throw wrong('Say whose guardian this is.');
  if (role !== 'guardian' && wards.length > 0) throw wrong('Only a guardian reads the pages of a student.');
  const rows = await peopleOf(visit, wards);
  if (rows.length !== wards.length || rows.some((row) => row.role !== 'student'))
    throw wrong('One of these is no student of the studio.');
}

async function requireTeacherOf(visit: Visit, role: EnteredRole, teacherId: string | null): Promise<void> {
  if (teacherId === null) return;
  const wrong = (message: string) => new Invalid([{ field: 'teacherId', message }]);
  if (role !== 'student') throw wrong('Only a student has a teacher.');
  const [teacher] = await peopleOf(visit, [teacherId]);
  if (teacher?.role !== 'teacher' && teacher?.role !== 'owner') throw wrong('This is no teacher of the studio.');
}

function peopleOf({ store, studio }: Visit, ids: readonly string[]): Promise<PersonModel[]> {
  return store.people.findAll({ where: { studioId: studio.id, id: [...ids] }, ...within(store) });
}

async function show({ store, studio, now }: Visit, id: string): Promise<Person> {
  return describe(found((await findPeople(store, studio.id, { now, id }))[0]));
}

function describe({ invitedUntil, archivedAt, teacherId, teacherName, role, ...rest }: ListedPerson): Person {
  return {
    ...rest,
    role: known(ROLES, role),
    invitedUntil: invitedUntil?.toISOString() ?? null,
    archived: archivedAt !== null,
    teacher: teacherId === null ? null : { id: teacherId, name: teacherName ?? '' },
  };
}
