import { learningRateOf, type DatedResult } from '@jam-ledger/core/progress';
import { findAround, findPieces, keepComputed, type PieceRow } from '../../store/index.ts';
import { orNotFound } from '../context/rows.ts';
import { dayOf, type RequestContext } from '../context/context.ts';
import { keptOf } from './keptStandings.ts';
import { nameOf, namesOf } from './naming.ts';
import {
  aroundOf,
  joinsOf,
  kindOf,
  learningRateAround,
  resultsOf,
  standOf,
  type Around,
  type PieceStanding,
} from './standing.ts';

/** Where a piece stands by all that was posted to it. */
export interface StandingNow extends PieceStanding {
  readonly history: readonly DatedResult[];
  readonly around: Around;
}

/**
 * Where some pieces of one student stand today; `rows` are those and what the student was given. One query.
 * @throws NotFound for a piece that is none of the rows
 */
export async function standNow(
  context: RequestContext,
  rows: readonly PieceRow[],
  ids: readonly string[],
): Promise<ReadonlyMap<string, StandingNow>> {
  const { store, studio } = context;
  const given = rows.filter(({ assignedOn, struck }) => assignedOn !== null && !struck);
  const joins = joinsOf(given);
  const meant = ids.map((id) => orNotFound(rows.find((row) => row.id === id)));
  const { results, phrases, studioRate } = await findAround(store, studio.id, {
    pieceIds: [...new Set(meant.flatMap(({ id, phraseId }) => [id, joins.get(phraseId)?.id ?? id]))],
    songIds: [...new Set(meant.map(({ songId }) => songId))],
    zone: studio.zone,
  });
  const historyOf = ({ id }: PieceRow) => resultsOf(results.get(id) ?? []);
  const name = namesOf(phrases);
  const around = aroundOf(given, { phrases, nameOf: (row) => nameOf(row, name), historyOf });
  const learningRate = learningRateAround(given, studioRate);
  return new Map(
    meant.map((row) => {
      const stands = { history: historyOf(row), around: around(row) };
      return [row.id, { ...stands, ...standOf(row, { ...stands, today: dayOf(context), learningRate }) }];
    }),
  );
}

/**
 * Keeps beside a piece where it stands and how fast it comes along, by all that was posted to it; whether it is held by that, and was
 * not before. Whoever calls has the turn at its ladder. What hangs on a seam or a half is computed anew when it is next asked for.
 */
export async function keepStanding(
  { store, studio }: RequestContext,
  row: PieceRow,
  stands: StandingNow,
): Promise<{ readonly cameToBeHeld: boolean }> {
  const { history } = stands;
  const kind = kindOf(row);
  const { wasHeld } = await keepComputed(store, studio.id, {
    id: row.id,
    ...keptOf(stands, history.at(-1)?.day),
    learningRate: learningRateOf(history) ?? null,
    hangingOn: kind === 'phrase' || kind === 'run' ? null : { phraseId: row.phraseId, studentId: row.studentId },
  });
  return { cameToBeHeld: !wasHeld && stands.mastery.heldSince !== null };
}

/** Computes anew what is kept beside a piece, from all of its results; the piece, and whether it came to be held. @throws NotFound */
export async function computePiece(
  context: RequestContext,
  id: string,
): Promise<{ readonly row: PieceRow; readonly cameToBeHeld: boolean }> {
  const rows = await findPieces(context.store, context.studio.id, { beside: id });
  const row = orNotFound(rows.find((one) => one.id === id));
  const stands = orNotFound((await standNow(context, rows, [id])).get(id));
  return { row, ...(await keepStanding(context, row, stands)) };
}
