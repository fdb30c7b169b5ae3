import {
  REQUEST_MOVES,
  type RequestMove,
  type RequestPromiseBody,
  type RequestState,
  type SongRequest,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { addRow, findOwn, findRow, saveVersioned, type RequestModel, type Store } from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { knownState, showRequest } from './listRequests.ts';
import { addTranscription } from '../songs/transcriptions.ts';
import { writeHome } from '../people/outbox.ts';
import { Invalid, Forbidden } from '../context/errors.ts';
import { teaches, type RequestContext } from '../context/context.ts';

/**
 * Brings a request into another state, as `REQUEST_MOVES` allows, and writes that into its history. Beginning the
 * work begins the transcription in the same step, unless an earlier part of the same song has.
 *
 * @throws Forbidden, NotFound, Conflict, Invalid
 */
export async function moveRequest(context: RequestContext, id: string, move: RequestMove): Promise<SongRequest> {
  const { store, studio } = context;
  const request = orNotFound(await findOwn(store.requests, { studioId: studio.id, id }));
  const { version, state, scope, reason } = move;
  const row = { studioId: studio.id, id, version };
  if (request.version === version) checkMove(context, request, state);
  const changes = scope === null ? { state } : { state, scope };
  await orConflict(await saveVersioned(store.requests, row, changes), () => showRequest(context, id));
  await noteMove(context, id, state, scope ?? reason);
  if (teaches(context)) await tellMove(context, request, { state, words: scope ?? reason });
  if (state === 'in work') await beginTranscription(store, request);
  return showRequest(context, id);
}

/** Promises a request for a day, or takes the promise back; both know it from its history. @throws Forbidden, NotFound, Conflict */
export async function promiseRequest(
  context: RequestContext,
  id: string,
  { version, promisedFor }: RequestPromiseBody,
): Promise<SongRequest> {
  const { store, studio } = context;
  const request = orNotFound(await findOwn(store.requests, { studioId: studio.id, id }));
  const row = { studioId: studio.id, id, version };
  await orConflict(await saveVersioned(store.requests, row, { promisedFor }), () => showRequest(context, id));
  const say = (day: string) => DateTime.fromISO(day).toFormat('d LLLL yyyy');
  const words = promisedFor === null ? 'the promise is taken back' : `promised for ${say(promisedFor)}`;
  await noteMove(context, id, knownState(request.state), words);
  await writeHome(context, request.studentId, { subject: `“${request.title}”`, body: `Your teacher: ${words}.` });
  return showRequest(context, id);
}

/** Writes a line into the history of a request. */
export async function noteMove(
  context: RequestContext,
  requestId: string,
  state: RequestState,
  note: string,
): Promise<void> {
  const { store, studio, person, now } = context;
  const line = { studioId: studio.id, requestId, at: now, personId: person.id, state, note };
  await addRow(store.requestEvents, line);
}

/** States whose coming is written to those at home. */
const TOLD: readonly RequestState[] = ['agreed', 'declined', 'delivered'];

/** Tells those at home what a request has come to, where that is told. */
export async function tellMove(
  context: RequestContext,
  { studentId, title }: Pick<RequestModel, 'studentId' | 'title'>,
  { state, words }: { readonly state: RequestState; readonly words: string },
): Promise<void> {
  if (!TOLD.includes(state)) return;
  await writeHome(context, studentId, {
    subject: `“${title}” is ${state}`,
    body: words === '' ? `“${title}” is ${state}.` : words,
  });
}

function checkMove(context: RequestContext, request: RequestModel, state: RequestState): void {
  const from = knownState(request.state);
  const allowed = (who: keyof typeof REQUEST_MOVES) => REQUEST_MOVES[who][from]?.includes(state) ?? false;
  if (allowed(teaches(context) ? 'teacher' : 'student')) return;
  if (allowed(teaches(context) ? 'student' : 'teacher'))
    throw new Forbidden(
      teaches(context) ? 'Only the student can withdraw a request.' : 'Only a teacher can decide this.',
    );
  throw new Invalid([{ field: 'state', message: `A request that is ${from} cannot become ${state}.` }]);
}

async function beginTranscription(store: Store, request: RequestModel): Promise<void> {
  const { studioId, studentId, title, whose } = request;
  const requestId = request.followsId ?? request.id;
  // Two parts of a song that are begun at once share one transcription.
  await store.lock(`transcription of ${requestId}`);
  if (await findRow(store.transcriptions, { studioId, requestId })) return;
  await addTranscription(store, { studioId, studentId, requestId, title, whose });
}
