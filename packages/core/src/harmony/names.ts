import { Chord, Interval, Note } from 'tonal';

/** The pitch class of a MIDI number, 0 for C to 11 for B. */
export function chromaOf(midi: number): number {
  return ((Math.round(midi) % 12) + 12) % 12;
}

/** The pitch class of a note name; undefined for none. */
export function chromaOfName(name: string): number | undefined {
  const { chroma } = Note.get(name);
  return Number.isFinite(chroma) ? chroma : undefined;
}

/** What a chord is made of: its root, and the degree that each of its pitch classes is. */
export interface ChordTones {
  readonly root: number;
  /** Degree (`b3`, `9`) by semitones above the root. */
  readonly degrees: ReadonlyMap<number, string>;
}

/** The tones of a chord symbol, slash bass left out; undefined for a symbol that is not known. */
export function chordTones(symbol: string): ChordTones | undefined {
  const { tonic, intervals } = Chord.get(symbol);
  const root = tonic ? chromaOfName(tonic) : undefined;
  if (root === undefined || intervals.length === 0) return undefined;
  const degrees = new Map(intervals.map((name) => [Interval.semitones(name) % 12, degreeOfInterval(name)]));
  return { root, degrees };
}

/** The degree that an interval above the root is: `3m` is b3, `9A` is #9. Source: common practice. */
function degreeOfInterval(name: string): string {
  const { num, alt } = Interval.get(name);
  const simple = num > 7 && ![9, 11, 13].includes(num) ? ((num - 1) % 7) + 1 : num;
  return `${alt < 0 ? 'b'.repeat(-alt) : '#'.repeat(alt)}${simple}`;
}

/** Degrees of the twelve pitch classes above a root, where no chord says otherwise. Source: common practice. */
export const PLAIN_DEGREES = ['1', 'b2', '2', 'b3', '3', '4', '#4', '5', 'b6', '6', 'b7', '7'] as const;
