import type { LedgerPiece } from '@jam-ledger/contract';

/** A next step in a word or two. */
export const MOVE_WORDS: Readonly<Record<LedgerPiece['next']['move'], string>> = {
  begin: 'begin',
  up: 'up',
  stay: 'stay',
  down: 'down',
  show: 'show it',
  keep: 'keep it',
  split: 'in halves',
  join: 'join on',
  rest: 'rest',
  call: 'ask the teacher',
};
