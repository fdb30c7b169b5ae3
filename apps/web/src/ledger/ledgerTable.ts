import type { Ledger, LedgerPiece } from '@jam-ledger/contract';
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

/** Headings of the results as a table: a line a day of a piece. */
export const RESULT_HEADINGS = ['day', 'song', 'piece', 'bpm', 'outcome', 'medium', 'percent', 'results'] as const;

/** The best result of each day that the ledger shows, the newest first. */
export function resultRows({ pieces }: Pick<Ledger, 'pieces'>): readonly (readonly Cell[])[] {
  const rows = pieces.flatMap(({ song, phrase, cells }) =>
    cells.map(({ day, bpm, outcome, medium, percent, results }): readonly Cell[] => [
      ...[day, song.title, phrase.name, bpm, outcome, medium, percent, results],
    ]),
  );
  return rows.toSorted((a, b) => (String(a[0]) < String(b[0]) ? 1 : -1));
}
