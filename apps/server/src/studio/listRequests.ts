import { REQUEST_STATES, type SongRequest } from '@jam-ledger/contract';
import { findRequests, type RequestRow } from '../store/index.ts';
import { found } from './keep.ts';
import { teaches, type Visit } from './visit.ts';

/** Every request of the studio for a teacher, their own for a student; open ones first, by the day wanted. */
export async function listRequests(visit: Visit): Promise<readonly SongRequest[]> {
  const only = teaches(visit) ? {} : { studentId: visit.person.id };
  return (await findRequests(visit.store, visit.studio.id, only)).map(describe);
}

/** One request as it stands. @throws Unknown */
export async function showRequest(visit: Visit, id: string): Promise<SongRequest> {
  return describe(found((await findRequests(visit.store, visit.studio.id, { id }))[0]));
}

function describe(row: RequestRow): SongRequest {
  const { studentId, studentName, state, askedAt, ...rest } = row;
  return {
    ...rest,
    state: REQUEST_STATES.find((known) => known === state) ?? 'asked',
    askedAt: askedAt.toISOString(),
    student: { id: studentId, name: studentName },
  };
}
