import { Chord, Note } from 'tonal';
import { OPEN_KEY, spell, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf, chromaOfName } from './names.ts';

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
}

/** What makes a name less plain. Our choice, from how teachers name what they hear. */
const STRAIN = {
  bassNotRoot: 1.2,
  missingFifth: 0.3,
  missingThird: 1,
  missingOther: 1.5,
  altered: 1.3,
  letter: 0.08,
  pedal: 1.6,
} as const;

/** Most names given; what is further down nobody would say. Our choice. */
const MAX_NAMES = 4;

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
 * different notes are a power chord or an interval. Empty for fewer.
 */
export function nameChord(
  midis: readonly number[],
  { bass, key = OPEN_KEY }: NamingOptions = {},
): readonly ChordName[] {
  const sounding = [...midis, ...(bass === undefined ? [] : [bass])].toSorted((a, b) => a - b);
  const lowest = bass ?? sounding[0];
  if (lowest === undefined) return [];
  const nameOf = (midi: number) => writeSpelling(spell(Math.round(midi), key), false);
  const others = sounding.filter((midi) => chromaOf(midi) !== chromaOf(lowest));
  const names = [...new Set([lowest, ...others].map((midi) => asTonal(nameOf(midi))))];
  if (names.length < 2) return [];
  if (names.length === 2) return [dyad(sounding, nameOf)];
  const found = new Set([...Chord.detect(names), ...Chord.detect(names, { assumePerfectFifth: true })]);
  const whole = [...found].flatMap((symbol) => weigh(symbol, sounding, chromaOf(lowest)) ?? []);
  return [...whole, ...overPedal(names.slice(1), sounding, lowest)]
    .toSorted((a, b) => a.strain - b.strain || (a.symbol < b.symbol ? -1 : 1))
    .slice(0, MAX_NAMES);
}

/** A chord over a bass that is none of its notes. */
function overPedal(uppers: readonly string[], sounding: readonly number[], lowest: number): readonly ChordName[] {
  if (uppers.length < 3) return [];
  const above = sounding.filter((midi) => chromaOf(midi) !== chromaOf(lowest));
  const pedal = writeSpelling(spell(Math.round(lowest)), false);
  return Chord.detect([...uppers])
    .filter((symbol) => !symbol.includes('/'))
    .flatMap((symbol): readonly ChordName[] => {
      const tones = chordTones(symbol);
      const named = tones && weigh(symbol, above, tones.root);
      if (!named || tones.degrees.has(chromaOf(lowest - tones.root))) return [];
      return [
        {
          symbol: `${named.symbol}/${pedal}`,
          strain: named.strain + STRAIN.pedal,
          because: `${named.symbol} over ${pedal} as a pedal`,
        },
      ];
    });
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

function weigh(detected: string, sounding: readonly number[], bass: number): ChordName | undefined {
  const [plain = '', slash] = detected.split('/');
  const symbol = plain.endsWith('M') && !/\d/.test(plain) ? plain.slice(0, -1) : plain;
  const tones = /no\d/.test(symbol) ? undefined : chordTones(symbol);
  if (!tones) return undefined;
  const heard = new Set(sounding.map((midi) => chromaOf(midi - tones.root)));
  const missing = [...tones.degrees].filter(([above]) => !heard.has(above)).map(([, degree]) => degree);
  const inBass = slash !== undefined && chromaOfName(slash) === bass ? slash : undefined;
  const strain =
    (inBass ? STRAIN.bassNotRoot : 0) +
    missing.reduce((sum, degree) => sum + strainOf(degree), 0) +
    (isAltered(symbol) ? STRAIN.altered : 0) +
    symbol.length * STRAIN.letter;
  const because = [
    inBass ? `${asShown(inBass)} in the bass` : 'its root in the bass',
    missing.length > 0 ? `without its ${missing.join(' and ')}` : 'all its notes',
  ].join(', ');
  return { symbol: asShown(inBass ? `${symbol}/${inBass}` : symbol), strain, because };
}

/** Chords with a raised or lowered fifth are rarely meant, but for the half-diminished one. */
function isAltered(symbol: string): boolean {
  return /[#b]5/.test(symbol) && !symbol.endsWith('m7b5');
}

function strainOf(degree: string): number {
  if (degree === '5') return STRAIN.missingFifth;
  return degree.endsWith('3') && degree.length < 3 ? STRAIN.missingThird : STRAIN.missingOther;
}

/** Our signs as the dictionary writes them, and back. */
const asTonal = (name: string): string => Note.simplify(name.replaceAll('♯', '#').replaceAll('♭', 'b')) || name;
const asShown = (symbol: string): string =>
  symbol.replaceAll(/(^|\/)([A-G])#/g, '$1$2♯').replaceAll(/(^|\/)([A-G])b/g, '$1$2♭');
