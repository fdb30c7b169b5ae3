import { sayCut } from '@jam-ledger/core/pieces';
import type { PieceRow } from '../../store/index.ts';
import { kindOf } from './standing.ts';

/** Names of phrases by their ids. */
export function namesOf(
  phrases: readonly { readonly id: string; readonly name: string }[],
): (phraseId: string) => string {
  const names = new Map(phrases.map(({ id, name }) => [id, name]));
  return (phraseId) => names.get(phraseId) ?? '…';
}

/** The name of a piece, from those of its phrases. */
export function nameOf(row: PieceRow, name: (phraseId: string) => string): string {
  return sayCut({ kind: kindOf(row), parts: row.parts }, name);
}
