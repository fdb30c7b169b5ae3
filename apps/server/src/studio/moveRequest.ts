import {
  REQUEST_MOVES,
  type RequestMove,
  type RequestPromiseBody,
  type RequestState,
  type SongRequest,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { findOwn, saveVersioned, type RequestModel, type Store } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { knownState, showRequest } from './listRequests.ts';
import { writeHome } from './outbox.ts';
import { Invalid, NotYours } from './trouble.ts';
import { requireOwn, requireTeacher, teaches, type Visit } from './visit.ts';

/** What a song is set up with until the teacher has listened. Common practice: standard tuning, 4/4. */
const FIRST_SET_UP = { tuning: 'standard', capo: 0, key: '', tempo: 100, meter: '4/4', offsetCents: 0 } as const;

/**
 * Brings a request into another state, as `REQUEST_MOVES` allows, and writes that into its history. Beginning the
 * work begins the transcription in the same step, unless an earlier part of the same song has.
 *
 * @throws NotYours, Unknown, Stale, Invalid
 */
export async function moveRequest(visit: Visit, id: string, move: RequestMove): Promise<SongRequest> {
  const { store, studio } = visit;
  const request = found(await findOwn(store.requests, { studioId: studio.id, id }));
  requireOwn(visit, request.studentId);
  const { version, state, scope, reason } = move;
  const row = { studioId: studio.id, id, version };
  if (request.version === version) checkMove(visit, request, state);
  const changes = scope === null ? { state } : { state, scope };
  await kept(await saveVersioned(store.requests, row, changes), () => showRequest(visit, id));
  await noteMove(visit, id, state, scope ?? reason);
  if (teaches(visit)) await tellMove(visit, request, { state, words: scope ?? reason });
  if (state === 'in work') await beginTranscription(store, request);
  return showRequest(visit, id);
}

/** Promises a request for a day, or takes the promise back; both know it from its history. @throws NotYours, Unknown, Stale */
export async function promiseRequest(
  visit: Visit,
  id: string,
  { version, promisedFor }: RequestPromiseBody,
): Promise<SongRequest> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const request = found(await findOwn(store.requests, { studioId: studio.id, id }));
  const row = { studioId: studio.id, id, version };
  await kept(await saveVersioned(store.requests, row, { promisedFor }), () => showRequest(visit, id));
  const say = (day: string) => DateTime.fromISO(day).toFormat('d LLLL yyyy');
  const words = promisedFor === null ? 'the promise is taken back' : `promised for ${say(promisedFor)}`;
  await noteMove(visit, id, knownState(request.state), words);
  await writeHome(visit, request.studentId, { subject: `“${request.title}”`, body: `Your teacher: ${words}.` });
  return showRequest(visit, id);
}

/** Writes a line into the history of a request. */
export async function noteMove(visit: Visit, requestId: string, state: RequestState, note: string): Promise<void> {
  const { store, studio, person, now } = visit;
  const line = { studioId: studio.id, requestId, at: now, personId: person.id, state, note };
  await store.requestEvents.create(line);
}

/** States whose coming is written to those at home. */
const TOLD: readonly RequestState[] = ['agreed', 'declined', 'delivered'];

async function tellMove(
  visit: Visit,
  { studentId, title }: RequestModel,
  { state, words }: { readonly state: RequestState; readonly words: string },
): Promise<void> {
  if (!TOLD.includes(state)) return;
  await writeHome(visit, studentId, {
    subject: `“${title}” is ${state}`,
    body: words === '' ? `“${title}” is ${state}.` : words,
  });
}

function checkMove(visit: Visit, request: RequestModel, state: RequestState): void {
  const from = knownState(request.state);
  const allowed = (who: keyof typeof REQUEST_MOVES) => REQUEST_MOVES[who][from]?.includes(state) ?? false;
  if (allowed(teaches(visit) ? 'teacher' : 'student')) return;
  if (allowed(teaches(visit) ? 'student' : 'teacher'))
    throw new NotYours(teaches(visit) ? 'Only the student can withdraw a request.' : 'Only a teacher can decide this.');
  throw new Invalid([{ field: 'state', message: `A request that is ${from} cannot become ${state}.` }]);
}

async function beginTranscription(store: Store, request: RequestModel): Promise<void> {
  const { studioId, studentId, title, whose } = request;
  const requestId = request.followsId ?? request.id;
  // Two parts of a song that are begun at once share one transcription.
  await store.lock(`transcription of ${requestId}`);
  if (await store.transcriptions.findOne({ where: { studioId, requestId } })) return;
  const student = found(await findOwn(store.people, { studioId, id: studentId }));
  await store.transcriptions.create({
    ...FIRST_SET_UP,
    studioId,
    studentId,
    requestId,
    title,
    whose,
    frets: student.frets,
  });
}
