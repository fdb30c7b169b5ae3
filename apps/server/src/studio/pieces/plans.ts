import { SCHOOL_WORDS, type Plan, type PlanBody, type PlannedLine, type PlanPiece } from '@jam-ledger/contract';
import { cutKey, isStuck } from '@jam-ledger/core/pieces';
import type { DatedResult } from '@jam-ledger/core/progress';
import {
  addOnce,
  findOwn,
  findPieces,
  findResults,
  findRows,
  findSongPhrases,
  forgetStandings,
  keepPlanned,
  saveVersioned,
  type PieceRow,
  type PlanModel,
  type TranscriptionModel,
} from '../../store/index.ts';
import { orNotFound, orConflict } from '../context/rows.ts';
import { nameOf, namesOf } from './naming.ts';
import { mapInSlices } from '../context/slices.ts';
import { aroundOf, kindOf, resultsOf, rulesOf, standOf, type Around } from './standing.ts';
import { Invalid } from '../context/errors.ts';
import { dayOf, type RequestContext } from '../context/context.ts';

/** The plan of a song: its pieces in the order they are learned, and where each stands. @throws Forbidden, NotFound */
export async function showPlan(context: RequestContext, songId: string): Promise<Plan> {
  const { store, studio } = context;
  orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: songId }));
  const [plan, rows, phrases] = await Promise.all([
    findOwn(store.plans, { studioId: studio.id, id: songId }),
    findPieces(store, studio.id, { songId }),
    findSongPhrases(store, studio.id, [songId]),
  ]);
  const tuples = await findResults(store, studio.id, { pieceIds: rows.map(({ id }) => id), zone: studio.zone });
  const historyOf = ({ id }: PieceRow) => resultsOf(tuples.get(id) ?? []);
  const name = namesOf(phrases);
  const around = aroundOf(rows, { phrases, nameOf: (row) => nameOf(row, name), historyOf });
  const today = dayOf(context);
  return {
    ...settingsOf(plan),
    pieces: await mapInSlices(rows, (row) =>
      describeLine(row, { history: historyOf(row), around: around(row), today, name: nameOf(row, name) }),
    ),
  };
}

function settingsOf(plan: PlanModel | undefined): Omit<PlanBody, 'pieces'> {
  return {
    version: plan?.version ?? 1,
    learning: SCHOOL_WORDS.learning.find((word) => word === plan?.learning) ?? null,
    raising: SCHOOL_WORDS.raising.find((word) => word === plan?.raising) ?? null,
    targetPercent: plan?.targetPercent ?? 100,
    rules: rulesOf(plan ?? {}),
  };
}

function describeLine(
  row: PieceRow,
  {
    history,
    around,
    today,
    name,
  }: {
    readonly history: readonly DatedResult[];
    readonly around: Around;
    readonly today: string;
    readonly name: string;
  },
): PlannedLine {
  const { id, version, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, assignedOn } = row;
  const { mastery, standing, next } = standOf(row, { history, around, today, learningRate: undefined });
  return {
    id,
    version,
    kind: kindOf(row),
    parts,
    startBpm,
    targetBpm,
    floorBpm,
    difficulty,
    fixed,
    lesson: row.lessonDay === null ? null : { day: row.lessonDay, fixed: row.lessonFixed },
    name,
    assignedOn,
    state: mastery.state,
    share: standing.share,
    stuck: isStuck(next),
    reason: next.reason,
  };
}

/** Keeps the plan of a song as a whole, over the version the teacher saw. @throws Forbidden, NotFound, Invalid, Conflict */
export async function keepPlan(context: RequestContext, songId: string, body: PlanBody): Promise<Plan> {
  const { store, studio } = context;
  const song = orNotFound(await findOwn(store.transcriptions, { studioId: studio.id, id: songId }));
  await requireSound(context, song, body.pieces);
  const { version, learning, raising, targetPercent, rules } = body;
  const owned = { id: songId, studioId: studio.id };
  await addOnce(store.plans, owned);
  const settings = { learning, raising, targetPercent, ...rules };
  const saved = await saveVersioned(store.plans, { ...owned, version }, settings);
  await orConflict(saved, () => showPlan(context, songId));
  await keepPlanned(store, { studioId: studio.id, studentId: song.studentId, songId }, body.pieces.map(plannedRow));
  await forgetStandings(store, studio.id, { songId });
  return showPlan(context, songId);
}

function plannedRow(piece: PlanPiece, position: number) {
  const { id, kind, parts, startBpm, targetBpm, floorBpm, difficulty, fixed, lesson } = piece;
  const phraseId = parts[0]?.phraseId ?? '';
  const [lessonDay, lessonFixed] = [lesson?.day ?? null, lesson?.fixed ?? false];
  const tempos = { startBpm, targetBpm, floorBpm };
  return {
    id,
    phraseId,
    kind,
    parts,
    cut: cutKey(piece),
    position,
    ...tempos,
    difficulty,
    fixed,
    lessonDay,
    lessonFixed,
  };
}

/** How many stretches a piece of each kind has. */
const PARTS = { drill: [1, 1], half: [1, 1], phrase: [1, 1], join: [2, 2], run: [2, Infinity] } as const;

/** @throws Invalid where a piece is cut from what is not in the song, twice, or under the id of another. */
async function requireSound(
  context: RequestContext,
  song: TranscriptionModel,
  pieces: readonly PlanPiece[],
): Promise<void> {
  const { store, studio } = context;
  const phrases = new Set((await findSongPhrases(store, studio.id, [song.id])).map(({ id }) => id));
  const ids = pieces.map(({ id }) => id);
  const others = await findRows(store.pieces, { id: ids });
  const taken = new Map(others.map((row) => [row.id, row]));
  const cuts = new Set<string>();
  const problems = pieces.flatMap((piece, index) => {
    const field = `pieces.${index}`;
    const cut = cutKey(piece);
    const twice = cuts.has(cut);
    cuts.add(cut);
    const [min, max] = PARTS[piece.kind];
    const row = taken.get(piece.id);
    if (row && (row.cut !== cut || row.studioId !== studio.id || row.studentId !== song.studentId))
      return [{ field: `${field}.id`, message: 'Another piece already has this id.' }];
    if (twice) return [{ field: `${field}.parts`, message: 'The same piece stands here twice.' }];
    if (piece.parts.length < min || piece.parts.length > max)
      return [{ field: `${field}.parts`, message: `A ${piece.kind} is not cut from ${piece.parts.length} stretches.` }];
    if (piece.parts.some(({ phraseId }) => !phrases.has(phraseId)))
      return [{ field: `${field}.parts`, message: 'A phrase of this piece is not in the song.' }];
    return [];
  });
  if (problems.length > 0) throw new Invalid(problems);
}
