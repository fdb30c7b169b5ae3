import type { EarlierEntries, EarlierResult, Entry, Loop, Piece, Posted } from '@jam-ledger/contract';
import { sayPlace, unroll, type Phrase } from '@jam-ledger/core/notation';

/** The results of a piece that move its ladder, oldest first. */
export function countingOf({ before, entries }: Pick<Piece, 'before' | 'entries'>): readonly (EarlierResult | Entry)[] {
  return [...before, ...entries.filter(isCounting)];
}

/** Whether an entry moves the ladder of the piece it is shown with. */
export const isCounting = ({ struck, counts }: Entry): boolean => counts && !struck;

/** A piece with a line that was posted to it, as it stands by that. */
export function withPosted(piece: Piece, { entry, ...stands }: Posted): Piece {
  const others = piece.entries.filter(({ id }) => id !== entry.id);
  const later = others.findIndex(({ postedAt }) => postedAt > entry.postedAt);
  return { ...piece, ...stands, entries: others.toSpliced(later < 0 ? others.length : later, 0, entry) };
}

/** A piece that shows lines before those it showed. */
export function withEarlier(piece: Piece, { entries, hasEarlier }: EarlierEntries): Piece {
  const counting = entries.filter(isCounting).length;
  const before = piece.before.slice(0, piece.before.length - counting);
  return { ...piece, before, hasEarlier, entries: [...entries, ...piece.entries] };
}

/** How much of a piece was played, in brackets behind the tempo; nothing for all of it. */
export function sayPart({ percent, loop }: Pick<Entry, 'percent' | 'loop'>): string {
  if (loop) return ' (a loop)';
  return percent < 100 ? ` (${percent} %)` : '';
}

/** Where a loop goes round, in words: `bar 1, beat 2 to bar 2, beat 1`. */
export function sayLoop({ from, to }: Loop, phrase: Phrase): string {
  const { events, bars } = unroll(phrase);
  const notes = events.filter(({ item }) => item);
  const inside = notes.filter(({ at }) => at >= from && at < to);
  const [first, last] = [inside[0], inside.at(-1)].map((event) => {
    const bar = event && bars[event.bar];
    if (!bar) return 'what was cut away';
    const { timed, at } = event;
    const note = notes.indexOf(event) + 1;
    return sayPlace({ timed, bar: event.bar + 1, at: at - bar.at, meter: bar.meter, note });
  });
  return first === last ? (first ?? '') : `${first ?? ''} to ${last ?? ''}`;
}
