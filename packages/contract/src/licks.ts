import type { Technique } from '@jam-ledger/core/notation';

/** Most phrases in one answer, and the longest texts of a search. Our choice. */
export const LICK_LIMITS = { max: 60, chord: 20, pattern: 600, words: 80, bpm: 999 } as const;

/** What is looked for; everything that is said must hold. */
export interface LickQuery {
  readonly technique?: Technique;
  /** A chord that stands above it, as typed. */
  readonly chord?: string;
  /** Degrees in a row, `1 b3 4`. */
  readonly degrees?: string;
  /** A way over the neck, strings toward the thinnest and frets from the first note: `0,0 0,2 1,0`. */
  readonly shape?: string;
  /** Semitones from note to note, `3 2 -5`; the same in every key and place. */
  readonly steps?: string;
  /** All of it between these frets. */
  readonly lowestFret?: number;
  readonly highestFret?: number;
  /** Tempo, quarter notes a minute. */
  readonly slowest?: number;
  readonly fastest?: number;
  /** A word of its name or its song’s title. */
  readonly words?: string;
  /** More like this phrase. */
  readonly like?: string;
}

/** A phrase that was found. */
export interface Lick {
  readonly phraseId: string;
  readonly name: string;
  readonly text: string;
  readonly song: {
    readonly id: string;
    readonly title: string;
    readonly tuning: string;
    readonly capo: number;
    readonly key: string;
    readonly meter: string;
  };
  readonly section: string;
  readonly student: string;
  readonly bpm: number;
  readonly techniques: readonly Technique[];
  readonly chords: readonly string[];
  readonly lowestFret: number;
  readonly highestFret: number;
  /** What it is of the phrase it is compared with, in words; empty for a plain search. */
  readonly likeness: string;
}

/** What a search found: how many in all, and the first of them. */
export interface LicksFound {
  readonly total: number;
  readonly licks: readonly Lick[];
}
