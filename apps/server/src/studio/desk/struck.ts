import { STRUCK_KINDS, type PutBack, type StruckKind, type StruckLine, type StruckQuery } from '@jam-ledger/contract';
import { findAuthor, findOwn, findStruck } from '../../store/index.ts';
import { teaches, type RequestContext } from '../context/context.ts';
import { Forbidden } from '../context/errors.ts';
import { orNotFound, parseWord } from '../context/rows.ts';
import { strikeHearing } from '../lessons/lessonDay.ts';
import { changePiece } from '../pieces/assignPiece.ts';
import { strikePin } from '../pieces/pins.ts';
import { strikeEntry } from '../pieces/postEntry.ts';
import { changeSeries, showSeries } from '../series/series.ts';
import { strikeSections } from '../songs/bringIn.ts';
import { changePhrase } from '../songs/phrases.ts';
import { describePhrase } from '../songs/transcriptions.ts';

/** What is whoever’s wrote it, to be struck and put back by them alone. */
const AUTHORS: readonly StruckKind[] = ['result', 'note'];

/** What was struck out, as far as whoever asks sees it: a student their own results and notes. @throws Forbidden */
export async function listStruck(
  context: RequestContext,
  { studentId, songId }: StruckQuery,
): Promise<readonly StruckLine[]> {
  const { store, studio, person } = context;
  const isTeacher = teaches(context);
  const whose = studentId ?? (isTeacher ? null : person.id);
  const rows = await findStruck(store, studio.id, { studentId: whose, songId: songId ?? null });
  return rows.flatMap(({ kind, at, by, ...row }) => {
    const word = parseWord(STRUCK_KINDS, kind);
    const mayPutBack = AUTHORS.includes(word) ? by === person.id : isTeacher;
    if (!isTeacher && !mayPutBack) return [];
    return [{ ...row, kind: word, at: at?.toISOString() ?? null, mayPutBack }];
  });
}

/** Puts something back that was struck out, over the version that was seen. @throws Forbidden, NotFound, Conflict, Invalid */
export async function putBack(context: RequestContext, { kind, id, version }: PutBack): Promise<null> {
  const { store, studio, person } = context;
  const own = { studioId: studio.id, id };
  const back = { version, struck: false };
  if (kind === 'result' || kind === 'note') {
    const author = orNotFound(await findAuthor(store, kind === 'result' ? 'entry' : 'pin', own));
    if (author !== person.id) throw new Forbidden('This is put back by whoever wrote it.');
    await (kind === 'result' ? strikeEntry(context, id, back) : strikePin(context, id, back));
    return null;
  }
  if (!teaches(context)) throw new Forbidden('Only a teacher of the studio can do this.');
  if (kind === 'section') {
    const { transcriptionId } = orNotFound(await findOwn(store.sections, own));
    await strikeSections(context, transcriptionId, { sections: [{ id, version }], struck: false });
  } else if (kind === 'phrase') {
    const { name, text, layer, certainty, reason } = describePhrase(orNotFound(await findOwn(store.phrases, own)));
    await changePhrase(context, id, { name, text, layer, certainty, reason, ...back });
  } else if (kind === 'piece') {
    const { startBpm, targetBpm, assignedOn } = orNotFound(await findOwn(store.pieces, own));
    await changePiece(context, id, { startBpm, targetBpm, given: assignedOn != null, ...back });
  } else if (kind === 'point') {
    await strikeHearing(context, id, back);
  } else {
    const { studentId, title, rule, changes, goal, goalDay, instalments } = await showSeries(context, id);
    await changeSeries(context, id, { studentId, title, rule, changes, goal, goalDay, instalments, ...back });
  }
  return null;
}
