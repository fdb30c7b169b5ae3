import type { Role } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import type { Store } from '../store/index.ts';
import { NotYours } from './trouble.ts';

/** Somebody asking for something: who, where, when, and the database to answer from. */
export interface Visit {
  readonly store: Store;
  readonly person: { readonly id: string; readonly name: string; readonly role: Role };
  readonly studio: {
    readonly id: string;
    readonly name: string;
    readonly zone: string;
    readonly holidays: readonly Holiday[];
  };
  /** The students whose pages a guardian reads. */
  readonly wards: readonly { readonly id: string; readonly name: string }[];
  readonly now: Date;
}

/** Whether the person teaches here. */
export function teaches(visit: Visit): boolean {
  return visit.person.role === 'owner' || visit.person.role === 'teacher';
}

/** Lets only teachers and the owner go on. @throws NotYours */
export function requireTeacher(visit: Visit): void {
  if (!teaches(visit)) throw new NotYours('Only a teacher of the studio can do this.');
}

/** Lets those go on who may change what is a student’s: teachers, and the student. @throws NotYours */
export function requireOwn(visit: Visit, studentId: string): void {
  if (!teaches(visit) && visit.person.id !== studentId) throw new NotYours('This belongs to somebody else.');
}

/** The students whose pages the person reads; undefined for all of the studio. */
export function sightOf(visit: Visit): readonly string[] | undefined {
  if (teaches(visit)) return undefined;
  return visit.person.role === 'guardian' ? visit.wards.map(({ id }) => id) : [visit.person.id];
}

/** Lets whoever may read the pages of a student go on: teachers, the student, their guardians. @throws NotYours */
export function requireSight(visit: Visit, studentId: string): void {
  if (!(sightOf(visit)?.includes(studentId) ?? true)) throw new NotYours('This belongs to somebody else.');
}

/** The day of a moment in the studio's zone, `2026-03-14`. */
export function dayOf(visit: Visit, moment: Date = visit.now): string {
  return DateTime.fromJSDate(moment, { zone: visit.studio.zone }).toISODate() ?? moment.toISOString().slice(0, 10);
}
