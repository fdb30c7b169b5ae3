import type { LedgerPiece } from '@jam-ledger/contract';
import type { AgendaPiece, PracticePiece } from '@jam-ledger/core/series';

/** A row of the ledger as far as a practice is planned from it. */
export function practiceOf({
  id,
  kind,
  phrase,
  song,
  next,
  mastery,
  due,
  standing,
  lastDay,
}: LedgerPiece): PracticePiece {
  const cleanBpm = standing.inkBpm ?? standing.pencilBpm;
  return { id, kind, name: phrase.name, songId: song.id, next, mastery, due, share: standing.share, cleanBpm, lastDay };
}

/** A row of the ledger as far as a lesson is planned from it; what nobody has played yet is new. */
export function agendaPieceOf(piece: LedgerPiece): AgendaPiece {
  return { ...practiceOf(piece), isNew: piece.next.move === 'begin' };
}
