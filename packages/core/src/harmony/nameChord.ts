import { OPEN_KEY, spell, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf, degreeAbove } from './names.ts';

/** A name for some notes that sound together, and what speaks for and against it. */
export interface ChordName {
  readonly symbol: string;
  /** Lower is plainer. */
  readonly strain: number;
  /** In words: which notes it lacks, what the bass is. */
  readonly because: string;
}

/** How notes are named. */
export interface NamingOptions {
  /** The bass under them, MIDI, where another instrument plays it; the lowest of the notes when left out. */
  readonly bass?: number;
  readonly key?: Key;
  /** The chord in force: notes that are all of it are named by it first. */
  readonly chord?: string;
}

/** A kind of chord: what follows its root, the semitones of its tones, those of them that may be left out, and how far from plain it is. */
interface ChordKind {
  readonly suffix: string;
  readonly tones: readonly number[];
  readonly optional: readonly number[];
  readonly strain: number;
}

const FIFTH = 7;
const kind = (
  suffix: string,
  strain: number,
  tones: readonly number[],
  optional: readonly number[] = [],
): ChordKind => ({
  suffix,
  strain,
  tones,
  optional: tones.includes(FIFTH) ? [...optional, FIFTH] : optional,
});

/**
 * The chords that are named, the plainest first. Source: tones and suffixes, common practice; how plain each is, and what an extended
 * chord may leave out, our choice.
 */
const KINDS: readonly ChordKind[] = [
  kind('', 0, [0, 4, 7]),
  kind('m', 0.05, [0, 3, 7]),
  kind('7', 0.3, [0, 4, 7, 10]),
  kind('m7', 0.35, [0, 3, 7, 10]),
  kind('maj7', 0.4, [0, 4, 7, 11]),
  kind('sus4', 0.5, [0, 5, 7]),
  kind('add9', 0.5, [0, 2, 4, 7]),
  kind('6', 0.55, [0, 4, 7, 9]),
  kind('sus2', 0.6, [0, 2, 7]),
  kind('dim', 0.6, [0, 3, 6]),
  kind('madd9', 0.65, [0, 2, 3, 7]),
  kind('m6', 0.7, [0, 3, 7, 9]),
  kind('9', 0.7, [0, 2, 4, 7, 10]),
  kind('7sus4', 0.7, [0, 5, 7, 10]),
  kind('dim7', 0.7, [0, 3, 6, 9]),
  kind('m7b5', 0.7, [0, 3, 6, 10]),
  kind('m9', 0.8, [0, 2, 3, 7, 10]),
  kind('maj9', 0.8, [0, 2, 4, 7, 11]),
  kind('aug', 0.8, [0, 4, 8]),
  kind('69', 0.9, [0, 2, 4, 7, 9]),
  kind('9sus4', 1, [0, 2, 5, 7, 10]),
  kind('7#9', 1, [0, 3, 4, 7, 10]),
  kind('7b9', 1, [0, 1, 4, 7, 10]),
  kind('13', 1.1, [0, 2, 4, 7, 9, 10], [2]),
  kind('mMaj7', 1.1, [0, 3, 7, 11]),
  kind('7#5', 1.1, [0, 4, 8, 10]),
  kind('7b5', 1.2, [0, 4, 6, 10]),
  kind('m69', 1.2, [0, 2, 3, 7, 9]),
  kind('11', 1.2, [0, 2, 4, 5, 7, 10], [2, 4]),
  kind('m11', 1.2, [0, 2, 3, 5, 7, 10], [2]),
  kind('maj13', 1.3, [0, 2, 4, 7, 9, 11], [2]),
  kind('m13', 1.3, [0, 2, 3, 7, 9, 10], [2]),
  kind('maj7#11', 1.3, [0, 4, 6, 7, 11]),
  kind('maj7#5', 1.6, [0, 4, 8, 11]),
];

/** What makes a name less plain. Our choice, from how teachers name what they hear. */
const STRAIN = {
  inversion: 1.2,
  /** A seventh in the bass is rather said as a triad over it. */
  seventhInBass: 1.5,
  pedal: 1.6,
  stepInBass: 1.3,
  missingFifth: 0.3,
  missingThird: 1,
  missingOptional: 0.2,
  missingOther: 1.5,
} as const;

/** Bass notes that walk down from a root or up to it, semitones above it. Source: common practice. */
const WALKING: readonly number[] = [10, 11, 2];

/** Most names given, and how much less plain than the first one may be; what is further down nobody would say. Our choice. */
const MAX_NAMES = 4;
const MAX_BEHIND = 1.3;

/** Names of two notes by the semitones between them, counted up from the lower one. Source: common practice. */
const DYADS = [
  'octave',
  'minor second',
  'second',
  'minor third',
  'third',
  'fourth',
  'tritone',
  'fifth (power chord)',
  'minor sixth',
  'sixth',
  'minor seventh',
  'seventh',
] as const;

/**
 * Names for notes that sound together, the plainest first: full chords, chords without their fifth, slash basses. Two
 * different notes are a power chord or an interval. Notes that are all of the chord in force are named by it first. Empty for fewer.
 */
export function nameChord(midis: readonly number[], options: NamingOptions = {}): readonly ChordName[] {
  const { bass, key = OPEN_KEY, chord } = options;
  const sounding = [...midis, ...(bass === undefined ? [] : [bass])].toSorted((a, b) => a - b);
  const lowest = bass ?? sounding[0];
  if (lowest === undefined) return [];
  const heard = new Set(sounding.map(chromaOf));
  const nameOf = (midi: number) => writeSpelling(spell(Math.round(midi), key), false);
  if (heard.size < 2) return [];
  const inForce = chord === undefined ? undefined : partOf(chord, heard);
  if (heard.size === 2) return [...(inForce ? [inForce] : []), dyad(sounding, nameOf)];
  const found = Array.from({ length: 12 }, (_, root) => root)
    .flatMap((root) => KINDS.flatMap((one) => weigh(one, root, { heard, bass: chromaOf(lowest), nameOf }) ?? []))
    .toSorted((a, b) => a.strain - b.strain || (a.symbol < b.symbol ? -1 : 1));
  const plainest = found[0]?.strain ?? 0;
  const names = found.filter(({ strain }) => strain <= plainest + MAX_BEHIND);
  return (inForce ? [inForce, ...names.filter(({ symbol }) => symbol !== inForce.symbol)] : names).slice(0, MAX_NAMES);
}

/** The chord in force, where all that is heard is of it. */
function partOf(symbol: string, heard: ReadonlySet<number>): ChordName | undefined {
  const tones = chordTones(symbol);
  if (!tones || ![...heard].every((chroma) => tones.degrees.has(chromaOf(chroma - tones.root)))) return undefined;
  const missing = [...tones.degrees].filter(([above]) => !heard.has(chromaOf(tones.root + above)));
  const because =
    missing.length === 0 ? 'all its notes' : `without its ${missing.map(([, degree]) => degree).join(' and ')}`;
  return { symbol: asShown(symbol), strain: 0, because: `the chord above, ${because}` };
}

function dyad(sounding: readonly number[], nameOf: (midi: number) => string): ChordName {
  const [low = 0] = sounding;
  const other = sounding.find((midi) => chromaOf(midi) !== chromaOf(low)) ?? low;
  const semitones = chromaOf(other - low);
  if (semitones === 7) return { symbol: `${nameOf(low)}5`, strain: 0, because: 'root and fifth, a power chord' };
  if (semitones === 5)
    return { symbol: `${nameOf(other)}5`, strain: 0.5, because: 'a power chord, its fifth in the bass' };
  return { symbol: `${nameOf(low)}–${nameOf(other)}`, strain: 0, because: `a ${DYADS[semitones] ?? 'unison'}` };
}

interface Sounding {
  readonly heard: ReadonlySet<number>;
  readonly bass: number;
  readonly nameOf: (midi: number) => string;
}

/** A chord as a name for what sounds; undefined where a note is left unexplained or the root is not there. */
function weigh(
  { suffix, tones, optional, strain: plain }: ChordKind,
  root: number,
  { heard, bass, nameOf }: Sounding,
): ChordName | undefined {
  const aboveBass = chromaOf(bass - root);
  const isPedal = !tones.includes(aboveBass);
  const uppers = [...heard].filter((chroma) => chroma !== bass || !isPedal).map((chroma) => chromaOf(chroma - root));
  if (!uppers.includes(0) || !uppers.every((above) => tones.includes(above))) return undefined;
  const missing = tones.filter((above) => !uppers.includes(above));
  // A chord of which little more than the root is left says nothing.
  if (uppers.length < 2 || missing.filter((above) => !optional.includes(above)).length > 1) return undefined;
  const strain =
    plain + bassStrain(aboveBass, isPedal) + missing.reduce((sum, above) => sum + missingStrain(above, optional), 0);
  const slash = aboveBass === 0 ? '' : `/${nameOf(60 + bass)}`;
  const symbol = `${nameOf(60 + root)}${suffix}`;
  const lacks = missing.map((above) => degreeAbove(above, tones.includes(3)));
  const because = [
    isPedal ? `${symbol} over ${nameOf(60 + bass)} as a pedal` : bassWords(aboveBass, nameOf(60 + bass)),
    ...(lacks.length > 0 ? [`without its ${lacks.join(' and ')}`] : isPedal ? [] : ['all its notes']),
  ].join(', ');
  return { symbol: `${symbol}${slash}`, strain, because };
}

function bassStrain(above: number, isPedal: boolean): number {
  if (above === 0) return 0;
  if (isPedal) return WALKING.includes(above) ? STRAIN.stepInBass : STRAIN.pedal;
  return above >= 10 ? STRAIN.seventhInBass : STRAIN.inversion;
}

function bassWords(above: number, name: string): string {
  return above === 0 ? 'its root in the bass' : `${name} in the bass`;
}

function missingStrain(above: number, optional: readonly number[]): number {
  if (above === FIFTH) return STRAIN.missingFifth;
  if (optional.includes(above)) return STRAIN.missingOptional;
  return above === 3 || above === 4 ? STRAIN.missingThird : STRAIN.missingOther;
}

/** A symbol with the signs of print. */
const asShown = (symbol: string): string =>
  symbol.replaceAll(/(^|\/)([A-G])#/g, '$1$2♯').replaceAll(/(^|\/)([A-G])b/g, '$1$2♭');
