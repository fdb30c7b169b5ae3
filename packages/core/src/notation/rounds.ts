import { isNest, type Item, type PassRange, type Phrase } from './model.ts';
import { mapItems } from './rewrite.ts';

/** One time round a section, from 1, and how often it goes round; Infinity where that is not said. */
export interface Round {
  readonly round: number;
  readonly of: number;
}

/** A phrase alone is heard as in the first round; whether that is the last, too, is not known. */
export const FIRST_ROUND: Round = { round: 1, of: Infinity };

/** Whether something of some passes or rounds is heard on one of them. */
export function isIn(ranges: readonly PassRange[], { round, of }: Round): boolean {
  return ranges.some((range) => (range === 'last' ? round === of : round >= range[0] && round <= range[1]));
}

/** The phrase as it is heard in one round of its section; the same phrase where all rounds are alike. */
export function inRound(phrase: Phrase, round: Round): Phrase {
  if (!hasRounds(phrase.items)) return phrase;
  return mapItems(phrase, (item) => {
    if (item.kind !== 'rounds') return item;
    return isIn(item.rounds, round) ? item.items : undefined;
  });
}

/** Whether something in a phrase is heard on some rounds of its section only. */
export function hasRounds(items: readonly Item[]): boolean {
  return items.some((item) => item.kind === 'rounds' || (isNest(item) && hasRounds(item.items)));
}
