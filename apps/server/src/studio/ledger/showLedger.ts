import {
  LEDGER_DAYS,
  type Ledger,
  type LedgerCell,
  type LedgerPiece,
  type LedgerQuery,
  type LedgerSong,
} from '@jam-ledger/contract';
import type { PieceKind } from '@jam-ledger/core/pieces';
import { lastLesson, sinceLesson, songProgress, type DatedResult } from '@jam-ledger/core/progress';
import { findAround, findOwn, findPieces, type PieceRow, type SongPhraseRow } from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { nameOf, namesOf } from '../pieces/naming.ts';
import { mapInSlices } from '../context/slices.ts';
import { aroundOf, kindOf, learningRateAround, resultsOf, standOf } from '../pieces/standing.ts';
import { Invalid, NotFound } from '../context/errors.ts';
import { dayOf, visibleStudents, type RequestContext } from '../context/context.ts';

/** The ledger of a student; one’s own, or one’s child’s, when none is named. @throws Forbidden, NotFound, Invalid */
export async function showLedger(context: RequestContext, query: LedgerQuery): Promise<Ledger> {
  return (await openLedger(context, query)).ledger;
}

/**
 * The ledger of a student, and beside it the pieces not given yet that were planned for a lesson up to a day. A fixed number of
 * queries. @throws Forbidden, NotFound, Invalid
 */
export async function openLedger(
  context: RequestContext,
  { studentId: asked, until }: LedgerQuery,
  plannedUntil?: string,
): Promise<{ readonly ledger: Ledger; readonly planned: readonly LedgerPiece[] }> {
  const { store, studio } = context;
  const studentId = asked ?? visibleStudents(context)?.[0];
  if (studentId === undefined) throw new Invalid([{ field: 'studentId', message: 'Say whose ledger to open.' }]);
  const student = orNotFound(await findOwn(store.people, { studioId: studio.id, id: studentId }));
  if (student.role !== 'student') throw new NotFound('There is no student with this id.');
  const [given, waiting] = await Promise.all([
    findPieces(store, studio.id, { studentId }),
    plannedUntil === undefined ? [] : findPieces(store, studio.id, { plannedFor: studentId, until: plannedUntil }),
  ]);
  const rows = [...given, ...waiting];
  const { results, phrases, studioRate } = await findAround(store, studio.id, {
    pieceIds: rows.map(({ id }) => id),
    songIds: [...new Set(rows.map(({ songId }) => songId))],
    zone: studio.zone,
  });
  const histories = new Map(rows.map(({ id }) => [id, resultsOf(results.get(id) ?? [])]));
  const lesson = lastLesson([...histories.values()]) ?? null;
  const { days, earlier } = daysShown([...histories.values()], until);
  const name = namesOf(phrases);
  const around = aroundOf(rows, {
    phrases,
    nameOf: (row) => nameOf(row, name),
    historyOf: ({ id }) => histories.get(id) ?? [],
  });
  const today = dayOf(context);
  const learningRate = learningRateAround(rows, studioRate);
  const described = await mapInSlices(rows, (row): LedgerPiece => {
    const history = histories.get(row.id) ?? [];
    const { ladder: _, ...stands } = standOf(row, {
      history,
      around: around(row),
      today,
      learningRate,
      memory: row.memory,
    });
    const since = lesson === null ? null : sinceLesson(history, lesson);
    return {
      id: row.id,
      version: row.version,
      kind: kindOf(row),
      startBpm: row.startBpm,
      targetBpm: row.targetBpm,
      assignedOn: row.assignedOn,
      song: { id: row.songId, title: row.title },
      section: { id: row.sectionId, label: row.sectionLabel, role: row.sectionRole },
      phrase: { id: row.phraseId, name: nameOf(row, name) },
      ...stands,
      lastDay: history.at(-1)?.day ?? null,
      since: since && since.results > 0 ? since : null,
      cells: cellsOf(history, days),
    };
  });
  const pieces = described.slice(0, given.length);
  const ledger = {
    student: { id: student.id, name: student.name },
    today,
    days,
    lessons: lessonsAmong(days, [...histories.values()]),
    earlier,
    lastLesson: lesson,
    songs: songsOf(given, { phrases, pieces }),
    pieces,
  };
  return { ledger, planned: described.slice(given.length) };
}

/** The last days with lines, up to one. */
function daysShown(
  histories: readonly (readonly DatedResult[])[],
  until: string | undefined,
): { readonly days: readonly string[]; readonly earlier: string | null } {
  const all = new Set<string>();
  for (const history of histories) for (const { day } of history) if (until === undefined || day <= until) all.add(day);
  const sorted = [...all].sort();
  return { days: sorted.slice(-LEDGER_DAYS), earlier: sorted.at(-LEDGER_DAYS - 1) ?? null };
}

function lessonsAmong(days: readonly string[], histories: readonly (readonly DatedResult[])[]): readonly string[] {
  const inked = new Set<string>();
  for (const history of histories) for (const { medium, day } of history) if (medium === 'ink') inked.add(day);
  return days.filter((day) => inked.has(day));
}

/** One line a day: ink before pencil, and of each the last. */
function cellsOf(history: readonly DatedResult[], days: readonly string[]): readonly LedgerCell[] {
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined) return [];
  const cells = new Map<string, LedgerCell>();
  for (const { day, bpm, outcome, medium, percent = 100 } of history) {
    if (day < first || day > last) continue;
    const known = cells.get(day);
    const results = (known?.results ?? 0) + 1;
    if (known && known.medium === 'ink' && medium === 'pencil') cells.set(day, { ...known, results });
    else cells.set(day, { day, bpm, outcome, medium, percent, results });
  }
  return [...cells.values()];
}

/** Kinds of pieces that hold whole phrases. */
const WHOLE: readonly PieceKind[] = ['phrase', 'join', 'run'];

/** How much of each song stands: a phrase is as far as the best piece that has all of it, in whichever way it was given. */
export function songsOf(
  rows: readonly PieceRow[],
  {
    phrases,
    pieces,
  }: {
    readonly phrases: readonly SongPhraseRow[];
    readonly pieces: readonly Pick<LedgerPiece, 'kind' | 'standing' | 'mastery'>[];
  },
): readonly LedgerSong[] {
  const mains = new Map(phrases.map(({ id, mainId }) => [id, mainId]));
  const best = new Map<string, { share: number; held: boolean }>();
  rows.forEach((row, index) => {
    const piece = pieces[index];
    if (!piece || !WHOLE.includes(piece.kind)) return;
    for (const { phraseId, from, to } of row.parts) {
      if (from > 0 || to !== null) continue;
      const main = mains.get(phraseId) ?? phraseId;
      const before = best.get(main);
      best.set(main, {
        share: Math.max(before?.share ?? 0, piece.standing.share),
        held: (before?.held ?? false) || piece.mastery.state === 'held',
      });
    }
  });
  const titles = new Map(rows.map(({ songId, title }) => [songId, title]));
  return [...titles].map(([id, title]) => {
    const own = phrases.filter(({ songId, isChosen }) => songId === id && isChosen);
    const parts = own.map((phrase) => {
      const { share = 0, held = false } = best.get(phrase.mainId) ?? {};
      return { length: phrase.bars, share, state: held ? ('held' as const) : ('building' as const) };
    });
    return { id, title, bars: Math.round(own.reduce((sum, phrase) => sum + phrase.bars, 0)), ...songProgress(parts) };
  });
}
