import {
  SCHOOL_WORDS,
  type Me,
  type Schools,
  type Student,
  type StudentChange,
  type StudentOfSong,
  type OwnSchools,
  type StudentSchools,
  type StudioSchools,
} from '@jam-ledger/contract';
import { TECHNIQUES } from '@jam-ledger/core/notation';
import { checkHolidays } from '@jam-ledger/core/series';
import { IANAZone } from 'luxon';
import {
  findOwn,
  findPlayed,
  findShown,
  findStudents,
  findStudio,
  forgetStandings,
  saveStudio,
  saveVersioned,
  type PersonModel,
} from '../store/index.ts';
import { found, kept, known, requireStudent } from './keep.ts';
import { layAnew } from './series.ts';
import { Invalid, NotYours, Stale } from './trouble.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** The students of the studio by name. @throws NotYours for a student. */
export async function listStudents(visit: Visit): Promise<readonly Student[]> {
  requireTeacher(visit);
  return (await findStudents(visit.store, visit.studio.id)).map(describeStudent);
}

/** Changes a student’s guitar, hand and schools. @throws NotYours, Unknown, Stale */
export async function changeStudent(visit: Visit, id: string, change: StudentChange): Promise<Student> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, guitar, schools } = change;
  await requireStudent(visit, id);
  const row = { studioId: studio.id, id, version };
  const saved = await saveVersioned(store.people, row, { ...guitar, ...schools });
  const changed = await kept(saved, describeStudent);
  await forgetStandings(store, studio.id, { studentId: id });
  return describeStudent(changed);
}

/** How the studio teaches where teachers differ. @throws NotYours for a student. */
export async function showSchools(visit: Visit): Promise<StudioSchools> {
  requireTeacher(visit);
  const row = found((await findStudio(visit.store, visit.studio.id)) ?? undefined);
  const { version, workMinutes, zone, holidays } = row;
  return { version, workMinutes, zone, holidays, ...schoolsOf(row) };
}

/**
 * Changes how the studio teaches, its zone and its holidays; lessons are laid anew where those change. Only its owner does that.
 * @throws NotYours, Stale, Invalid
 */
export async function changeSchools(visit: Visit, { version, ...changes }: StudioSchools): Promise<StudioSchools> {
  if (visit.person.role !== 'owner') throw new NotYours('Only the owner decides how the studio teaches.');
  const { zone, holidays, raising } = changes;
  const problems = [
    ...(IANAZone.isValidZone(zone) ? [] : [{ field: 'zone', message: `There is no time zone “${zone}”.` }]),
    ...checkHolidays(holidays),
  ];
  if (problems.length > 0) throw new Invalid(problems);
  const { store, studio } = visit;
  const before = await showSchools(visit);
  if (!(await saveStudio(store, { id: studio.id, version }, changes))) throw new Stale(before);
  const isLaidAnew = zone !== before.zone || JSON.stringify(holidays) !== JSON.stringify(before.holidays);
  if (isLaidAnew) await layAnew({ ...visit, studio: { ...studio, zone, holidays } });
  if (raising !== before.raising) await forgetStandings(store, studio.id, {});
  return showSchools(visit);
}

/** The schools a teacher teaches by where a student is not taught otherwise. @throws NotYours */
export async function showOwnSchools(visit: Visit): Promise<OwnSchools> {
  requireTeacher(visit);
  const { store, studio, person } = visit;
  const row = found(await findOwn(store.people, { studioId: studio.id, id: person.id }));
  return { version: row.version, schools: ownSchoolsOf(row) };
}

/** Changes one’s own schools. @throws NotYours, Stale */
export async function changeOwnSchools(visit: Visit, { version, schools }: OwnSchools): Promise<OwnSchools> {
  requireTeacher(visit);
  const { store, studio, person } = visit;
  const saved = await saveVersioned(store.people, { studioId: studio.id, id: person.id, version }, { ...schools });
  await kept(saved, () => showOwnSchools(visit));
  await forgetStandings(store, studio.id, { teacherId: person.id });
  return showOwnSchools(visit);
}

/** The schools that hold for a student: their own, else their teacher’s, else the studio’s. */
export async function schoolsFor({ store, studio }: Visit, student: PersonModel): Promise<Schools> {
  const { teacherId } = student;
  const teacher = teacherId == null ? undefined : await findOwn(store.people, { studioId: studio.id, id: teacherId });
  const [own, teachers] = [ownSchoolsOf(student), teacher && ownSchoolsOf(teacher)];
  const studios = schoolsOf(found((await findStudio(store, studio.id)) ?? undefined));
  return {
    learning: own.learning ?? teachers?.learning ?? studios.learning,
    raising: own.raising ?? teachers?.raising ?? studios.raising,
    hearing: own.hearing ?? teachers?.hearing ?? studios.hearing,
    picking: own.picking ?? teachers?.picking ?? studios.picking,
    position: own.position ?? teachers?.position ?? studios.position,
    first: own.first ?? teachers?.first ?? studios.first,
    naming: own.naming ?? teachers?.naming ?? studios.naming,
    fidelity: own.fidelity ?? teachers?.fidelity ?? studios.fidelity,
  };
}

/** How a student is taught, for themselves; null for others. */
export async function taughtAs(visit: Visit): Promise<Me['taught']> {
  const { store, studio, person } = visit;
  if (person.role !== 'student') return null;
  const row = found(await findOwn(store.people, { studioId: studio.id, id: person.id }));
  const { naming, fidelity } = await schoolsFor(visit, row);
  return { naming, fidelity };
}

/** The student a song is written for, with the schools that hold and what they have played cleanly. */
export async function studentOfSong(visit: Visit, id: string): Promise<StudentOfSong> {
  const { store, studio } = visit;
  const row = found(await findOwn(store.people, { studioId: studio.id, id }));
  const { name, guitar } = describeStudent(row);
  const played = await findPlayed(store, studio.id, id);
  return {
    id,
    name,
    guitar,
    schools: await schoolsFor(visit, row),
    shown: await findShown(store, studio.id, id),
    played: TECHNIQUES.filter((technique) => played.includes(technique)),
  };
}

function describeStudent(row: PersonModel): Student {
  const { id, version, name, frets, strings, scaleLengthMm, tremoloArm, leftHanded } = row;
  return {
    id,
    version,
    name,
    guitar: { frets, strings, scaleLengthMm, tremoloArm, leftHanded, spanFrets: row.spanFrets ?? null },
    schools: ownSchoolsOf(row),
  };
}

function ownSchoolsOf(row: PersonModel): StudentSchools {
  const own = <Word extends string>(words: readonly [Word, ...Word[]], word: string | null | undefined) =>
    word == null ? null : known(words, word);
  return {
    learning: own(SCHOOL_WORDS.learning, row.learning),
    raising: own(SCHOOL_WORDS.raising, row.raising),
    hearing: own(SCHOOL_WORDS.hearing, row.hearing),
    picking: own(SCHOOL_WORDS.picking, row.picking),
    position: own(SCHOOL_WORDS.position, row.position),
    first: own(SCHOOL_WORDS.first, row.first),
    naming: own(SCHOOL_WORDS.naming, row.naming),
    fidelity: own(SCHOOL_WORDS.fidelity, row.fidelity),
  };
}

function schoolsOf(row: { readonly [Name in keyof Schools]: string }): Schools {
  return {
    learning: known(SCHOOL_WORDS.learning, row.learning),
    raising: known(SCHOOL_WORDS.raising, row.raising),
    hearing: known(SCHOOL_WORDS.hearing, row.hearing),
    picking: known(SCHOOL_WORDS.picking, row.picking),
    position: known(SCHOOL_WORDS.position, row.position),
    first: known(SCHOOL_WORDS.first, row.first),
    naming: known(SCHOOL_WORDS.naming, row.naming),
    fidelity: known(SCHOOL_WORDS.fidelity, row.fidelity),
  };
}
