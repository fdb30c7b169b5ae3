import type { Readiness, ReportDay, ReportPiece, SeriesReport } from '@jam-ledger/contract';
import { chanceOfAll, forecast, forecastFresh, type DatedResult, type LearningRate } from '@jam-ledger/core/progress';
import { standingOf } from '@jam-ledger/core/pieces';
import { findAround, findPieces, findSongsOf, type PieceRow } from '../../store/index.ts';
import { listHomeNotes } from '../lessons/lessonDay.ts';
import { showSeries } from './series.ts';
import { songsOf } from '../ledger/showLedger.ts';
import { nameOf, namesOf } from '../pieces/naming.ts';
import { mapInSlices } from '../context/slices.ts';
import { aroundOf, kindOf, learningRateAround, resultsOf, standOf } from '../pieces/standing.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/** Days that a chart shows at most, the newest; pieces that hold back that are named. Our choice. */
const SHOWN = { days: 60, holdingBack: 3 } as const;

/** Everything a series is reported from. A fixed number of queries for each of its songs. @throws Forbidden, NotFound */
export async function reportSeries(context: RequestContext, id: string): Promise<SeriesReport> {
  const { store, studio } = context;
  const series = await showSeries(context, id);
  const today = dayOf(context);
  const requestIds = [...new Set(series.instalments.map(({ requestId }) => requestId))];
  const asked = await findSongsOf(store, studio.id, { studentId: series.studentId, requestIds });
  const songIds = [...new Set(asked.flatMap(({ songId }) => songId ?? []))];
  const rows = (await Promise.all(songIds.map((songId) => findPieces(store, studio.id, { songId })))).flat();
  const pieceIds = rows.map((row) => row.id);
  const [{ results, phrases, studioRate }, notes] = await Promise.all([
    findAround(store, studio.id, { pieceIds, songIds, zone: studio.zone }),
    listHomeNotes(context, series.studentId),
  ]);
  const histories = new Map(rows.map((row) => [row.id, resultsOf(results.get(row.id) ?? [])]));
  const historyOf = (row: PieceRow) => histories.get(row.id) ?? [];
  const name = namesOf(phrases);
  const around = aroundOf(rows, { phrases, nameOf: (row) => nameOf(row, name), historyOf });
  const learningRate = learningRateAround(rows, studioRate);
  const stands = await mapInSlices(rows, (row) =>
    standOf(row, { history: historyOf(row), around: around(row), today, learningRate }),
  );
  const given = rows.flatMap((row, index) => {
    const stand = stands[index];
    return row.assignedOn !== null && stand ? [{ row, stand }] : [];
  });
  const [first] = series.lessons;
  return {
    series,
    today,
    songs: songsOf(
      given.map(({ row }) => row),
      { phrases, pieces: given.map(({ row, stand }) => ({ ...stand, kind: kindOf(row) })) },
    ),
    pieces: rows.flatMap((row, index): readonly ReportPiece[] => {
      const stand = stands[index];
      if (!stand) return [];
      const { standing, mastery, next, expected } = stand;
      return [
        {
          id: row.id,
          name: nameOf(row, name),
          song: row.title,
          kind: kindOf(row),
          targetBpm: row.targetBpm,
          inkBpm: standing.inkBpm,
          pencilBpm: standing.pencilBpm,
          share: standing.share,
          state: mastery.state,
          next: row.assignedOn === null ? '' : next.reason,
          assignedOn: row.assignedOn,
          expected:
            expected && 'early' in expected
              ? { early: expected.early, middle: expected.middle, late: expected.late }
              : null,
        },
      ];
    }),
    days: daysOf(rows, historyOf),
    readiness:
      series.goalDay === null
        ? null
        : readinessOf(rows, {
            historyOf,
            nameOf: (row) => nameOf(row, name),
            learningRate,
            today,
            goalDay: series.goalDay,
          }),
    notes: notes.filter(({ day }) => first !== undefined && day >= first.day).slice(0, 4),
    instalments: series.instalments.map(({ requestId, ...rest }) => ({
      ...rest,
      title: asked.find((one) => one.requestId === requestId)?.title ?? '',
    })),
  };
}

/** How much of all pieces stood on each day with a line, every piece as much as another. */
function daysOf(rows: readonly PieceRow[], historyOf: (row: PieceRow) => readonly DatedResult[]): readonly ReportDay[] {
  const days = [...new Set(rows.flatMap((row) => historyOf(row).map(({ day }) => day)))].sort().slice(-SHOWN.days);
  const shares = rows.map((row) => {
    const history = historyOf(row);
    return (day: string, isInkOnly: boolean) => {
      const until = history.filter((result) => result.day <= day && (!isInkOnly || result.medium === 'ink'));
      const { inkBpm, pencilBpm } = standingOf(until, row.targetBpm);
      return Math.min(1, Math.max(inkBpm ?? 0, pencilBpm ?? 0) / row.targetBpm);
    };
  });
  const mean = (day: string, isInkOnly: boolean) =>
    shares.reduce((sum, share) => sum + share(day, isInkOnly), 0) / Math.max(1, rows.length);
  return days.map((day) => ({ day, ink: mean(day, true), all: mean(day, false) }));
}

/** The chance that every piece is at its target by the goal day; those of one student go together. */
function readinessOf(
  rows: readonly PieceRow[],
  {
    historyOf,
    nameOf,
    learningRate,
    today,
    goalDay,
  }: {
    readonly historyOf: (row: PieceRow) => readonly DatedResult[];
    readonly nameOf: (row: PieceRow) => string;
    readonly learningRate: LearningRate | undefined;
    readonly today: string;
    readonly goalDay: string;
  },
): Readiness {
  const chances = rows.map((row) => ({
    name: nameOf(row),
    chance: chanceOf(row, { history: historyOf(row), learningRate, today, goalDay }),
  }));
  return {
    by: goalDay,
    chance: rows.length === 0 ? null : chanceOfAll(chances.map(({ chance }) => chance)),
    pieces: rows.length,
    ready: chances.filter(({ chance }) => chance === 1).length,
    holdingBack: chances
      .filter(({ chance }) => chance < 1)
      .toSorted((a, b) => a.chance - b.chance)
      .slice(0, SHOWN.holdingBack),
  };
}

function chanceOf(
  row: PieceRow,
  {
    history,
    learningRate,
    today,
    goalDay,
  }: {
    readonly history: readonly DatedResult[];
    readonly learningRate: LearningRate | undefined;
    readonly today: string;
    readonly goalDay: string;
  },
): number {
  const target = row.targetBpm;
  const { share, inkBpm, pencilBpm } = standingOf(history, target);
  if (share >= 1) return 1;
  const prior = learningRate && { prior: learningRate };
  const said = forecast(history, { target, today, ...prior });
  if ('says' in said) return said.says.chanceBy(goalDay);
  const start = Math.max(inkBpm ?? 0, pencilBpm ?? 0, row.startBpm);
  const planned = row.assignedOn === null && row.lessonDay !== null && row.lessonDay > today ? row.lessonDay : today;
  return forecastFresh({ start, target, begins: planned, ...prior }).chanceBy(goalDay);
}
