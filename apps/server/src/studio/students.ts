import {
  SCHOOL_WORDS,
  type Schools,
  type Student,
  type StudentChange,
  type StudentOfSong,
  type StudioSchools,
} from '@jam-ledger/contract';
import { TECHNIQUES } from '@jam-ledger/core/notation';
import {
  findOwn,
  findPlayed,
  findShown,
  findStudents,
  findStudio,
  saveStudio,
  saveVersioned,
  type PersonModel,
} from '../store/index.ts';
import { found, kept, known } from './keep.ts';
import { NotYours, Stale, Unknown } from './trouble.ts';
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
  const saved = await saveVersioned(
    store,
    store.people,
    { studioId: studio.id, id, version },
    { ...guitar, ...schools },
  );
  return describeStudent(await kept(saved, describeStudent));
}

/** Lets the id of a student of the studio go on. @throws Unknown */
export async function requireStudent({ store, studio }: Visit, id: string): Promise<void> {
  const person = found(await findOwn(store, store.people, { studioId: studio.id, id }));
  if (person.role !== 'student') throw new Unknown('There is no student with this id.');
}

/** How the studio teaches where teachers differ. @throws NotYours for a student. */
export async function showSchools(visit: Visit): Promise<StudioSchools> {
  requireTeacher(visit);
  const row = found((await findStudio(visit.store, visit.studio.id)) ?? undefined);
  return { version: row.version, workMinutes: row.workMinutes, ...schoolsOf(row) };
}

/** Changes how the studio teaches. Only its owner does that. @throws NotYours, Stale */
export async function changeSchools(visit: Visit, { version, ...schools }: StudioSchools): Promise<StudioSchools> {
  if (visit.person.role !== 'owner') throw new NotYours('Only the owner decides how the studio teaches.');
  const saved = await saveStudio(visit.store, { id: visit.studio.id, version }, schools);
  const current = await showSchools(visit);
  if (!saved) throw new Stale(current);
  return current;
}

/** The student a song is written for, with the schools that hold and what they have played cleanly. */
export async function studentOfSong({ store, studio }: Visit, id: string): Promise<StudentOfSong> {
  const row = found(await findOwn(store, store.people, { studioId: studio.id, id }));
  const { name, guitar, schools } = describeStudent(row);
  const studios = schoolsOf(found((await findStudio(store, studio.id)) ?? undefined));
  const played = await findPlayed(store, studio.id, id);
  return {
    id,
    name,
    guitar,
    schools: {
      learning: schools.learning ?? studios.learning,
      raising: schools.raising ?? studios.raising,
      hearing: schools.hearing ?? studios.hearing,
      picking: schools.picking ?? studios.picking,
      position: schools.position ?? studios.position,
      first: schools.first ?? studios.first,
    },
    shown: await findShown(store, studio.id, id),
    played: TECHNIQUES.filter((technique) => played.includes(technique)),
  };
}

function describeStudent(row: PersonModel): Student {
  const { id, version, name, frets, strings, scaleLengthMm, tremoloArm, leftHanded } = row;
  const own = <Word extends string>(words: readonly [Word, ...Word[]], word: string | null | undefined) =>
    word == null ? null : known(words, word);
  return {
    id,
    version,
    name,
    guitar: { frets, strings, scaleLengthMm, tremoloArm, leftHanded, spanFrets: row.spanFrets ?? null },
    schools: {
      learning: own(SCHOOL_WORDS.learning, row.learning),
      raising: own(SCHOOL_WORDS.raising, row.raising),
      hearing: own(SCHOOL_WORDS.hearing, row.hearing),
      picking: own(SCHOOL_WORDS.picking, row.picking),
      position: own(SCHOOL_WORDS.position, row.position),
      first: own(SCHOOL_WORDS.first, row.first),
    },
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
  };
}
