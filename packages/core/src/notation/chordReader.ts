import { Chord } from 'tonal';
import type { HarmonyItem } from './model.ts';
import type { ProblemList } from './problems.ts';
import type { Token } from './scan.ts';

/** Reads chord symbols in the order of the text, and knows whether the one in force is known. */
export class ChordReader {
  readonly #problems: ProblemList;
  /** Chords met in this text; the same few come again and again, and the dictionary is slow. */
  readonly #known = new Map<string, boolean>();
  #isKnown = false;

  constructor(problems: ProblemList) {
    this.#problems = problems;
  }

  /** Whether a chord is in force whose tones are known. */
  get isKnown(): boolean {
    return this.#isKnown;
  }

  /** The chord of a token; undefined where there is none. One that is not known is kept as typed. */
  read({ text, span }: Token): HarmonyItem | undefined {
    if (text === ':-' || text === ':N.C.') {
      this.#isKnown = false;
      return { kind: 'harmony', span, chord: null };
    }
    const chord = text.slice(1);
    if (chord === '') {
      this.#problems.add('chord-unknown', span, 'A colon is followed by a chord, as in :Em, or by - for none.');
      return undefined;
    }
    this.#isKnown = this.#isChord(chord);
    if (!this.#isKnown)
      this.#problems.add(
        'chord-unknown',
        span,
        `The chord “${chord.slice(0, 24)}” is not known; it is shown as typed.`,
      );
    return { kind: 'harmony', span, chord };
  }

  #isChord(chord: string): boolean {
    const known = this.#known.get(chord) ?? !Chord.get(chord).empty;
    this.#known.set(chord, known);
    return known;
  }
}
