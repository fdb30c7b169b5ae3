import type { Entry, Loop, Piece } from '@jam-ledger/contract';
import { beatOf, unroll, type Phrase } from '@jam-ledger/core/notation';

/** The entries of a piece that move its ladder, oldest first. */
export function countingOf({ entries }: Pick<Piece, 'entries'>): readonly Entry[] {
  return entries.filter(({ struck, counts }) => counts && !struck);
}

/** How much of a piece was played, in brackets behind the tempo; nothing for all of it. */
export function sayPart({ percent, loop }: Pick<Entry, 'percent' | 'loop'>): string {
  if (loop) return ' (a loop)';
  return percent < 100 ? ` (${percent} %)` : '';
}

/** Where a loop goes round, in words: `bar 1, beat 2 to bar 2, beat 1`. */
export function sayLoop({ from, to }: Loop, phrase: Phrase): string {
  const { events, bars } = unroll(phrase);
  const inside = events.filter(({ at, item }) => item && at >= from && at < to);
  const [first, last] = [inside[0], inside.at(-1)].map((event) => {
    const bar = event && bars[event.bar];
    return bar ? `bar ${event.bar + 1}, beat ${beatOf(event.at - bar.at, bar.meter)}` : 'what was cut away';
  });
  return first === last ? (first ?? '') : `${first ?? ''} to ${last ?? ''}`;
}
