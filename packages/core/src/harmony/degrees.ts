import {
  heardOf,
  namedMidi,
  TICKS_PER_QUARTER,
  unroll,
  type Phrase,
  type Setup,
  type Span,
} from '../notation/index.ts';
import { hasMinorThird, OPEN_KEY, spell, tonicOf, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf, degreeAbove, type ChordTones } from './names.ts';

/** A note as the harmony under it sees it. */
export interface Degree {
  readonly span: Span;
  /** Place in the played-out phrase, ticks. */
  readonly at: number;
  readonly string: number;
  readonly fret: number;
  /** The pitch it rests on. */
  readonly midi: number;
  /** Its name as the key spells it, `F♯4`. */
  readonly name: string;
  /** The chord in force; null where none is written. */
  readonly chord: string | null;
  /** Against the root of that chord, `b3`; null where none is written or it is not known. */
  readonly degree: string | null;
  /** Against the tonic of the key. */
  readonly keyDegree: string;
  /** Whether it belongs to the chord. */
  readonly isChordTone: boolean;
  /** Whether the ear rests on it: a quarter or longer, or struck as the chord arrives. */
  readonly isHeld: boolean;
}

/** What degrees are counted against. */
export interface DegreeOptions extends Setup {
  readonly key?: Key;
}

/** A note at least so long is one the ear rests on, ticks. Our choice: a quarter. */
const HELD_TICKS = TICKS_PER_QUARTER;

/**
 * Every sounding note of a phrase, played out, against the chord in force and against the key, by the pitch that it rests on. Degrees of
 * chord tones are named as the chord has them (`#9`, `b5`), others plainly. Dead notes are left out.
 */
export function degreesOf(phrase: Phrase, { tuning, capo, key = OPEN_KEY }: DegreeOptions): readonly Degree[] {
  const { chords } = unroll(phrase);
  const tonic = tonicOf(key);
  const isMinor = hasMinorThird(key);
  const known = new Map<string, ChordTones | undefined>();
  const tonesOf = (symbol: string) => {
    if (!known.has(symbol)) known.set(symbol, chordTones(symbol));
    return known.get(symbol);
  };
  return heardOf(phrase, { tuning, capo }).map(({ span, at, length, string, fret, rests, chord }): Degree => {
    const tones = chord === null ? undefined : tonesOf(chord);
    const midi = namedMidi(rests);
    const above = tones && chromaOf(midi - tones.root);
    const isMinorChord = tones ? tones.degrees.has(3) || (isMinor && !tones.degrees.has(4)) : isMinor;
    const arrived = chords.findLast((one) => one.at <= at)?.at === at;
    return {
      ...{ span, at, string, fret, midi, chord },
      name: writeSpelling(spell(midi, key)),
      degree: above === undefined ? null : (tones?.degrees.get(above) ?? degreeAbove(above, isMinorChord)),
      keyDegree: degreeAbove(midi - tonic, isMinor),
      isChordTone: above !== undefined && (tones?.degrees.has(above) ?? false),
      isHeld: length >= HELD_TICKS || arrived,
    };
  });
}
