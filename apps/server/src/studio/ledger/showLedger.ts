import {
  LEDGER_DAYS,
  type Ledger,
  type LedgerCell,
  type LedgerPiece,
  type LedgerQuery,
  type LedgerSong,
} from '@jam-ledger/contract';
import type { PieceKind } from '@jam-ledger/core/pieces';
import { lastLesson as lessonAmong, sinceLesson, songProgress, type DatedResult } from '@jam-ledger/core/progress';
import { findAround, findOwn, findPieces, type PieceRow, type SongPhraseRow } from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { nameOf, namesOf } from '../pieces/naming.ts';
import { mapInSlices } from '../context/slices.ts';
import { aroundOf, kindOf, learningRateAround, resultsOf, standOf } from '../pieces/standing.ts';
import { Invalid, NotFound } from '../context/errors.ts';
import { dayOf, visibleStudents, type RequestContext } from '../context/context.ts';

/** The ledger of a student; one’s own, or one’s child’s, when none is named. @throws Forbidden, NotFound, Invalid */
export async function showLedger(context: RequestContext, query: LedgerQuery): Promise<Ledger> {
  const student = await whoseLedger(context, query);
  const { rows, phrases, histories, lastLesson, pieces } = await openPieces(context, { studentId: student.id });
  const { days, earlier } = daysShown([...histories.values()], query.until);
  return {
    student,
    today: dayOf(context),
    days,
    lessons: lessonsAmong(days, [...histories.values()]),
    earlier,
    lastLesson,
    songs: songsOf(rows, { phrases, pieces }),
    pieces: pieces.map((piece) => ({ ...piece, cells: cellsOf(histories.get(piece.id) ?? [], days) })),
  };
}

/** Whose ledger is asked for: that of a student; one’s own, or one’s child’s, when none is named. @throws NotFound, Invalid */
export async function whoseLedger(context: RequestContext, { studentId }: LedgerQuery): Promise<Ledger['student']> {
  const id = studentId ?? visibleStudents(context)?.[0];
  if (id === undefined) throw new Invalid([{ field: 'studentId', message: 'Say whose ledger to open.' }]);
  const person = orNotFound(await findOwn(context.store.people, { studioId: context.studio.id, id }));
  if (person.role !== 'student') throw new NotFound('There is no student with this id.');
  return { id, name: person.name };
}

/** Pieces of a student where they stand, and what they stand by. */
interface OpenPieces {
  readonly rows: readonly PieceRow[];
  readonly phrases: readonly SongPhraseRow[];
  /** By piece, oldest first. */
  readonly histories: ReadonlyMap<string, readonly DatedResult[]>;
  /** The day of the last lesson; null for none yet. */
  readonly lastLesson: string | null;
  /** In the order of `rows`. */
  readonly pieces: readonly LedgerPiece[];
}

/**
 * Where the pieces of a student stand in the order of songs and sections, those not given yet among them that were planned for a lesson up
 * to a day where one is named. Two queries, at once.
 */
export async function openPieces(
  context: RequestContext,
  of: { readonly studentId: string; readonly plannedUntil?: string },
): Promise<OpenPieces> {
  const { store, studio } = context;
  const [rows, { results, phrases, studioRate }] = await Promise.all([
    findPieces(store, studio.id, of),
    findAround(store, studio.id, { studentId: of.studentId, zone: studio.zone }),
  ]);
  const histories = new Map(rows.map(({ id }) => [id, resultsOf(results.get(id) ?? [])]));
  const lesson = lessonAmong([...histories.values()]) ?? null;
  const name = namesOf(phrases);
  const around = aroundOf(rows, {
    phrases,
    nameOf: (row) => nameOf(row, name),
    historyOf: ({ id }) => histories.get(id) ?? [],
  });
  const today = dayOf(context);
  const learningRate = learningRateAround(rows, studioRate);
  const pieces = await mapInSlices(rows, (row): LedgerPiece => {
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
      last: lastOf(history),
      since: since && since.results > 0 ? since : null,
    };
  });
  return { rows, phrases, histories, lastLesson: lesson, pieces };
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

/** What stands of the newest day. */
function lastOf(history: readonly DatedResult[]): LedgerPiece['last'] {
  const day = history.at(-1)?.day;
  const before = history.findLastIndex((one) => one.day !== day);
  const last = day === undefined ? undefined : cellsOf(history.slice(before + 1), [day])[0];
  return last ? { bpm: last.bpm, outcome: last.outcome, medium: last.medium } : null;
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
