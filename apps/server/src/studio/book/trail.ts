import { TRAIL_ACTS, type TrailAct, type TrailPage } from '@jam-ledger/contract';
import { addRow, findTrail, type Store } from '../../store/index.ts';
import type { RequestContext } from '../context/context.ts';
import { parseWord } from '../context/rows.ts';

/** Something that was done, as it is written down: people by their ids alone. */
export interface Done {
  readonly studioId: string;
  readonly at: Date;
  /** Who did it; null for the machine and whoever runs it. */
  readonly personId: string | null;
  readonly act: TrailAct;
  /** Whom it was done to; null where that is nobody. */
  readonly aboutId: string | null;
  /** A few words that name nobody. */
  readonly detail?: string;
}

/** Lines of the trail on a page. Our choice. */
const PAGE = 50;

/** Writes down what was done, within the transaction of whoever does it. */
export async function writeTrail(store: Store, done: Done): Promise<void> {
  await addRow(store.trail, done);
}

/** Writes down what whoever asks did. */
export function trace(
  { store, studio, person, now }: RequestContext,
  act: TrailAct,
  { aboutId = null, detail = '' }: { readonly aboutId?: string | null; readonly detail?: string } = {},
): Promise<void> {
  return writeTrail(store, { studioId: studio.id, at: now, personId: person.id, act, aboutId, detail });
}

/** Who did what, the last first, before a line where one is named. @throws Forbidden for all but the owner */
export async function showTrail(
  { store, studio }: RequestContext,
  { before }: { readonly before?: number },
): Promise<TrailPage> {
  const rows = await findTrail(store, studio.id, { before: before ?? null, max: PAGE + 1 });
  const shown = rows.slice(0, PAGE);
  return {
    lines: shown.map(({ at, act, ...line }) => ({ ...line, at: at.toISOString(), act: parseWord(TRAIL_ACTS, act) })),
    more: rows.length > PAGE,
  };
}
