import { MEDIA, OUTCOMES, type Entry, type Ledger, type Piece } from '@jam-ledger/contract';
import { paceAt, readPaces } from '@jam-ledger/core/form';
import { writeMeter } from '@jam-ledger/core/notation';
import { nextStep, standingOf, tempoLadder } from '@jam-ledger/core/pieces';
import { dueAgain, masteryOf } from '@jam-ledger/core/progress';
import { findEntries, findPieces, findStudents, type EntryRow, type PieceRow } from '../store/index.ts';
import { found } from './keep.ts';
import { basicsOf } from './transcriptions.ts';
import { Invalid } from './trouble.ts';
import { dayOf, requireOwn, teaches, type Visit } from './visit.ts';

/** One piece with its entries, ladder, standing and next step. @throws NotYours, Unknown */
export async function showPiece(visit: Visit, id: string): Promise<Piece> {
  const row = found((await findPieces(visit.store, visit.studio.id, { id }))[0]);
  requireOwn(visit, row.studentId);
  const entries = await findEntries(visit.store, visit.studio.id, [id]);
  return describePiece(visit, row, entries);
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
  const entries = await findEntries(
    store,
    studio.id,
    rows.map(({ id }) => id),
  );
  return {
    student: { id: student.id, name: student.name },
    today: dayOf(visit),
    pieces: rows.map((row) =>
      describePiece(
        visit,
        row,
        entries.filter(({ pieceId }) => pieceId === row.id),
      ),
    ),
  };
}

function describePiece(visit: Visit, row: PieceRow, entryRows: readonly EntryRow[]): Piece {
  const ladder = tempoLadder({ start: row.startBpm, target: row.targetBpm, school: 'even-steps' });
  const entries = entryRows.map((entry) => describeEntry(visit, entry));
  const history = entries.filter(({ struck }) => !struck);
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
    mastery: masteryOf(history, row.targetBpm),
    due: dueAgain(history, row.targetBpm, dayOf(visit)),
  };
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
