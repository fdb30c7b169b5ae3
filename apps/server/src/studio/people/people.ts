import { digestOf } from '../context/tokens.ts';
import {
  ROLES,
  type Acceptance,
  type Invitation,
  type Me,
  type OwnNames,
  type PasswordChange,
  type Person,
  type PersonBody,
  type PersonChange,
  type PersonChanged,
  type Role,
  type StudentsBody,
  type Welcome,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import {
  addPerson,
  changeRows,
  endInvitations,
  endSessions,
  findInvitation,
  findOwn,
  findPeople,
  findPersonById,
  findPersonBySignIn,
  findRows,
  findWards,
  forgetDevices,
  keepWards,
  saveVersioned,
  useInvitation,
  type ListedPerson,
  type PersonModel,
  type Store,
} from '../../store/index.ts';
import { orNotFound, orConflict, parseWord } from '../context/rows.ts';
import { keepCorrections } from '../context/corrections.ts';
import { trace, writeTrail } from '../book/trail.ts';
import { makeLink } from './links.ts';
import { writeLink } from './outbox.ts';
import { endOverlapping } from '../series/series.ts';
import { requireStrong } from './password.ts';
import { describeMe, hashPassword, rightPassword } from './signIn.ts';
import { Invalid, Forbidden, NotFound } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';

/** Everybody of the studio, with invitations and wards. @throws Forbidden for others than teachers. */
export async function listPeople(context: RequestContext): Promise<readonly Person[]> {
  const rows = await findPeople(context.store, context.studio.id, { now: context.now });
  return rows.map(describe);
}

/** Enters somebody: a teacher enters students and guardians, the owner teachers, too. @throws Forbidden, Invalid */
export async function enterPerson(context: RequestContext, { role, name, wards }: PersonBody): Promise<Person> {
  requireRoom(context, role);
  await requireWards(context, role, wards);
  const { store, studio, person } = context;
  const teacherId = role === 'student' && person.role === 'teacher' ? person.id : null;
  const id = await addPerson(store, { studioId: studio.id, role, name, teacherId });
  await keepWards(store, { studioId: studio.id, guardianId: id }, wards);
  return show(context, id);
}

/** Enters several students; of whom there is one already by that name is entered beside them. @throws Forbidden */
export async function enterStudents(context: RequestContext, { names }: StudentsBody): Promise<readonly Person[]> {
  const entered: Person[] = [];
  for (const name of names) entered.push(await enterPerson(context, { role: 'student', name, wards: [] }));
  return entered;
}

/**
 * Changes somebody’s name, wards or teacher, makes a teacher an owner or an owner a teacher, puts them away, or takes that back.
 * Whoever is put away is signed out at once and their lessons leave the desk; nothing of theirs is lost. When a student comes back,
 * series whose hours others have by now are ended and named. The last owner stays. @throws Forbidden, NotFound, Conflict, Invalid
 */
export async function changePerson(context: RequestContext, id: string, change: PersonChange): Promise<PersonChanged> {
  const { store, studio, now } = context;
  const before = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  const role = parseWord(ROLES, before.role);
  requireRoom(context, role);
  await requireOwners(context, before, change);
  if (await isClaim(context, before, change)) await requireHandsOn(context, role, before);
  await requireWards(context, role, change.wards);
  await requireTeacherOf(context, role, change.teacherId);
  const { version, wards, archived, role: becomes = role, ...values } = change;
  const archivedAt = archived ? (before.archivedAt ?? now) : null;
  const row = { studioId: studio.id, id, version };
  await orConflict(await saveVersioned(store.people, row, { ...values, role: becomes, archivedAt }), () =>
    show(context, id),
  );
  const isHandedOn = await isClaim(context, before, change);
  await keepWards(store, { studioId: studio.id, guardianId: id }, wards);
  if (archived) await shutOut(context, id);
  await traceChange(context, before, { ...change, isHandedOn });
  const isBack = role === 'student' && before.archivedAt && !archived;
  const ended = isBack ? await endOverlapping(context, id) : [];
  return { person: await show(context, id), ended };
}

async function shutOut({ store, studio, now }: RequestContext, id: string): Promise<void> {
  await endInvitations(store, studio.id, id, now);
  await endSessions(store, id, '');
}

/** Writes down what a change of somebody came to. */
async function traceChange(
  context: RequestContext,
  before: PersonModel,
  { role, archived, name, isHandedOn }: PersonChange & { readonly isHandedOn: boolean },
): Promise<void> {
  const about = { aboutId: before.id };
  if (role !== undefined && role !== before.role) await trace(context, 'changed a role', { ...about, detail: role });
  if (archived !== (before.archivedAt != null)) await trace(context, archived ? 'put away' : 'took back', about);
  if (name !== before.name) await trace(context, 'changed names', about);
  const after = { name };
  await keepCorrections(
    context,
    { kind: 'person', id: before.id },
    { before, after, said: [['name', (row) => row.name]] },
  );
  if (isHandedOn) await trace(context, 'handed on', about);
}

/** Signs whoever asks out everywhere, here too, and lets none of their devices be known any more. */
export async function signOutEverywhere(context: RequestContext): Promise<null> {
  const { store, person } = context;
  await endSessions(store, person.id, '');
  await forgetDevices(store, person.id);
  await trace(context, 'signed out everywhere', { aboutId: person.id });
  return null;
}

/**
 * Makes an invitation; earlier ones of the same person no longer hold. Its link is told to whoever makes it, and to nobody else: only
 * a digest of its token is kept, and the message in the outbox is without it. @throws Forbidden, NotFound, Invalid
 */
export async function invite(context: RequestContext, id: string): Promise<Invitation> {
  const { store, studio, person, now } = context;
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  const role = parseWord(ROLES, row.role);
  await requireHandsOn(context, role, row);
  if (row.archivedAt) throw new Invalid([{ field: 'id', message: `${row.name} is put away; take them back first.` }]);
  const link = await makeLink(store, { studioId: studio.id, personId: id, madeBy: person.id, now });
  await trace(context, 'invited', { aboutId: id });
  const until = DateTime.fromISO(link.expiresAt, { zone: studio.zone }).toFormat('d LLLL yyyy');
  await writeLink(context, row, {
    subject: `Your place in the book of ${studio.name}`,
    body: `${row.name}, ${person.name} invites you and hands you a link where you choose a name and a password.\nIt works once, until ${until}.`,
    path: link.path,
  });
  return link;
}

/** Whom an invitation is for. @throws NotFound where it was used, is over, or never was. */
export async function showWelcome(store: Store, token: string, now: Date): Promise<Welcome> {
  const { person, signInName } = await invited(store, token, now);
  return {
    name: person.name,
    studio: person.studioName,
    role: parseWord(ROLES, person.role),
    signInName: signInName ?? '',
  };
}

/** Chooses a name and a password by an invitation, which is used up with it. @throws NotFound, Invalid */
export async function acceptInvitation(
  store: Store,
  token: string,
  { now, signInName, password }: Acceptance & { readonly now: Date },
): Promise<null> {
  const { id, person } = await invited(store, token, now);
  const name = signInName.trim();
  await requireStrong(password, [name, person.name, person.studioName]);
  const passwordHash = await hashPassword(password);
  await store.inTransaction(async () => {
    await requireFree(store, name, person.id);
    if (!(await useInvitation(store, id, now))) throw new NotFound(NO_INVITATION);
    await changeRows(store.people, { id: person.id }, { signInName: name, passwordHash });
    await endSessions(store, person.id, '');
    await forgetDevices(store, person.id);
    await writeTrail(store, {
      ...{ studioId: person.studioId, at: now, personId: person.id, act: 'came in by a link', aboutId: person.id },
    });
  });
  return null;
}

/**
 * Changes one’s own name and the one to sign in with. @throws Invalid where the password is wrong, or somebody else signs in with that
 * name
 */
export async function changeNames(context: RequestContext, { password, ...typed }: OwnNames): Promise<Me> {
  const [name, signInName] = [typed.name.trim(), typed.signInName.trim()];
  const { store, person } = context;
  const row = orNotFound(await findPersonById(store, person.id));
  if (!(await rightPassword(row.passwordHash, password)))
    throw new Invalid([{ field: 'password', message: 'This is not the password that holds.' }]);
  await store.inTransaction(async () => {
    await requireFree(store, signInName, person.id);
    await changeRows(store.people, { id: person.id }, { name, signInName });
    await trace(context, 'changed names', { aboutId: person.id });
  });
  return describeMe({ ...context, person: { ...person, name, signInName } });
}

/** Of two who choose the same name at once, the second is told so. To be asked within a transaction. @throws Invalid */
async function requireFree(store: Store, signInName: string, personId: string): Promise<void> {
  await store.lock('names to sign in with');
  const other = await findPersonBySignIn(store, signInName);
  if (other && other.id !== personId)
    throw new Invalid([{ field: 'signInName', message: 'Somebody already signs in with this name; choose another.' }]);
}

/** Changes one’s own password and signs out everywhere else. @throws Invalid where the old one is wrong */
export async function changePassword(context: RequestContext, { old, password }: PasswordChange): Promise<null> {
  const { store, person, studio, sessionId } = context;
  const row = orNotFound(await findPersonById(store, person.id));
  if (!(await rightPassword(row.passwordHash, old)))
    throw new Invalid([{ field: 'old', message: 'This is not the password that holds.' }]);
  await requireStrong(password, [person.name, studio.name, row.signInName ?? '']);
  const passwordHash = await hashPassword(password);
  await store.inTransaction(async () => {
    await changeRows(store.people, { id: person.id }, { passwordHash });
    await endSessions(store, person.id, sessionId);
    await trace(context, 'changed a password', { aboutId: person.id });
  });
  return null;
}

const NO_INVITATION = 'This invitation was used, or is over. Ask your teacher for another one.';

async function invited(store: Store, token: string, now: Date) {
  const invitation = await findInvitation(store, digestOf(token), now);
  const person = invitation && (await findPersonById(store, invitation.personId));
  if (!invitation || !person) throw new NotFound(NO_INVITATION);
  return { ...invitation, person };
}

function requireRoom(context: RequestContext, role: Role): void {
  if ((role === 'teacher' || role === 'owner') && context.person.role !== 'owner')
    throw new Forbidden('Only the owner enters and changes teachers.');
}

/** Lets a change go on that leaves the studio an owner, and makes none of a student. @throws Invalid */
async function requireOwners(
  { store, studio }: RequestContext,
  before: PersonModel,
  { role, archived }: PersonChange,
): Promise<void> {
  const isTeacher = before.role === 'owner' || before.role === 'teacher';
  if (role !== undefined && !isTeacher)
    throw new Invalid([{ field: 'role', message: 'Only a teacher can own the studio.' }]);
  const leaves = before.role === 'owner' && !before.archivedAt && (role === 'teacher' || archived);
  if (!leaves) return;
  // Of two owners who leave at once, the second stays.
  await store.lock(`owners of ${studio.id}`);
  const owners = await findRows(store.people, { studioId: studio.id, role: 'owner', archivedAt: null });
  // One who was never invited could let nobody in.
  if (owners.some(({ id, passwordHash }) => id !== before.id && passwordHash != null)) return;
  const field = archived ? 'archived' : 'role';
  throw new Invalid([{ field, message: 'The studio needs an owner who signs in; make somebody else one first.' }]);
}

/**
 * Lets those go on who hand an invitation on: the owner, and of students and their guardians whoever teaches them, or any
 * teacher where nobody does yet. Whoever makes a link could use it. @throws Forbidden
 */
async function requireHandsOn(context: RequestContext, role: Role, row: PersonModel): Promise<void> {
  requireRoom(context, role);
  const { store, studio, person } = context;
  if (person.role === 'owner') return;
  const wards = role === 'guardian' ? await findWards(store, studio.id, row.id) : [];
  const students =
    role === 'guardian'
      ? await peopleOf(
          context,
          wards.map(({ id }) => id),
        )
      : [row];
  if (students.some(({ teacherId }) => teacherId == null || teacherId === person.id)) return;
  throw new Forbidden('Somebody else teaches here; they, or the owner, hand out this link.');
}

/** Whether a change says who belongs to whom: who teaches a student, or whose guardian somebody is. */
async function isClaim(
  { store, studio }: RequestContext,
  before: PersonModel,
  { wards, teacherId }: PersonChange,
): Promise<boolean> {
  if (teacherId !== (before.teacherId ?? null)) return true;
  const had = before.role === 'guardian' ? await findWards(store, studio.id, before.id) : [];
  return had.length !== wards.length || had.some(({ id }) => !wards.includes(id));
}

async function requireWards(context: RequestContext, role: Role, wards: readonly string[]): Promise<void> {
  const wrong = (message: string) => new Invalid([{ field: 'wards', message }]);
  if (role === 'guardian' && wards.length === 0) throw wrong('Say whose guardian this is.');
  if (role !== 'guardian' && wards.length > 0) throw wrong('Only a guardian reads the pages of a student.');
  const rows = await peopleOf(context, wards);
  if (rows.length !== wards.length || rows.some((row) => row.role !== 'student'))
    throw wrong('One of these is no student of the studio.');
}

async function requireTeacherOf(context: RequestContext, role: Role, teacherId: string | null): Promise<void> {
  if (teacherId === null) return;
  const wrong = (message: string) => new Invalid([{ field: 'teacherId', message }]);
  if (role !== 'student') throw wrong('Only a student has a teacher.');
  const [teacher] = await peopleOf(context, [teacherId]);
  if (teacher?.role !== 'teacher' && teacher?.role !== 'owner') throw wrong('This is no teacher of the studio.');
}

function peopleOf({ store, studio }: RequestContext, ids: readonly string[]): Promise<readonly PersonModel[]> {
  return findRows(store.people, { studioId: studio.id, id: [...ids] });
}

async function show({ store, studio, now }: RequestContext, id: string): Promise<Person> {
  return describe(orNotFound((await findPeople(store, studio.id, { now, id }))[0]));
}

function describe({ invitedUntil, archivedAt, teacherId, teacherName, role, ...rest }: ListedPerson): Person {
  return {
    ...rest,
    role: parseWord(ROLES, role),
    invitedUntil: invitedUntil?.toISOString() ?? null,
    archived: archivedAt !== null,
    teacher: teacherId === null ? null : { id: teacherId, name: teacherName ?? '' },
  };
}
