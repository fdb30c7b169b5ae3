import { SCHOOL_WORDS, type Expected } from '@jam-ledger/contract';
import { nextStep, PIECE_KINDS, standingOf, tempoLadder, USUAL_RULES } from '@jam-ledger/core/pieces';
import type { Ladder, LadderRules, NextStep, PieceKind, Standing } from '@jam-ledger/core/pieces';
import { dueAgain, dueOn, forecast, masteryOf, priorOf } from '@jam-ledger/core/progress';
import type { DatedResult, Due, LearningRate, LearningRateSummary, Mastery, Memory } from '@jam-ledger/core/progress';
import type { PieceRow, ResultRow } from '../../store/index.ts';
import { parseWord } from '../context/rows.ts';

/** What stands around a piece, for its next step. */
export interface Around {
  readonly canSplit: boolean;
  readonly join: string | null;
}

/** Where a piece stands, all of it computed from its results. */
export interface PieceStanding {
  readonly ladder: Ladder;
  readonly standing: Standing;
  readonly next: NextStep;
  readonly mastery: Mastery;
  readonly due: Due | null;
  readonly expected: Expected | null;
}

/** The results that rows of the database stand for. */
export function resultsOf(rows: readonly ResultRow[]): readonly DatedResult[] {
  return rows.map(({ bpm, clean, inked, percent, day }) => ({
    bpm,
    outcome: clean ? 'clean' : 'not-yet',
    medium: inked ? 'ink' : 'pencil',
    percent,
    day,
  }));
}

/** What a piece is. */
export function kindOf({ kind }: Pick<PieceRow, 'kind'>): PieceKind {
  return PIECE_KINDS.find((one) => one === kind) ?? 'phrase';
}

/** What rungs ask for, where a plan says so, else what is usual. */
export function rulesOf({
  cleanNeeded,
  fallsAfter,
  restMinutes,
}: { readonly [Name in keyof LadderRules]?: number | null }): LadderRules {
  return {
    cleanNeeded: cleanNeeded ?? USUAL_RULES.cleanNeeded,
    fallsAfter: fallsAfter ?? USUAL_RULES.fallsAfter,
    restMinutes: restMinutes ?? USUAL_RULES.restMinutes,
  };
}

/** The rungs of a piece, by the school that holds for it. */
export function ladderOf(row: PieceRow): Ladder {
  const school = parseWord(SCHOOL_WORDS.raising, row.raising);
  return tempoLadder({ start: row.startBpm, target: row.targetBpm, school, rules: rulesOf(row) });
}

/** Where a piece stands today. */
export function standOf(
  row: PieceRow,
  {
    history,
    around,
    today,
    learningRate,
    memory = null,
  }: {
    readonly history: readonly DatedResult[];
    readonly around: Around;
    readonly today: string;
    readonly learningRate: LearningRate | undefined;
    /** How well the history is remembered, where that is known already: it takes longer than everything else. */
    readonly memory?: Memory | null;
  },
): PieceStanding {
  const ladder = ladderOf(row);
  const mastery = masteryOf(history, row.targetBpm);
  return {
    ladder,
    standing: standingOf(history, row.targetBpm),
    next: nextStep(history, ladder, { canSplit: around.canSplit, join: around.join ?? undefined }),
    mastery,
    due: memory ? dueOn(memory, today) : dueAgain(history, row.targetBpm, today),
    expected: mastery.state === 'building' ? expectedOf(row, { history, today, learningRate }) : null,
  };
}

/** How fast a student’s pieces come along, with the studio’s others behind them. */
export function learningRateAround(rows: readonly PieceRow[], studio: LearningRateSummary): LearningRate | undefined {
  return priorOf(
    rows.flatMap(({ learningRate }) => learningRate ?? []),
    studio,
  );
}

function expectedOf(
  { targetBpm, wantedBy }: PieceRow,
  {
    history,
    today,
    learningRate,
  }: {
    readonly history: readonly DatedResult[];
    readonly today: string;
    readonly learningRate: LearningRate | undefined;
  },
): Expected {
  const said = forecast(history, { target: targetBpm, today, ...(learningRate && { prior: learningRate }) });
  if ('tooLittle' in said) return said;
  const { early, middle, late, chanceBy } = said.says;
  return { early, middle, late, wanted: wantedBy === null ? null : { day: wantedBy, chance: chanceBy(wantedBy) } };
}

/** Fewest bars of a phrase that can be cut in two. Our choice. */
const BARS_TO_SPLIT = 2;

/** The seams that a student was given, by the phrase they lead from. */
export function joinsOf(rows: readonly PieceRow[]): ReadonlyMap<string, PieceRow> {
  const given = rows.filter((row) => row.kind === 'join' && row.assignedOn !== null);
  return new Map(given.map((row) => [row.phraseId, row]));
}

/** What stands around each piece of a student: whether it could be halved, and the seam behind it that is not there yet. */
export function aroundOf(
  rows: readonly PieceRow[],
  {
    phrases,
    nameOf,
    historyOf,
  }: {
    /** The phrases of the songs, each with its length in bars. */
    readonly phrases: readonly { readonly id: string; readonly bars: number }[];
    readonly nameOf: (row: PieceRow) => string;
    /** Asked of seams alone. */
    readonly historyOf: (row: PieceRow) => readonly DatedResult[];
  },
): (row: PieceRow) => Around {
  const halved = new Set(
    rows.filter((row) => row.kind === 'half' && row.assignedOn !== null).map(({ phraseId }) => phraseId),
  );
  const joins = joinsOf(rows);
  const bars = new Map(phrases.map((phrase) => [phrase.id, phrase.bars]));
  return ({ kind, phraseId }) => {
    const join = joins.get(phraseId);
    const whole = kind === 'phrase';
    const waits = whole && join !== undefined && standingOf(historyOf(join), join.targetBpm).share < 1;
    return {
      canSplit: whole && (bars.get(phraseId) ?? 0) >= BARS_TO_SPLIT && !halved.has(phraseId),
      join: waits ? nameOf(join) : null,
    };
  };
}
