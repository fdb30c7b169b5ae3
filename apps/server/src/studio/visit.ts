import type { Role } from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import type { Store } from '../store/index.ts';
import { NotYours } from './trouble.ts';

/** Somebody asking for something: who, where, when, and the database to answer from. */
export interface Visit {
  readonly store: Store;
  readonly person: { readonly id: string; readonly name: string; readonly role: Role };
  readonly studio: { readonly id: string; readonly name: string; readonly zone: string };
  readonly now: Date;
}

/** Whether the person teaches here. */
export function teaches(visit: Visit): boolean {
  return visit.person.role !== 'student';
}

/** Lets only teachers and the owner go on. @throws NotYours */
export function requireTeacher(visit: Visit): void {
  if (!teaches(visit)) throw new NotYours('Only a teacher of the studio can do this.');
}

/** Lets teachers go on, and the student whose it is. @throws NotYours */
export function requireOwn(visit: Visit, studentId: string): void {
  if (!teaches(visit) && visit.person.id !== studentId) throw new NotYours('This belongs to somebody else.');
}

/** The day of a moment in the studio's zone, `2026-03-14`. */
export function dayOf(visit: Visit, moment: Date = visit.now): string {
  return DateTime.fromJSDate(moment, { zone: visit.studio.zone }).toISODate() ?? moment.toISOString().slice(0, 10);
}
