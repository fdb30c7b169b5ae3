import type { EntryBody, EntryChange, Piece } from '@jam-ledger/contract';
import { paceOf } from '@jam-ledger/core/progress';
import { findOwn, findPieces, findResults, saveVersioned, within } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { keepShown } from './keptStandings.ts';
import { showPiece } from './showPieces.ts';
import { resultsOf } from './standing.ts';
import { Invalid, NotYours } from './trouble.ts';
import { requireOwn, teaches, type Visit } from './visit.ts';

/** What waited on a device longer than this is not posted, days. Our choice. */
const OLDEST_DAYS = 60;
const DAY_MS = 24 * 60 * 60 * 1000;

/**
 * Posts a result for a piece: in pencil when a student logs it, in ink when a teacher heard it. The same
 * entry sent again posts nothing new. @throws NotYours, Unknown, Invalid
 */
export async function postEntry(visit: Visit, pieceId: string, body: EntryBody): Promise<Piece> {
  const { store, studio, person } = visit;
  const piece = found((await findPieces(store, studio.id, { id: pieceId }))[0]);
  requireOwn(visit, piece.studentId);
  const { playedAt, sentAt, ...values } = body;
  const postedAt = momentOf(visit, playedAt, sentAt);
  if (piece.struck || (piece.assignedOn === null && !teaches(visit)))
    throw new Invalid([{ field: 'pieceId', message: 'This piece was taken back; nothing can be posted to it.' }]);
  const medium = teaches(visit) ? 'ink' : 'pencil';
  const entry = { ...values, studioId: studio.id, pieceId, postedBy: person.id, medium, postedAt };
  await store.entries.bulkCreate([entry], { ignoreDuplicates: true, ...within(store) });
  const stored = await findOwn(store, store.entries, { studioId: studio.id, id: body.id });
  if (stored?.pieceId !== pieceId || stored.postedBy !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another entry already has this id.' }]);
  await keepPace(visit, pieceId);
  return keepShown(visit, await showPiece(visit, pieceId));
}

/**
 * When a result was played, by the clock of the server: as long ago as it waited by the clock of the device, whatever that clock
 * shows. @throws Invalid where it was played after it was sent, or very long ago.
 */
function momentOf({ now }: Visit, playedAt: string | undefined, sentAt: string | undefined): Date {
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

/** Reckons anew how fast a piece comes along. */
async function keepPace({ store, studio }: Visit, pieceId: string): Promise<void> {
  const results = await findResults(store, studio.id, { pieceIds: [pieceId], zone: studio.zone });
  const pace = paceOf(resultsOf(results.get(pieceId) ?? [])) ?? null;
  await store.pieces.update({ pace }, { where: { studioId: studio.id, id: pieceId }, ...within(store) });
}

/** Strikes out an entry one posted oneself, or puts it back. @throws NotYours, Unknown, Stale */
export async function strikeEntry(visit: Visit, id: string, { version, struck }: EntryChange): Promise<Piece> {
  const { store, studio, person } = visit;
  const row = found(await findOwn(store, store.entries, { studioId: studio.id, id }));
  if (row.postedBy !== person.id) throw new NotYours('An entry is struck out by whoever posted it.');
  const saved = await saveVersioned(store, store.entries, { studioId: studio.id, id, version }, { struck });
  await kept(saved, () => showPiece(visit, row.pieceId));
  await keepPace(visit, row.pieceId);
  return keepShown(visit, await showPiece(visit, row.pieceId));
}
