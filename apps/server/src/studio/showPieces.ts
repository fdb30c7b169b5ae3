import { MEDIA, OUTCOMES, type Entry, type Expected, type Ledger, type Piece } from '@jam-ledger/contract';
import { paceAt, readPaces } from '@jam-ledger/core/form';
import { writeMeter } from '@jam-ledger/core/notation';
import { nextStep, standingOf, tempoLadder } from '@jam-ledger/core/pieces';
import { dueAgain, forecast, masteryOf, paceOf, type Pace } from '@jam-ledger/core/progress';
import { findEntries, findPieces, findStudents, type EntryRow, type PieceRow } from '../store/index.ts';
import { found } from './keep.ts';
import { basicsOf } from './transcriptions.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireOwn, teaches, type Visit } from './visit.ts';

/** One piece with its entries, ladder, standing and next step. @throws NotYours, Unknown */
export async function showPiece(visit: Visit, id: string): Promise<Piece> {
  const { store, studio } = visit;
  const row = found((await findPieces(store, studio.id, { id }))[0]);
  requireOwn(visit, row.studentId);
  // The others of the student say how fast their pieces come along.
  const others = await findPieces(store, studio.id, { studentId: row.studentId });
  return found((await describePieces(visit, [row], others))[0]);
}

/** The ledger of a student; a student's own when none is named. @throws NotYours, Unknown, Invalid */
export async function showLedger(visit: Visit, asked: string | undefined): Promise<Ledger> {
  const { store, studio, person } = visit;
  if (asked === undefined && teaches(visit))
    throw new Invalid([{ field: 'studentId', message: 'Say whose ledger to open.' }]);
  const studentId = asked ?? person.id;
  const student = found((await findStudents(store, studio.id)).find(({ id }) => id === studentId));
  requireOwn(visit, studentId);
  const rows = await findPieces(store, studio.id, { studentId });
  return {
    student: { id: student.id, name: student.name },
    today: dayOf(visit),
    pieces: await describePieces(visit, rows),
  };
}

/** Pieces of one student, each with its entries; with the others they say how fast pieces come along. One query for all. */
async function describePieces(
  visit: Visit,
  rows: readonly PieceRow[],
  others: readonly PieceRow[] = [],
): Promise<readonly Piece[]> {
  const ids = [...new Set([...rows, ...others].map(({ id }) => id))];
  const entries = await findEntries(visit.store, visit.studio.id, ids);
  const byPiece = new Map<string, Entry[]>(ids.map((id) => [id, []]));
  for (const entry of entries) byPiece.get(entry.pieceId)?.push(describeEntry(visit, entry));
  const pace = paceOf([...byPiece.values()].map(counted));
  return rows.map((row) => describePiece(visit, row, { entries: byPiece.get(row.id) ?? [], pace }));
}

function counted(entries: readonly Entry[]): readonly Entry[] {
  return entries.filter(({ struck }) => !struck);
}

function describePiece(
  visit: Visit,
  row: PieceRow,
  { entries, pace: usual }: { readonly entries: readonly Entry[]; readonly pace: Pace | undefined },
): Piece {
  const ladder = tempoLadder({ start: row.startBpm, target: row.targetBpm, school: 'even-steps' });
  const history = counted(entries);
  const mastery = masteryOf(history, row.targetBpm);
  const pace = paceAt(row.sectionSeconds, readPaces(row));
  return {
    id: row.id,
    version: row.version,
    struck: row.struck,
    student: { id: row.studentId, name: row.studentName },
    song: { id: row.songId, ...basicsOf(row), tempo: pace.bpm, meter: writeMeter(pace.meter) },
    section: { id: row.sectionId, label: row.sectionLabel, role: row.sectionRole },
    phrase: { id: row.phraseId, name: row.phraseName, text: row.phraseText },
    hand: { leftHanded: row.leftHanded, spanFrets: row.spanFrets, scaleLengthMm: row.scaleLengthMm },
    startBpm: row.startBpm,
    targetBpm: row.targetBpm,
    assignedOn: row.assignedOn,
    rungs: ladder.rungs,
    entries,
    standing: standingOf(history, row.targetBpm),
    next: nextStep(history, ladder),
    mastery,
    expected: mastery.state === 'building' ? expectedOf(visit, row, { history, pace: usual }) : null,
    due: dueAgain(history, row.targetBpm, dayOf(visit)),
  };
}

function expectedOf(
  visit: Visit,
  { targetBpm, wantedBy }: PieceRow,
  { history, pace }: { readonly history: readonly Entry[]; readonly pace: Pace | undefined },
): Expected {
  const today = dayOf(visit);
  const found = forecast(history, { target: targetBpm, today, ...(pace && { prior: pace }) });
  if ('tooLittle' in found) return found;
  const { early, middle, late, chanceBy } = found.says;
  return { early, middle, late, wanted: wantedBy === null ? null : { day: wantedBy, chance: chanceBy(wantedBy) } };
}

function describeEntry(visit: Visit, row: EntryRow): Entry {
  const { id, version, bpm, remark, postedAt, postedById, postedByName, struck } = row;
  return {
    id,
    version,
    bpm,
    remark,
    struck,
    outcome: OUTCOMES.find((known) => known === row.outcome) ?? 'not-yet',
    medium: MEDIA.find((known) => known === row.medium) ?? 'pencil',
    postedAt: postedAt.toISOString(),
    day: dayOf(visit, postedAt),
    postedBy: { id: postedById, name: postedByName },
  };
}
