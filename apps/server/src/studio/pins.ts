import type { Piece, PinBody, EntryChange } from '@jam-ledger/contract';
import { findOwn, findPieces, saveVersioned } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { showPiece } from './showPieces.ts';
import { Invalid, NotYours, Unknown } from './trouble.ts';
import { requireOwn, type Visit } from './visit.ts';

/** Pins a note to an event of a piece. The same note sent again pins nothing new. @throws NotYours, Unknown, Invalid */
export async function pinNote(visit: Visit, pieceId: string, body: PinBody): Promise<Piece> {
  const { store, studio, person, now } = visit;
  const piece = found((await findPieces(store, studio.id, { id: pieceId }))[0]);
  requireOwn(visit, piece.studentId);
  if (!piece.parts.some(({ phraseId }) => phraseId === body.phraseId))
    throw new Unknown('This phrase is not part of the piece.');
  const pin = { ...body, studioId: studio.id, personId: person.id, pinnedAt: now };
  await store.pins.bulkCreate([pin], { ignoreDuplicates: true });
  const stored = await findOwn(store.pins, { studioId: studio.id, id: body.id });
  if (stored?.phraseId !== body.phraseId || stored.personId !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another note already has this id.' }]);
  return showPiece(visit, pieceId);
}

/** Takes out a note one pinned oneself, or puts it back. @throws NotYours, Unknown, Stale */
export async function strikePin(visit: Visit, id: string, { version, struck }: EntryChange): Promise<null> {
  const { store, studio, person } = visit;
  const row = found(await findOwn(store.pins, { studioId: studio.id, id }));
  if (row.personId !== person.id) throw new NotYours('A note is taken out by whoever pinned it.');
  const saved = await saveVersioned(store.pins, { studioId: studio.id, id, version }, { struck });
  await kept(saved, ({ text, version: newer }) => ({ id, text, version: newer }));
  return null;
}
