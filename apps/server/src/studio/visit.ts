import type { Role } from '@jam-ledger/contract';
import type { Holiday } from '@jam-ledger/core/series';
import { DateTime } from 'luxon';
import type { Store } from '../store/index.ts';
import { Forbidden } from './trouble.ts';

/** Somebody asking for something: who, where, when, and the database to answer from. */
export interface RequestContext {
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
export function teaches(context: RequestContext): boolean {
  return context.person.role === 'owner' || context.person.role === 'teacher';
}

/** Lets only teachers and the owner go on. @throws Forbidden */
export function requireTeacher(context: RequestContext): void {
  if (!teaches(context)) throw new Forbidden('Only a teacher of the studio can do this.');
}

/** Lets those go on who may change what is a student’s: teachers, and the student. @throws Forbidden */
export function requireCanEdit(context: RequestContext, studentId: string): void {
  if (!teaches(context) && context.person.id !== studentId) throw new Forbidden('This belongs to somebody else.');
}

/** The students whose pages the person reads; undefined for all of the studio. */
export function visibleStudents(context: RequestContext): readonly string[] | undefined {
  if (teaches(context)) return undefined;
  return context.person.role === 'guardian' ? context.wards.map(({ id }) => id) : [context.person.id];
}

/** Lets whoever may read the pages of a student go on: teachers, the student, their guardians. @throws Forbidden */
export function requireCanRead(context: RequestContext, studentId: string): void {
  if (!(visibleStudents(context)?.includes(studentId) ?? true)) throw new Forbidden('This belongs to somebody else.');
}

/** The day of a moment in the studio's zone, `2026-03-14`. */
export function dayOf(context: RequestContext, moment: Date = context.now): string {
  return DateTime.fromJSDate(moment, { zone: context.studio.zone }).toISODate() ?? moment.toISOString().slice(0, 10);
}
