export { ALIKE, compare, compareHeard, comparePart, hear } from './compare.ts';
export type { CompareOptions, Difference, Heard, Kinship, Likeness } from './compare.ts';
export { alikeTo, findAlike, mostAlikeFirst, movedAlike, sayLikeness } from './findAlike.ts';
export type { Alike, HeardPhrase, KnownPhrase } from './findAlike.ts';
