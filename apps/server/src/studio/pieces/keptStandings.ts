import { CALL_KINDS, type CallKind, type KeptStanding } from '@jam-ledger/contract';
import { isStuck } from '@jam-ledger/core/pieces';
import {
  findNotComputed,
  findPieces,
  findResults,
  findSongPhrases,
  findStudio,
  keepStandings,
  type StandingToKeep,
  type Store,
} from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { nameOf, namesOf } from './naming.ts';
import { mapInSlices } from '../context/slices.ts';
import { aroundOf, resultsOf, standOf, type PieceStanding } from './standing.ts';

/** Students whose pieces are computed in one go. Our choice. */
const STUDENTS_AT_ONCE = 20;

/**
 * Computes where the pieces of some students stand that nobody has computed since something changed: of all studios or one, of all songs
 * or one. Linear in their results.
 */
export async function computeMissing(
  store: Store,
  of: { readonly studioId?: string; readonly songId?: string },
): Promise<number> {
  const students = await findNotComputed(store, { ...of, max: STUDENTS_AT_ONCE });
  for (const one of students) {
    const { zone } = orNotFound((await findStudio(store, one.studioId)) ?? undefined);
    const standings = await compute(store, { ...one, zone });
    await keepStandings(store, one.studioId, standings);
  }
  return students.length;
}

/** Computes whatever is missing, of all studios. Returns of how many students. */
export async function computeAll(store: Store): Promise<number> {
  let count = 0;
  for (let some = await computeMissing(store, {}); some > 0; some = await computeMissing(store, {})) count += some;
  return count;
}

async function compute(
  store: Store,
  { studioId, studentId, zone }: { readonly studioId: string; readonly studentId: string; readonly zone: string },
): Promise<readonly StandingToKeep[]> {
  const rows = await findPieces(store, studioId, { studentId });
  const [results, phrases] = await Promise.all([
    findResults(store, studioId, { pieceIds: rows.map(({ id }) => id), zone }),
    findSongPhrases(store, studioId, [...new Set(rows.map(({ songId }) => songId))]),
  ]);
  const histories = new Map(await mapInSlices(rows, ({ id }) => [id, resultsOf(results.get(id) ?? [])] as const));
  const name = namesOf(phrases);
  const around = aroundOf(rows, {
    phrases,
    nameOf: (row) => nameOf(row, name),
    historyOf: ({ id }) => histories.get(id) ?? [],
  });
  return mapInSlices(rows, (row) => {
    const history = histories.get(row.id) ?? [];
    // What is kept does not hang on the day, so that any will do.
    const stands = standOf(row, {
      history,
      around: around(row),
      today: history.at(-1)?.day ?? '2000-01-01',
      learningRate: undefined,
    });
    return { id: row.id, seen: 0, ...keptOf(stands, history.at(-1)?.day) };
  });
}

/** What is kept beside a piece, of where it stands, and why it calls for the teacher. */
export function keptOf(
  { next, mastery, due, standing }: Pick<PieceStanding, 'next' | 'mastery' | 'due' | 'standing'>,
  lastDay: string | undefined,
): { readonly kept: KeptStanding; readonly call: number | null } {
  const kept: KeptStanding = {
    next,
    mastery,
    memory: due && {
      day: due.day,
      lastDay: due.lastDay,
      intervalDays: due.intervalDays,
      stabilityDays: due.stabilityDays,
    },
    share: standing.share,
    cleanBpm: standing.inkBpm ?? standing.pencilBpm,
    lastDay: lastDay ?? null,
  };
  const call = callOf(kept);
  return { kept, call: call === undefined ? null : CALL_KINDS.indexOf(call) };
}

/** Whether a piece calls for the teacher, and why. */
function callOf({ next, mastery }: KeptStanding): CallKind | undefined {
  if (isStuck(next)) return 'stuck';
  if (mastery.state === 'slipping') return 'slipping';
  if (next.move === 'show') return 'wants to be heard';
  return next.move === 'down' ? 'came down' : undefined;
}

/** Why a piece calls, in words. */
export function whyOf(kind: CallKind, { next, mastery }: KeptStanding): string {
  return kind === 'slipping' ? mastery.reason : next.reason;
}
