import type { RequestState } from '@jam-ledger/contract';
import { countUngiven, countUnheld, findRequests, saveVersioned, type RequestRow } from '../../store/index.ts';
import { computeMissing } from '../pieces/keptStandings.ts';
import type { RequestContext } from '../context/context.ts';
import { knownState } from './listRequests.ts';
import { noteMove, tellMove } from './moveRequest.ts';

/** A song of a student. */
interface SongOf {
  readonly songId: string;
  readonly studentId: string;
}

/** From where a request moves on by itself; whoever moved it back by hand does so again from further on. */
const FROM = {
  given: ['to be checked', 'delivered'],
  held: ['in work', 'to be checked', 'delivered', 'in practice'],
  delivered: ['in work', 'to be checked'],
} as const satisfies Readonly<Record<string, readonly RequestState[]>>;

/**
 * Lets the requests of a song go on into practice, since a piece of it was just given: those that are written, with the first piece; one
 * that is still worked on, when all that is written of it is given and no instalment is due.
 */
export async function moveOnGiven(context: RequestContext, song: SongOf): Promise<void> {
  const { store, studio } = context;
  await moveOn(context, song, FROM.given, { state: 'in practice', note: 'by itself: its first piece is given' });
  if ((await countUngiven(store, studio.id, song.songId)) > 0) return;
  await moveOn(context, song, ['in work'], { state: 'in practice', note: 'by itself: all of it is given' });
}

/** Closes the requests of a song, where the piece that just came to be held was the last. */
export async function moveOnHeld(context: RequestContext, song: SongOf): Promise<void> {
  const { store, studio } = context;
  // Where its others stand may still have to be computed since something changed.
  await computeMissing(store, { studioId: studio.id, songId: song.songId });
  if ((await countUnheld(store, studio.id, song.songId)) > 0) return;
  await moveOn(context, song, FROM.held, { state: 'closed', note: 'by itself: all its pieces are held' });
}

/** Lets requests be delivered whose last instalment was just handed over. */
export async function moveOnDelivered(
  context: RequestContext,
  studentId: string,
  requestIds: readonly string[],
): Promise<void> {
  const { store, studio } = context;
  if (requestIds.length === 0) return;
  const requests = await findRequests(store, studio.id, { studentIds: [studentId] });
  const meant = requests.filter(({ id }) => requestIds.includes(id));
  await moveAll(context, meant, FROM.delivered, {
    state: 'delivered',
    note: 'by itself: its last instalment is delivered',
  });
}

interface Step {
  readonly state: RequestState;
  readonly note: string;
}

async function moveOn(
  context: RequestContext,
  { songId, studentId }: SongOf,
  from: readonly RequestState[],
  step: Step,
): Promise<void> {
  const { store, studio } = context;
  const requests = await findRequests(store, studio.id, { studentIds: [studentId] });
  const meant = requests.filter(({ transcriptionId }) => transcriptionId === songId);
  await moveAll(context, meant, from, step);
}

async function moveAll(
  context: RequestContext,
  requests: readonly RequestRow[],
  from: readonly RequestState[],
  { state, note }: Step,
): Promise<void> {
  const { store, studio } = context;
  for (const request of requests.filter((one) => from.includes(knownState(one.state)))) {
    const { id, version } = request;
    // Of two at once the one that comes second finds it moved.
    const saved = await saveVersioned(store.requests, { studioId: studio.id, id, version }, { state });
    if (!saved?.saved) continue;
    await noteMove(context, id, state, note);
    await tellMove(context, request, { state, words: '' });
  }
}
