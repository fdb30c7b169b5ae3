import type { LedgerPiece } from '@jam-ledger/contract';
import { isStuck } from '@jam-ledger/core/pieces';

/** Which rows of the ledger are shown; empty words for all. */
export interface LedgerFilter {
  readonly song: string;
  readonly state: LedgerStateName | '';
  readonly kind: LedgerPiece['kind'] | '';
  readonly words: string;
}

/** Nothing is left out. */
export const ALL_ROWS: LedgerFilter = { song: '', state: '', kind: '', words: '' };

/** What rows can be asked for by how they stand. */
export const LEDGER_STATES = ['being built', 'at target', 'held', 'slipping', 'stuck', 'due again'] as const;
/** One of the `LEDGER_STATES`. */
export type LedgerStateName = (typeof LEDGER_STATES)[number];

const FITS: Readonly<Record<LedgerStateName, (piece: LedgerPiece, today: string) => boolean>> = {
  'being built': ({ mastery }) => mastery.state === 'building' || mastery.state === 'not begun',
  'at target': ({ mastery }) => mastery.state === 'at target in pencil' || mastery.state === 'at target in ink',
  held: ({ mastery }) => mastery.state === 'held',
  slipping: ({ mastery }) => mastery.state === 'slipping',
  stuck: ({ next }) => isStuck(next),
  'due again': ({ due }, today) => due !== null && due.day <= today,
};

/** The rows that all of a filter fits. */
export function filterRows<Row extends LedgerPiece>(
  pieces: readonly Row[],
  { song, state, kind, words }: LedgerFilter,
  today: string,
): readonly Row[] {
  const sought = words.trim().toLowerCase();
  return pieces.filter(
    (piece) =>
      (song === '' || piece.song.id === song) &&
      (kind === '' || piece.kind === kind) &&
      (state === '' || FITS[state](piece, today)) &&
      `${piece.phrase.name} ${piece.section.label} ${piece.section.role}`.toLowerCase().includes(sought),
  );
}
