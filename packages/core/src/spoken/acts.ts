import type { SpokenState } from './state.ts';
import { ACTS, type Act } from './vocabulary.ts';
import { sayingAt, sayingsOf, type Word } from './words.ts';

const SAID_ACTS = sayingsOf(
  (Object.keys(ACTS) as Act[]).flatMap((act) => ACTS[act].map((said) => [said, act] as const)),
);

/** What a few words do, the longest that are found. */
export function actAt(words: readonly Word[], at: number): { readonly act: Act; readonly next: number } | undefined {
  const found = sayingAt(words, at, SAID_ACTS);
  return found && { act: found.meaning, next: found.next };
}

/** What is done at some words: the number of the word to go on at. */
export type ActReader = (state: SpokenState, words: readonly Word[], at: number, next: number) => number;
