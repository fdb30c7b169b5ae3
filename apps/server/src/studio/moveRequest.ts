import type { RequestMove, RequestState, SongRequest } from '@jam-ledger/contract';
import { findOwn, saveVersioned, within, type RequestModel, type Store } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { showRequest } from './listRequests.ts';
import { Invalid, NotYours } from './trouble.ts';
import { requireOwn, teaches, type Visit } from './visit.ts';

/** Who may bring a request into which state; every move can be taken back, but an accepted one stays. */
const MOVES: Readonly<Record<'teacher' | 'student', Readonly<Record<RequestState, readonly RequestState[]>>>> = {
  teacher: { asked: ['accepted', 'declined'], declined: ['asked', 'accepted'], accepted: [], withdrawn: [] },
  student: { asked: ['withdrawn'], withdrawn: ['asked'], accepted: [], declined: [] },
};

/** What a song is set up with until the teacher has listened. Common practice: standard tuning, 4/4. */
const FIRST_SET_UP = { tuning: 'standard', capo: 0, key: '', tempo: 100, meter: '4/4', offsetCents: 0 } as const;

/**
 * Accepts or declines a request (teacher), or withdraws it (student), or takes that back. Accepting begins
 * the transcription in the same step. @throws NotYours, Unknown, Stale, Invalid
 */
export async function moveRequest(visit: Visit, id: string, move: RequestMove): Promise<SongRequest> {
  const { store, studio } = visit;
  const request = found(await findOwn(store, store.requests, { studioId: studio.id, id }));
  requireOwn(visit, request.studentId);
  await store.atOnce(async (inside) => {
    const { version, state } = move;
    const row = { studioId: studio.id, id, version };
    if (request.version === version) checkMove(visit, request, state);
    await kept(await saveVersioned(inside, inside.requests, row, { state }), () => showRequest(visit, id));
    if (state === 'accepted') await beginTranscription(inside, request);
  });
  return showRequest(visit, id);
}

function checkMove(visit: Visit, request: RequestModel, state: RequestState): void {
  const from = (['asked', 'accepted', 'declined', 'withdrawn'] as const).find((known) => known === request.state);
  const allowed = (who: keyof typeof MOVES) => MOVES[who][from ?? 'asked'].includes(state);
  if (allowed(teaches(visit) ? 'teacher' : 'student')) return;
  if (allowed(teaches(visit) ? 'student' : 'teacher'))
    throw new NotYours(teaches(visit) ? 'Only the student can withdraw a request.' : 'Only a teacher can decide this.');
  throw new Invalid([{ field: 'state', message: `A request that is ${from} cannot become ${state}.` }]);
}

async function beginTranscription(store: Store, request: RequestModel): Promise<void> {
  const { studioId, studentId, id: requestId, title, whose } = request;
  const student = found(await findOwn(store, store.people, { studioId, id: studentId }));
  await store.transcriptions.create(
    { ...FIRST_SET_UP, studioId, studentId, requestId, title, whose, frets: student.frets },
    within(store),
  );
}
