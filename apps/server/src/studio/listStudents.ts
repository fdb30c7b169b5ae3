import type { Student } from '@jam-ledger/contract';
import { findStudents } from '../store/index.ts';
import { requireTeacher, type Visit } from './visit.ts';

/** The students of the studio by name. @throws NotYours for a student. */
export async function listStudents(visit: Visit): Promise<readonly Student[]> {
  requireTeacher(visit);
  return findStudents(visit.store, visit.studio.id);
}
