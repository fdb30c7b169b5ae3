import type { EntryRow, LedgerPiece } from '@jam-ledger/contract';
import type { Cell } from '@jam-ledger/core/formats';

/** Headings of the ledger as a table: a line a piece. */
export const LEDGER_HEADINGS = [
  ...[
    'song',
    'section',
    'piece',
    'kind',
    'start bpm',
    'target bpm',
    'ink bpm',
    'pencil bpm',
    'share',
    'next',
    'next bpm',
  ],
  ...['mastery', 'last day'],
] as const;

/** The rows of the ledger as a table. */
export function ledgerRows(pieces: readonly LedgerPiece[]): readonly (readonly Cell[])[] {
  return pieces.map(({ song, section, phrase, kind, startBpm, targetBpm, standing, next, mastery, lastDay }) => [
    ...[song.title, section.label, phrase.name, kind, startBpm, targetBpm, standing.inkBpm, standing.pencilBpm],
    ...[Math.round(standing.share * 100) / 100, next.move, next.bpm, mastery.state, lastDay],
  ]);
}

/** Headings of all results as a table: a line each. */
export const ENTRY_HEADINGS = [
  'day',
  'song',
  'section',
  'piece',
  'bpm',
  'outcome',
  'medium',
  'percent',
  'remark',
  'by',
] as const;

/** All results as a table. */
export function entryRows(entries: readonly EntryRow[]): readonly (readonly Cell[])[] {
  return entries.map(({ day, song, section, piece, bpm, outcome, medium, percent, remark, postedBy }) => [
    ...[day, song, section, piece, bpm, outcome, medium, percent, remark, postedBy],
  ]);
}
