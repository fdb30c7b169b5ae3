import { TICKS_PER_QUARTER, unroll, type Phrase, type Setup, type Span } from '../notation/index.ts';
import { OPEN_KEY, spell, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf, PLAIN_DEGREES, type ChordTones } from './names.ts';

/** A note as the harmony under it sees it. */
export interface Degree {
  readonly span: Span;
  /** Place in the played-out phrase, ticks. */
  readonly at: number;
  readonly string: number;
  readonly fret: number;
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
 * Every sounding note of a phrase, played out, against the chord in force and against the key. Degrees of chord tones
 * are named as the chord has them (`#9`, `b5`), others plainly. Dead notes and harmonics off the scale of frets are left out.
 */
export function degreesOf(phrase: Phrase, { tuning, capo, key = OPEN_KEY }: DegreeOptions): readonly Degree[] {
  const { events, chords } = unroll(phrase);
  const tonic = tonicOf(key);
  const known = new Map<string, ChordTones | undefined>();
  const tonesOf = (symbol: string) => {
    if (!known.has(symbol)) known.set(symbol, chordTones(symbol));
    return known.get(symbol);
  };
  return events.flatMap(({ item, at, length, span }) => {
    const force = chords.findLast((one) => one.at <= at);
    const chord = force?.chord ?? null;
    const tones = chord === null ? undefined : tonesOf(chord);
    const isHeld = length >= HELD_TICKS || force?.at === at;
    return (item?.notes ?? []).flatMap(({ string, fret, harmonic }): readonly Degree[] => {
      const open = tuning.openMidis[string - 1];
      if (fret === null || harmonic || open === undefined) return [];
      const midi = open + capo + fret;
      const above = tones && chromaOf(midi - tones.root);
      return [
        {
          span,
          at,
          string,
          fret,
          midi,
          name: writeSpelling(spell(midi, key)),
          chord,
          degree: above === undefined ? null : (tones?.degrees.get(above) ?? PLAIN_DEGREES[above] ?? null),
          keyDegree: PLAIN_DEGREES[chromaOf(midi - tonic)] ?? '1',
          isChordTone: above !== undefined && (tones?.degrees.has(above) ?? false),
          isHeld,
        },
      ];
    });
  });
}

/** The pitch class of a key’s tonic: along the line of fifths from C, in minor three fifths further. */
export function tonicOf({ fifths, mode }: Key): number {
  return chromaOf((fifths + (mode === 'minor' ? 3 : 0)) * 7);
}
