import type { EntryBody, Strike, Loop, Piece } from '@jam-ledger/contract';
import { learningRateOf } from '@jam-ledger/core/progress';
import {
  addOnce,
  changeRows,
  findOwn,
  findPieces,
  findResults,
  saveVersioned,
  type EntryModel,
  type PieceModel,
} from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { moveOnHeld } from '../requests/moveOn.ts';
import { keepShown } from './keptStandings.ts';
import { showPiece } from './showPieces.ts';
import { resultsOf } from './standing.ts';
import { Invalid } from '../context/errors.ts';
import { teaches, type RequestContext } from '../context/context.ts';

/** What waited on a device longer than this is not posted, days. Our choice. */
const OLDEST_DAYS = 60;
const DAY_MS = 24 * 60 * 60 * 1000;

/**
 * Posts a result for a piece: in pencil when a student logs it, in ink when a teacher heard it. What was played of a part of it
 * moves no ladder but that of the piece cut there, where the student has one. The same entry sent again posts nothing new.
 * @throws Forbidden, NotFound, Invalid
 */
export async function postEntry(context: RequestContext, pieceId: string, body: EntryBody): Promise<Piece> {
  const { store, studio, person } = context;
  const piece = orNotFound((await findPieces(store, studio.id, { id: pieceId }))[0]);
  const { playedAt, sentAt, loop = null, ...values } = body;
  const postedAt = momentOf(context, playedAt, sentAt);
  if (piece.struck || (piece.assignedOn === null && !teaches(context)))
    throw new Invalid([{ field: 'pieceId', message: 'This piece was taken back; nothing can be posted to it.' }]);
  const medium = teaches(context) ? 'ink' : 'pencil';
  const countsFor = loop === null ? pieceId : await pieceCutAt(context, pieceId, loop);
  // What is kept beside a piece is computed from all of its entries, so two at once wait for each other.
  await store.lock(`entries of ${countsFor ?? pieceId}`);
  const stretch = { loopFrom: loop?.from ?? null, loopTo: loop?.to ?? null, countsFor };
  const entry = { ...values, ...stretch, studioId: studio.id, pieceId, postedBy: person.id, medium, postedAt };
  await addOnce(store.entries, entry);
  const stored = await findOwn(store.entries, { studioId: studio.id, id: body.id });
  if (stored?.pieceId !== pieceId || stored.postedBy !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another entry already has this id.' }]);
  return showCounted(context, stored);
}

/** The piece an entry was posted to as it stands; what is kept beside the one whose ladder it moves is computed anew. */
async function showCounted(context: RequestContext, { pieceId, countsFor }: EntryModel): Promise<Piece> {
  if (countsFor != null && (await comesToBeHeld(context, countsFor))) {
    const { songId, studentId } = orNotFound(
      await findOwn(context.store.pieces, { studioId: context.studio.id, id: countsFor }),
    );
    await moveOnHeld(context, { songId, studentId });
  }
  return showPiece(context, pieceId);
}

/** Computes anew what is kept beside a piece; whether it is held by that, and was not before. */
async function comesToBeHeld(context: RequestContext, id: string): Promise<boolean> {
  const find = async () => orNotFound(await findOwn(context.store.pieces, { studioId: context.studio.id, id }));
  const isHeld = ({ kept }: PieceModel) => (kept?.mastery.heldSince ?? null) !== null;
  const before = isHeld(await find());
  await computePiece(context, id);
  return !before && isHeld(await find());
}

/** Computes anew what is kept beside a piece, from all of its results. */
export async function computePiece(context: RequestContext, pieceId: string): Promise<void> {
  await keepLearningRate(context, pieceId);
  await keepShown(context, await showPiece(context, pieceId));
}

/** The given piece that plays just what went round and round in another; null where the student has none. */
async function pieceCutAt(context: RequestContext, pieceId: string, { from, to }: Loop): Promise<string | null> {
  const { store, studio } = context;
  const { parts, student } = await showPiece(context, pieceId);
  const part = parts.find(({ at, length }) => at <= from && to <= at + length);
  if (!part) return null;
  const start = part.from + from - part.at;
  const end = part.from + to - part.at;
  const isEnd = part.to === null && to === part.at + part.length;
  const others = await findPieces(store, studio.id, { studentId: student.id });
  const cut = others.find(({ parts: [first, ...more] }) => {
    if (!first || more.length > 0 || first.phraseId !== part.phraseId || first.from !== start) return false;
    return first.to === end || (first.to === null && isEnd);
  });
  return cut?.id ?? null;
}

/**
 * When a result was played, by the clock of the server: as long ago as it waited by the clock of the device, whatever that clock
 * shows. @throws Invalid where it was played after it was sent, or very long ago.
 */
function momentOf({ now }: RequestContext, playedAt: string | undefined, sentAt: string | undefined): Date {
  if (playedAt === undefined || sentAt === undefined) return now;
  const waited = Date.parse(sentAt) - Date.parse(playedAt);
  if (waited < 0)
    throw new Invalid([
      {
        field: 'playedAt',
        message: 'This lies in the future: it was played after it was sent. The clock of the device has jumped.',
      },
    ]);
  if (waited > OLDEST_DAYS * DAY_MS)
    throw new Invalid([
      { field: 'playedAt', message: `This was played more than ${OLDEST_DAYS} days ago; it is not posted any more.` },
    ]);
  return new Date(now.getTime() - waited);
}

/** Computes anew how fast a piece comes along. */
async function keepLearningRate({ store, studio }: RequestContext, pieceId: string): Promise<void> {
  const results = await findResults(store, studio.id, { pieceIds: [pieceId], zone: studio.zone });
  const learningRate = learningRateOf(resultsOf(results.get(pieceId) ?? [])) ?? null;
  await changeRows(store.pieces, { studioId: studio.id, id: pieceId }, { learningRate });
}

/** Strikes out an entry one posted oneself, or puts it back. @throws Forbidden, NotFound, Conflict */
export async function strikeEntry(context: RequestContext, id: string, { version, struck }: Strike): Promise<Piece> {
  const { store, studio } = context;
  const row = orNotFound(await findOwn(store.entries, { studioId: studio.id, id }));
  await store.lock(`entries of ${row.countsFor ?? row.pieceId}`);
  const saved = await saveVersioned(store.entries, { studioId: studio.id, id, version }, { struck });
  await orConflict(saved, () => showPiece(context, row.pieceId));
  return showCounted(context, row);
}
