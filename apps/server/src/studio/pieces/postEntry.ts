import type { EntryBody, Strike, Loop, Piece, Posted } from '@jam-ledger/contract';
import { addEntry, findOwn, findPieces, lockLadder, saveVersioned, type PieceRow } from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { moveOnHeld } from '../requests/moveOn.ts';
import { describeEntry, showPiece } from './showPieces.ts';
import { computePiece, keepStanding, standNow } from './standNow.ts';
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
export async function postEntry(context: RequestContext, pieceId: string, body: EntryBody): Promise<Posted> {
  const { store, studio, person } = context;
  const rows = await findPieces(store, studio.id, { beside: pieceId });
  const piece = orNotFound(rows.find(({ id }) => id === pieceId));
  const { playedAt, sentAt, loop = null, percent = 100, ...values } = body;
  const postedAt = momentOf(context, playedAt, sentAt);
  if (piece.struck || (piece.assignedOn === null && !teaches(context)))
    throw new Invalid([{ field: 'pieceId', message: 'This piece was taken back; nothing can be posted to it.' }]);
  const medium = teaches(context) ? 'ink' : 'pencil';
  const countsFor = loop === null ? pieceId : await pieceCutAt(context, pieceId, { loop, rows });
  const stretch = { loopFrom: loop?.from ?? null, loopTo: loop?.to ?? null, countsFor };
  const entry = { ...values, ...stretch, percent, pieceId, postedById: person.id, medium, postedAt };
  const stored = await addEntry(store, studio.id, entry, studio.zone);
  if (stored?.pieceId !== pieceId || stored.postedById !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another entry already has this id.' }]);
  const stood = await standNow(context, rows, [...new Set([pieceId, countsFor ?? pieceId])]);
  const counted = rows.find((row) => row.id === countsFor);
  if (counted) {
    const { cameToBeHeld } = await keepStanding(context, counted, orNotFound(stood.get(counted.id)));
    if (cameToBeHeld) await moveOnHeld(context, counted);
  }
  const { standing, next, around, mastery, due, expected } = orNotFound(stood.get(pieceId));
  const { id, version } = piece;
  return { id, version, standing, next, around, mastery, due, expected, entry: describeEntry(pieceId, stored) };
}

/** The given piece that plays just what went round and round in another; null where the student has none. */
async function pieceCutAt(
  context: RequestContext,
  pieceId: string,
  { loop: { from, to }, rows }: { readonly loop: Loop; readonly rows: readonly PieceRow[] },
): Promise<string | null> {
  const { parts } = await showPiece(context, pieceId);
  const part = parts.find(({ at, length }) => at <= from && to <= at + length);
  if (!part) return null;
  const start = part.from + from - part.at;
  const end = part.from + to - part.at;
  const isEnd = part.to === null && to === part.at + part.length;
  const cut = rows.find(({ assignedOn, struck, parts: [first, ...more] }) => {
    if (assignedOn === null || struck) return false;
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

/** Strikes out an entry one posted oneself, or puts it back. @throws Forbidden, NotFound, Conflict */
export async function strikeEntry(context: RequestContext, id: string, { version, struck }: Strike): Promise<Piece> {
  const { store, studio } = context;
  const row = orNotFound(await findOwn(store.entries, { studioId: studio.id, id }));
  await lockLadder(store, row.countsFor ?? row.pieceId);
  const saved = await saveVersioned(store.entries, { studioId: studio.id, id, version }, { struck });
  await orConflict(saved, () => showPiece(context, row.pieceId));
  if (row.countsFor != null) {
    const { row: counted, cameToBeHeld } = await computePiece(context, row.countsFor);
    if (cameToBeHeld) await moveOnHeld(context, counted);
  }
  return showPiece(context, row.pieceId);
}
