export { ALIKE, compare } from './compare.ts';
export type { CompareOptions, Difference, Kinship, Likeness } from './compare.ts';
export { findAlike, sayLikeness } from './findAlike.ts';
export type { Alike, KnownPhrase } from './findAlike.ts';
