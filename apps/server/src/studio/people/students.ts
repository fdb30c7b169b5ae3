import {
  SCHOOL_WORDS,
  type Me,
  type Schools,
  type Student,
  type StudentChange,
  type StudentOfSong,
  type OwnSchools,
  type StudentSchools,
} from '@jam-ledger/contract';
import { TECHNIQUES } from '@jam-ledger/core/notation';
import {
  findOwn,
  findPlayed,
  findShown,
  findStudents,
  findStudio,
  forgetStandings,
  saveVersioned,
  type PersonModel,
} from '../../store/index.ts';
import { orNotFound, orConflict, parseWord, requireStudent } from '../context/rows.ts';
import { type RequestContext } from '../context/context.ts';

/** The students of the studio by name. @throws Forbidden for a student. */
export async function listStudents(context: RequestContext): Promise<readonly Student[]> {
  return (await findStudents(context.store, context.studio.id)).map(describeStudent);
}

/** Changes a student’s guitar, hand and schools. @throws Forbidden, NotFound, Conflict */
export async function changeStudent(context: RequestContext, id: string, change: StudentChange): Promise<Student> {
  const { store, studio } = context;
  const { version, guitar, schools } = change;
  await requireStudent(context, id);
  const row = { studioId: studio.id, id, version };
  const saved = await saveVersioned(store.people, row, { ...guitar, ...schools });
  const changed = await orConflict(saved, describeStudent);
  await forgetStandings(store, studio.id, { studentId: id });
  return describeStudent(changed);
}

/** The schools a teacher teaches by where a student is not taught otherwise. @throws Forbidden */
export async function showOwnSchools(context: RequestContext): Promise<OwnSchools> {
  const { store, studio, person } = context;
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id: person.id }));
  return { version: row.version, schools: ownSchoolsOf(row) };
}

/** Changes one’s own schools. @throws Forbidden, Conflict */
export async function changeOwnSchools(context: RequestContext, { version, schools }: OwnSchools): Promise<OwnSchools> {
  const { store, studio, person } = context;
  const saved = await saveVersioned(store.people, { studioId: studio.id, id: person.id, version }, { ...schools });
  await orConflict(saved, () => showOwnSchools(context));
  await forgetStandings(store, studio.id, { teacherId: person.id });
  return showOwnSchools(context);
}

/** The schools that hold for a student: their own, else their teacher’s, else the studio’s. */
export async function schoolsFor({ store, studio }: RequestContext, student: PersonModel): Promise<Schools> {
  const { teacherId } = student;
  const teacher = teacherId == null ? undefined : await findOwn(store.people, { studioId: studio.id, id: teacherId });
  const [own, teachers] = [ownSchoolsOf(student), teacher && ownSchoolsOf(teacher)];
  const studios = schoolsOf(orNotFound((await findStudio(store, studio.id)) ?? undefined));
  return {
    learning: own.learning ?? teachers?.learning ?? studios.learning,
    raising: own.raising ?? teachers?.raising ?? studios.raising,
    hearing: own.hearing ?? teachers?.hearing ?? studios.hearing,
    picking: own.picking ?? teachers?.picking ?? studios.picking,
    position: own.position ?? teachers?.position ?? studios.position,
    first: own.first ?? teachers?.first ?? studios.first,
    naming: own.naming ?? teachers?.naming ?? studios.naming,
    fidelity: own.fidelity ?? teachers?.fidelity ?? studios.fidelity,
    clean: own.clean ?? teachers?.clean ?? studios.clean,
  };
}

/** How a student is taught, for themselves; null for others. */
export async function taughtAs(context: RequestContext): Promise<Me['taught']> {
  const { store, studio, person } = context;
  if (person.role !== 'student') return null;
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id: person.id }));
  const { naming, fidelity } = await schoolsFor(context, row);
  return { naming, fidelity };
}

/** The student a song is written for, with the schools that hold and what they have played cleanly. */
export async function studentOfSong(context: RequestContext, id: string): Promise<StudentOfSong> {
  const { store, studio } = context;
  const row = orNotFound(await findOwn(store.people, { studioId: studio.id, id }));
  const { name, guitar } = describeStudent(row);
  const played = await findPlayed(store, studio.id, id);
  return {
    id,
    name,
    isStudent: row.role === 'student',
    guitar,
    schools: await schoolsFor(context, row),
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
    word == null ? null : parseWord(words, word);
  return {
    learning: own(SCHOOL_WORDS.learning, row.learning),
    raising: own(SCHOOL_WORDS.raising, row.raising),
    hearing: own(SCHOOL_WORDS.hearing, row.hearing),
    picking: own(SCHOOL_WORDS.picking, row.picking),
    position: own(SCHOOL_WORDS.position, row.position),
    first: own(SCHOOL_WORDS.first, row.first),
    naming: own(SCHOOL_WORDS.naming, row.naming),
    fidelity: own(SCHOOL_WORDS.fidelity, row.fidelity),
    clean: own(SCHOOL_WORDS.clean, row.clean),
  };
}

/** The schools that a row names. */
export function schoolsOf(row: { readonly [Name in keyof Schools]: string }): Schools {
  return {
    learning: parseWord(SCHOOL_WORDS.learning, row.learning),
    raising: parseWord(SCHOOL_WORDS.raising, row.raising),
    hearing: parseWord(SCHOOL_WORDS.hearing, row.hearing),
    picking: parseWord(SCHOOL_WORDS.picking, row.picking),
    position: parseWord(SCHOOL_WORDS.position, row.position),
    first: parseWord(SCHOOL_WORDS.first, row.first),
    naming: parseWord(SCHOOL_WORDS.naming, row.naming),
    fidelity: parseWord(SCHOOL_WORDS.fidelity, row.fidelity),
    clean: parseWord(SCHOOL_WORDS.clean, row.clean),
  };
}
