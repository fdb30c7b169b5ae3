import { GUITARS_MEANT, RENDITIONS, REQUEST_STATES, type RequestState, type SongRequest } from '@jam-ledger/contract';
import { findRequestEvents, findRequests, type RequestEventRow, type RequestRow } from '../../store/index.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { visibleStudents, type RequestContext } from '../context/context.ts';

/** Every request of the studio for a teacher, those of whom they may read for others; open ones first, by the day wanted. */
export async function listRequests(context: RequestContext): Promise<readonly SongRequest[]> {
  return describeAll(context, { studentIds: visibleStudents(context) });
}

/** One request as it stands. @throws NotFound */
export async function showRequest(context: RequestContext, id: string): Promise<SongRequest> {
  return orNotFound((await describeAll(context, { id }))[0]);
}

async function describeAll(
  { store, studio }: RequestContext,
  only: { readonly studentIds?: readonly string[] | undefined; readonly id?: string },
): Promise<readonly SongRequest[]> {
  const rows = await findRequests(store, studio.id, only);
  const ids = rows.map(({ id }) => id);
  const events = await findRequestEvents(store, studio.id, ids);
  return rows.map((row) =>
    describe(
      row,
      events.filter(({ requestId }) => requestId === row.id),
    ),
  );
}

function describe(row: RequestRow, events: readonly RequestEventRow[]): SongRequest {
  const { studentId, studentName, state, askedAt, rendition, guitarMeant, ...rest } = row;
  return {
    ...rest,
    state: knownState(state),
    rendition: parseWord(RENDITIONS, rendition),
    guitarMeant: parseWord(GUITARS_MEANT, guitarMeant),
    askedAt: askedAt.toISOString(),
    student: { id: studentId, name: studentName },
    history: events.map(({ at, by, state: to, note }) => ({ at: at.toISOString(), by, state: knownState(to), note })),
  };
}

/** A state as the database keeps it. */
export function knownState(state: string): RequestState {
  return parseWord(REQUEST_STATES, state);
}
