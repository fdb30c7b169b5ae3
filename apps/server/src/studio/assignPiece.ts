import type { Piece, PieceBody, PieceChange } from '@jam-ledger/contract';
import { findOwn, saveVersioned, within } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { showPiece } from './showPieces.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireTeacher, type Visit } from './visit.ts';

/**
 * Assigns a phrase to the student it was written for, as a practice piece; a piece taken back before is given
 * again. A new row is entered struck and then given, so that of two at once only one gives it.
 * @throws NotYours, Unknown, Invalid, Stale
 */
export async function assignPiece(visit: Visit, body: PieceBody): Promise<Piece> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const studioId = studio.id;
  const phrase = found(await findOwn(store, store.phrases, { studioId, id: body.phraseId }));
  const section = found(await findOwn(store, store.sections, { studioId, id: phrase.sectionId }));
  const song = found(await findOwn(store, store.transcriptions, { studioId, id: section.transcriptionId }));
  const owned = { studioId, studentId: song.studentId, phraseId: phrase.id };
  const values = { startBpm: body.startBpm, targetBpm: body.targetBpm, assignedOn: dayOf(visit), struck: false };
  await store.pieces.bulkCreate([{ ...owned, ...values, struck: true }], { ignoreDuplicates: true, ...within(store) });
  const row = found((await store.pieces.findOne({ where: owned, ...within(store) })) ?? undefined);
  if (!row.struck)
    throw new Invalid([{ field: 'phraseId', message: 'This phrase is already a practice piece of this student.' }]);
  const { id, version } = row;
  await kept(await saveVersioned(store, store.pieces, { studioId, id, version }, values), () => showPiece(visit, id));
  return showPiece(visit, id);
}

/** Changes the tempos of a piece, takes it back or gives it again. @throws NotYours, Unknown, Stale */
export async function changePiece(visit: Visit, id: string, change: PieceChange): Promise<Piece> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, ...changes } = change;
  const saved = await saveVersioned(store, store.pieces, { studioId: studio.id, id, version }, changes);
  await kept(saved, () => showPiece(visit, id));
  return showPiece(visit, id);
}
