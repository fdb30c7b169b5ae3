import type { EntryBody, EntryChange, Piece } from '@jam-ledger/contract';
import { findOwn, findPieces, saveVersioned, within } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { showPiece } from './showPieces.ts';
import { Invalid, NotYours } from './trouble.ts';
import { requireOwn, teaches, type Visit } from './visit.ts';

/**
 * Posts a result for a piece: in pencil when a student logs it, in ink when a teacher heard it. The same
 * entry sent again posts nothing new. @throws NotYours, Unknown, Invalid
 */
export async function postEntry(visit: Visit, pieceId: string, body: EntryBody): Promise<Piece> {
  const { store, studio, person, now } = visit;
  const piece = found((await findPieces(store, studio.id, { id: pieceId }))[0]);
  requireOwn(visit, piece.studentId);
  if (piece.struck)
    throw new Invalid([{ field: 'pieceId', message: 'This piece was taken back; nothing can be posted to it.' }]);
  const medium = teaches(visit) ? 'ink' : 'pencil';
  const entry = { ...body, studioId: studio.id, pieceId, postedBy: person.id, medium, postedAt: now };
  await store.entries.bulkCreate([entry], { ignoreDuplicates: true, ...within(store) });
  const stored = await findOwn(store, store.entries, { studioId: studio.id, id: body.id });
  if (stored?.pieceId !== pieceId || stored.postedBy !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another entry already has this id.' }]);
  return showPiece(visit, pieceId);
}

/** Strikes out an entry one posted oneself, or puts it back. @throws NotYours, Unknown, Stale */
export async function strikeEntry(visit: Visit, id: string, { version, struck }: EntryChange): Promise<Piece> {
  const { store, studio, person } = visit;
  const row = found(await findOwn(store, store.entries, { studioId: studio.id, id }));
  if (row.postedBy !== person.id) throw new NotYours('An entry is struck out by whoever posted it.');
  const saved = await saveVersioned(store, store.entries, { studioId: studio.id, id, version }, { struck });
  await kept(saved, () => showPiece(visit, row.pieceId));
  return showPiece(visit, row.pieceId);
}
