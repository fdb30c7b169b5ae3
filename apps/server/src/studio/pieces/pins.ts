import type { Piece, PinBody, Strike } from '@jam-ledger/contract';
import { addOnce, findOwn, findPieces, saveVersioned } from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { showPiece } from './showPieces.ts';
import { Invalid, NotFound } from '../context/errors.ts';
import { type RequestContext } from '../context/context.ts';

/** Pins a note to an event of a piece. The same note sent again pins nothing new. @throws NotFound, Invalid */
export async function pinNote(context: RequestContext, pieceId: string, body: PinBody): Promise<Piece> {
  const { store, studio, person, now } = context;
  const piece = orNotFound((await findPieces(store, studio.id, { id: pieceId }))[0]);
  if (!piece.parts.some(({ phraseId }) => phraseId === body.phraseId))
    throw new NotFound('This phrase is not part of the piece.');
  const pin = { ...body, studioId: studio.id, personId: person.id, pinnedAt: now };
  await addOnce(store.pins, pin);
  const stored = await findOwn(store.pins, { studioId: studio.id, id: body.id });
  if (stored?.phraseId !== body.phraseId || stored.personId !== person.id)
    throw new Invalid([{ field: 'id', message: 'Another note already has this id.' }]);
  return showPiece(context, pieceId);
}

/** Takes out a note one pinned oneself, or puts it back. @throws NotFound, Conflict */
export async function strikePin(context: RequestContext, id: string, { version, struck }: Strike): Promise<null> {
  const { store, studio } = context;
  const saved = await saveVersioned(store.pins, { studioId: studio.id, id, version }, { struck });
  await orConflict(saved, ({ text, version: newer }) => ({ id, text, version: newer }));
  return null;
}
