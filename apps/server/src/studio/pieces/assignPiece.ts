import type { Piece, PieceBody, PieceChange } from '@jam-ledger/contract';
import { cutKey, wholePhrase, type Excerpt } from '@jam-ledger/core/pieces';
import { addRow, findOwn, findRow, lockLadder, lockPlan, makeRoomInPlan, saveVersioned } from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { showPiece } from './showPieces.ts';
import { computePiece } from './standNow.ts';
import { moveOnGiven } from '../requests/moveOn.ts';
import { settlePlaces } from '../songs/references.ts';
import { Invalid } from '../context/errors.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/**
 * Assigns a phrase to the student it was written for, as a practice piece; one that is planned, or was taken back before, is
 * given. Two at once wait for each other, so that only one gives it.
 * @throws Forbidden, NotFound, Invalid, Conflict
 */
export async function assignPiece(context: RequestContext, body: PieceBody): Promise<Piece> {
  const { store, studio } = context;
  const studioId = studio.id;
  const phrase = orNotFound(await findOwn(store.phrases, { studioId, id: body.phraseId }));
  const section = orNotFound(await findOwn(store.sections, { studioId, id: phrase.sectionId }));
  const song = orNotFound(await findOwn(store.transcriptions, { studioId, id: section.transcriptionId }));
  const player = orNotFound(await findOwn(store.people, { studioId, id: song.studentId }));
  if (player.role !== 'student')
    throw new Invalid([{ field: 'phraseId', message: 'This is a lick of your own; copy it for a student first.' }]);
  const cut = { kind: 'phrase', parts: [wholePhrase(phrase.id)] } as const;
  const owned = { studioId, studentId: song.studentId, cut: cutKey(cut) };
  const { startBpm, targetBpm, floorBpm = null, difficulty = null } = body;
  const at = { songId: song.id, phraseId: phrase.id };
  await lockPlan(store, song.id);
  const before = await findRow(store.pieces, owned);
  if (before && before.assignedOn !== null && !before.struck)
    throw new Invalid([{ field: 'phraseId', message: 'This phrase is already a practice piece of this student.' }]);
  await settlePlaces(context, [phrase.id]);
  const values = { startBpm, targetBpm, floorBpm, difficulty, assignedOn: dayOf(context), struck: false };
  const position = before && !before.struck ? before.position : await makeRoomInPlan(store, studioId, at);
  if (before) {
    const { id, version } = before;
    const saved = await saveVersioned(store.pieces, { studioId, id, version }, { ...values, position });
    await orConflict(saved, () => showPiece(context, id));
    await moveOnGiven(context, { songId: song.id, studentId: song.studentId });
    return computeAndShow(context, id);
  }
  const row = await addRow(store.pieces, { ...owned, ...at, ...values, kind: cut.kind, parts: cut.parts, position });
  await moveOnGiven(context, { songId: song.id, studentId: song.studentId });
  return computeAndShow(context, row.id);
}

/** Changes the tempos of a piece, gives it or takes it back into the plan or out of it. @throws Forbidden, NotFound, Conflict */
export async function changePiece(context: RequestContext, id: string, change: PieceChange): Promise<Piece> {
  const { store, studio } = context;
  const { version, given, ...changes } = change;
  const before = orNotFound(await findOwn(store.pieces, { studioId: studio.id, id }));
  const assignedOn = given ? (before.assignedOn ?? dayOf(context)) : null;
  if (given && before.assignedOn === null) await settlePlaces(context, phrasesOf(before));
  const isBack = before.struck && !changes.struck;
  const position = isBack ? await makeRoomInPlan(store, studio.id, before) : before.position;
  const saved = await saveVersioned(
    store.pieces,
    { studioId: studio.id, id, version },
    { ...changes, assignedOn, position },
  );
  await orConflict(saved, () => showPiece(context, id));
  if (given && before.assignedOn === null) await moveOnGiven(context, before);
  return computeAndShow(context, id);
}

async function computeAndShow(context: RequestContext, id: string): Promise<Piece> {
  await lockLadder(context.store, id);
  await computePiece(context, id);
  return showPiece(context, id);
}

/** The phrases that a piece plays. */
export function phrasesOf({ parts }: { readonly parts: readonly Excerpt[] }): readonly string[] {
  return parts.map(({ phraseId }) => phraseId);
}
