import type { Piece, PieceBody, PieceChange } from '@jam-ledger/contract';
import { cutKey, wholePhrase } from '@jam-ledger/core/pieces';
import { findOwn, saveVersioned, within } from '../store/index.ts';
import { found, kept } from './keep.ts';
import { keepShown } from './keptStandings.ts';
import { showPiece } from './showPieces.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireTeacher, type Visit } from './visit.ts';

/**
 * Assigns a phrase to the student it was written for, as a practice piece; one that is planned, or was taken back before, is
 * given. A new row is entered as planned and then given, so that of two at once only one gives it.
 * @throws NotYours, Unknown, Invalid, Stale
 */
export async function assignPiece(visit: Visit, body: PieceBody): Promise<Piece> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const studioId = studio.id;
  const phrase = found(await findOwn(store, store.phrases, { studioId, id: body.phraseId }));
  const section = found(await findOwn(store, store.sections, { studioId, id: phrase.sectionId }));
  const song = found(await findOwn(store, store.transcriptions, { studioId, id: section.transcriptionId }));
  const cut = { kind: 'phrase', parts: [wholePhrase(phrase.id)] } as const;
  const owned = { studioId, studentId: song.studentId, cut: cutKey(cut) };
  const { startBpm, targetBpm, floorBpm = null, difficulty = null } = body;
  const planned = { ...owned, ...cut, songId: song.id, phraseId: phrase.id, startBpm, targetBpm, place: AT_THE_END };
  await store.pieces.bulkCreate([{ ...planned, parts: [...cut.parts] }], { ignoreDuplicates: true, ...within(store) });
  const row = found((await store.pieces.findOne({ where: owned, ...within(store) })) ?? undefined);
  if (row.assignedOn !== null && !row.struck)
    throw new Invalid([{ field: 'phraseId', message: 'This phrase is already a practice piece of this student.' }]);
  const { id, version } = row;
  const values = { startBpm, targetBpm, floorBpm, difficulty, assignedOn: dayOf(visit), struck: false };
  await kept(await saveVersioned(store, store.pieces, { studioId, id, version }, values), () => showPiece(visit, id));
  return keepShown(visit, await showPiece(visit, id));
}

/** Where a piece stands that nobody put into a plan. */
const AT_THE_END = 1_000_000;

/** Changes the tempos of a piece, gives it or takes it back into the plan or out of it. @throws NotYours, Unknown, Stale */
export async function changePiece(visit: Visit, id: string, change: PieceChange): Promise<Piece> {
  requireTeacher(visit);
  const { store, studio } = visit;
  const { version, given, ...changes } = change;
  const before = found(await findOwn(store, store.pieces, { studioId: studio.id, id }));
  const assignedOn = given ? (before.assignedOn ?? dayOf(visit)) : null;
  const saved = await saveVersioned(
    store,
    store.pieces,
    { studioId: studio.id, id, version },
    { ...changes, assignedOn },
  );
  await kept(saved, () => showPiece(visit, id));
  return keepShown(visit, await showPiece(visit, id));
}
