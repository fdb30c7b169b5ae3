import { randomUUID } from 'node:crypto';
import {
  MEDIA,
  OUTCOMES,
  type EntriesBody,
  type EntriesBrought,
  type EntriesQuery,
  type EntriesStruck,
  type EntryRow,
} from '@jam-ledger/contract';
import { DateTime } from 'luxon';
import { addRow, findEntriesOf, findPieces, lockLadder, strikeEntriesOf } from '../../store/index.ts';
import { parseWord } from '../context/rows.ts';
import { Invalid } from '../context/errors.ts';
import { dayOf, type RequestContext } from '../context/context.ts';
import { openPieces, whoseLedger } from '../ledger/showLedger.ts';
import { computePiece } from './standNow.ts';

/** All results of a student, the newest first; one’s own, or one’s child’s, when none is named. @throws Forbidden, NotFound, Invalid */
export async function listEntries(context: RequestContext, query: EntriesQuery): Promise<readonly EntryRow[]> {
  const { id: studentId } = await whoseLedger(context, query);
  const opened = await openPieces(context, { studentId });
  const pieces = new Map(opened.pieces.map((piece) => [piece.id, piece]));
  const { store, studio } = context;
  const rows = await findEntriesOf(store, studio.id, { studentId, zone: studio.zone });
  return rows.map(({ pieceId, outcome, medium, ...row }) => {
    const piece = pieces.get(pieceId);
    return {
      ...row,
      song: piece?.song.title ?? '',
      section: piece?.section.label ?? '',
      piece: piece?.phrase.name ?? '',
      outcome: parseWord(OUTCOMES, outcome),
      medium: parseWord(MEDIA, medium),
    };
  });
}

/** Where in its day a result of an older book is put: noon. */
const NOON = { hour: 12 } as const;

/**
 * Brings results of an older book in, in ink, each at noon of its day: all of them or none. @throws Forbidden, Invalid for pieces that
 * the student has not, and days to come
 */
export async function bringEntries(
  context: RequestContext,
  { studentId, entries }: EntriesBody,
): Promise<EntriesBrought> {
  const { store, studio, person } = context;
  const pieces = new Set((await findPieces(store, studio.id, { studentId })).map(({ id }) => id));
  const today = dayOf(context);
  const problems = entries.flatMap(({ pieceId, day }, index) => {
    if (!pieces.has(pieceId)) return [{ field: `entries.${index}.pieceId`, message: 'The student has no such piece.' }];
    return day > today ? [{ field: `entries.${index}.day`, message: 'This day is still to come.' }] : [];
  });
  if (problems.length > 0) throw new Invalid(problems);
  const ids: string[] = [];
  for (const { pieceId, day, bpm, outcome, remark } of entries) {
    const postedAt = DateTime.fromISO(day, { zone: studio.zone }).set(NOON).toJSDate();
    const id = randomUUID();
    const row = { id, studioId: studio.id, pieceId, postedBy: person.id, countsFor: pieceId };
    await addRow(store.entries, { ...row, bpm, outcome, remark, medium: 'ink', percent: 100, postedAt });
    ids.push(id);
  }
  await computePieces(
    context,
    entries.map((entry) => entry.pieceId),
  );
  return { ids };
}

/** Strikes results out together that one posted oneself, or puts them back. */
export async function strikeEntries(context: RequestContext, { ids, struck }: EntriesStruck): Promise<null> {
  const { store, studio, person } = context;
  const touched = await strikeEntriesOf(store, { studioId: studio.id, personId: person.id, ids, struck });
  await computePieces(context, touched);
  return null;
}

/** Computes anew what is kept beside some pieces, each in its turn; the turns come in one order, so that nobody waits in a circle. */
async function computePieces(context: RequestContext, ids: readonly string[]): Promise<void> {
  for (const id of [...new Set(ids)].sort()) {
    await lockLadder(context.store, id);
    await computePiece(context, id);
  }
}
