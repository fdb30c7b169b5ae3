import { Chord, Interval, Note } from 'tonal';

/** The pitch class of a MIDI number, 0 for C to 11 for B. */
export function chromaOf(midi: number): number {
  return ((Math.round(midi) % 12) + 12) % 12;
}

/** The pitch class of a root as the dictionary spells it, double signs too; undefined for none. */
function chromaOfRoot(name: string): number | undefined {
  const { chroma } = Note.get(name);
  return Number.isFinite(chroma) ? chroma : undefined;
}

/** What a chord is made of: its root, and the degree that each of its pitch classes is. */
export interface ChordTones {
  readonly root: number;
  /** Degree (`b3`, `9`) by semitones above the root; that of a slash bass among them. */
  readonly degrees: ReadonlyMap<number, string>;
}

/** A chord symbol with a slash bass; `6/9` is none. */
const SLASH = /^(.+)\/([A-G][#b♯♭]?)$/;

/** The tones of a chord symbol, the bass of a slash chord among them; undefined for a symbol that is not known. */
export function chordTones(symbol: string): ChordTones | undefined {
  const [, upper = symbol, slash] = SLASH.exec(symbol) ?? [];
  const { tonic, intervals } = Chord.get(upper.replaceAll('♯', '#').replaceAll('♭', 'b'));
  const root = tonic ? chromaOfRoot(tonic) : undefined;
  if (root === undefined || intervals.length === 0) return undefined;
  const degrees = new Map(intervals.map((name) => [Interval.semitones(name) % 12, degreeOfInterval(name)]));
  const bass = slash === undefined ? undefined : chromaOfRoot(slash.replaceAll('♯', '#').replaceAll('♭', 'b'));
  if (bass === undefined) return { root, degrees };
  const above = chromaOf(bass - root);
  if (!degrees.has(above)) degrees.set(above, degreeAbove(above, degrees.has(3)));
  return { root, degrees };
}

/** The degree that an interval above the root is: `3m` is b3, `9A` is #9. Source: common practice. */
function degreeOfInterval(name: string): string {
  const { num, alt } = Interval.get(name);
  const simple = num > 7 && ![9, 11, 13].includes(num) ? ((num - 1) % 7) + 1 : num;
  return `${alt < 0 ? 'b'.repeat(-alt) : '#'.repeat(alt)}${simple}`;
}

/** Degrees of the twelve pitch classes above a root, where no chord says otherwise. Source: common practice. */
const PLAIN_DEGREES = ['1', 'b2', '2', 'b3', '3', '4', '#4', '5', 'b6', '6', 'b7', '7'] as const;

/** The degree so many semitones above a root; over a minor third the fifth is lowered, else the fourth raised. Source: common practice. */
export function degreeAbove(semitones: number, isMinor: boolean): string {
  const above = chromaOf(semitones);
  return above === 6 && isMinor ? 'b5' : (PLAIN_DEGREES[above] ?? '1');
}

/** Semitones of the degrees of the major scale, 1 to 7; what is above is counted from the octave. Source: common practice. */
const DEGREES = [0, 2, 4, 5, 7, 9, 11] as const;

/** The pitch class of a degree (`3`, `b7`, `#11`) of a chord; undefined where no chord that is known stands. */
export function chromaOfDegree(degree: string, chord: string | null): number | undefined {
  const root = chord === null ? undefined : chordTones(chord)?.root;
  const [, sign = '', number = '1'] = /^([b#]?)(\d+)$/.exec(degree) ?? [];
  const plain = DEGREES[(Number(number) - 1) % 7];
  if (root === undefined || plain === undefined) return undefined;
  return chromaOf(root + plain + (sign === '#' ? 1 : sign === 'b' ? -1 : 0));
}
