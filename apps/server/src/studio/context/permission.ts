import type { AuthorsRow, Of, Role, Route, StudentsRow } from '@jam-ledger/contract';
import { findAuthor, findOwn, findStudentOf } from '../../store/index.ts';
import { orNotFound } from './rows.ts';
import { Forbidden } from './errors.ts';
import { visibleStudents, type RequestContext } from './context.ts';

/** Lets those go on whose role may ask a route. @throws Forbidden */
export function requireRole({ person }: RequestContext, { who, method }: Route): void {
  if (who === 'anybody' || who.includes(person.role)) return;
  if (person.role === 'guardian' && method !== 'GET')
    throw new Forbidden('Guardians read these pages; they change nothing.');
  throw new Forbidden(sayWho(who));
}

function sayWho(who: readonly Role[]): string {
  if (who.includes('teacher')) return 'Only a teacher of the studio can do this.';
  if (who.includes('student')) return 'Only a student can do this, signed in as themselves.';
  return 'Only the owner of the studio can do this.';
}

/**
 * Lets those go on who may come to the row that a route is about: teachers to all of the studio, a student to their own, a guardian
 * to those of their wards; to what somebody wrote, its author. @throws Forbidden; NotFound where there is no such row
 */
export async function requireOwner(
  context: RequestContext,
  { of }: Pick<Route, 'of'>,
  { id = '', query }: { readonly id?: string; readonly query?: { readonly studentId?: string } },
): Promise<void> {
  const { store, studio, person } = context;
  if (isAuthors(of)) {
    const author = orNotFound(await findAuthor(store, of, { studioId: studio.id, id }));
    if (author !== person.id) throw new Forbidden('This is taken out by whoever wrote it.');
    return;
  }
  const visible = visibleStudents(context);
  const named = of === 'query' ? query?.studentId : undefined;
  if (visible === undefined) {
    // Teachers come to all of their studio, and learn nothing of others.
    if (named !== undefined) orNotFound(await findOwn(store.people, { studioId: studio.id, id: named }));
    return;
  }
  const studentId = isStudents(of) ? orNotFound(await findStudentOf(store, of, { studioId: studio.id, id })) : named;
  if (studentId !== undefined && !visible.includes(studentId)) throw new Forbidden('This belongs to somebody else.');
}

const STUDENTS_ROWS: readonly Of[] = ['request', 'piece', 'series', 'song', 'sound'] satisfies readonly StudentsRow[];
const AUTHORS_ROWS: readonly Of[] = ['entry', 'pin'] satisfies readonly AuthorsRow[];

function isStudents(of: Of): of is StudentsRow {
  return STUDENTS_ROWS.includes(of);
}

function isAuthors(of: Of): of is AuthorsRow {
  return AUTHORS_ROWS.includes(of);
}
