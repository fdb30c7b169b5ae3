import { Interval, Scale } from 'tonal';
import { heardOf, namedMidi, type Phrase, type Setup } from '../notation/index.ts';
import { OPEN_KEY, scaleOfKey, spell, writeSpelling, type Key } from '../pitch/index.ts';
import { chordTones, chromaOf } from './names.ts';

/** A scale: its tonic and pitch classes. */
export interface NamedScale {
  /** `E dorian`, as the key spells it. */
  readonly name: string;
  readonly tonic: number;
  readonly chromas: ReadonlySet<number>;
}

/** A scale over some chords, and what speaks for it in words. */
export interface RankedScale extends NamedScale {
  /** Lower is plainer. */
  readonly strain: number;
  /** Names of the notes that every chord and the scale share. */
  readonly common: readonly string[];
  /** Names of chord tones that the scale has not. */
  readonly missing: readonly string[];
  readonly because: string;
}

/** Scales that are tried, the plainest first. Our choice of those that lead guitar uses. */
const SCALES = [
  'major pentatonic',
  'minor pentatonic',
  'major',
  'mixolydian',
  'dorian',
  'aeolian',
  'minor blues',
  'lydian',
  'phrygian',
  'harmonic minor',
  'melodic minor',
  'phrygian dominant',
  'lydian dominant',
  'locrian',
  'altered',
  'whole tone',
] as const;

/** What makes a scale less fitting. Our choice; a note that sounds and is not in it weighs most. */
const STRAIN = { missingSound: 20, missingTone: 2, guide: 1.5, otherTonic: 1, outOfKey: 0.3, rarer: 0.12 } as const;

/** What scales are sought for besides the chords. */
export interface ScaleOptions {
  readonly key?: Key;
  /** Pitch classes that sound, 0 for C to 11 for B; scales that hold all of them come first. */
  readonly sounding?: ReadonlySet<number>;
}

/**
 * Scales for one chord or a progression, the most fitting first: those that hold all that sounds. Among them: more chord tones, then
 * a tonic nearer to the first chord’s root, then nearer to the key, then plainer. Unknown chords are left out. Empty without a chord.
 */
export function scalesFor(
  symbols: readonly string[],
  { key = OPEN_KEY, sounding = new Set() }: ScaleOptions = {},
): readonly RankedScale[] {
  const chords = symbols.flatMap((symbol) => chordTones(symbol) ?? []);
  const [first] = chords;
  if (!first) return [];
  const needed = chords.map(
    ({ root, degrees }) => new Map([...degrees].map(([above, name]) => [chromaOf(root + above), name])),
  );
  const roots = [...new Set(chords.map(({ root }) => root))];
  return roots
    .flatMap((tonic) =>
      SCALES.map((_, rarity) => rank({ tonic, rarity }, needed, { key, first: first.root, sounding })),
    )
    .toSorted((a, b) => a.strain - b.strain || (a.name < b.name ? -1 : 1));
}

function rank(
  { tonic, rarity }: { readonly tonic: number; readonly rarity: number },
  needed: readonly ReadonlyMap<number, string>[],
  { key, first, sounding }: { readonly key: Key; readonly first: number; readonly sounding: ReadonlySet<number> },
): RankedScale {
  const scale = scaleOf(tonic, rarity, key);
  const nameOf = (chroma: number) => writeSpelling(spell(60 + chroma, key), false);
  const lost = needed.flatMap((tones) => [...tones].filter(([chroma]) => !scale.chromas.has(chroma)));
  const guides = lost.filter(([, degree]) => /^b?[37]$/.test(degree)).length;
  const common = [...scale.chromas].filter((chroma) => needed.every((tones) => tones.has(chroma))).map(nameOf);
  const missing = [...new Set(lost.map(([chroma]) => nameOf(chroma)))];
  const unheld = [...sounding].filter((chroma) => !scale.chromas.has(chroma));
  const inKey = scaleOfKey(key);
  const strain =
    unheld.length * STRAIN.missingSound +
    lost.length * STRAIN.missingTone +
    guides * STRAIN.guide +
    (tonic === first ? 0 : STRAIN.otherTonic) +
    [...scale.chromas].filter((chroma) => !inKey.has(chroma)).length * STRAIN.outOfKey +
    rarity * STRAIN.rarer;
  const holds = missing.length === 0 ? 'holds every chord tone' : `lacks ${missing.join(' and ')}`;
  const outside =
    unheld.length === 0
      ? ''
      : `; ${unheld.map(nameOf).join(' and ')} of the phrase ${unheld.length === 1 ? 'is' : 'are'} outside`;
  const shared = common.length === 0 || needed.length < 2 ? '' : `; the chords share ${common.join(', ')} in it`;
  return { ...scale, strain, common, missing, because: `${holds}${outside}${shared}` };
}

function scaleOf(tonic: number, rarity: number, key: Key): NamedScale {
  const type = SCALES[rarity] ?? 'major';
  const { intervals } = Scale.get(`C ${type}`);
  const chromas = new Set(intervals.map((name) => chromaOf(tonic + Interval.semitones(name))));
  return { name: `${writeSpelling(spell(60 + tonic, key), false)} ${type}`, tonic, chromas };
}

/** How much of a phrase lies inside a scale, by length, and which notes leave it. */
export interface ScaleFit {
  /** Share of the sounding length inside the scale, 0 to 1; 1 for a phrase without a note. */
  readonly inside: number;
  /** Pitch classes that leave it, and how long they sound, ticks. */
  readonly leaving: ReadonlyMap<number, number>;
}

/** Weighs a phrase against a scale. */
export function fitOf(phrase: Phrase, scale: NamedScale, setup: Setup): ScaleFit {
  let all = 0;
  const leaving = new Map<number, number>();
  for (const { rests, length } of heardOf(phrase, setup)) {
    all += length;
    const chroma = chromaOf(namedMidi(rests));
    if (!scale.chromas.has(chroma)) leaving.set(chroma, (leaving.get(chroma) ?? 0) + length);
  }
  const outside = [...leaving.values()].reduce((sum, length) => sum + length, 0);
  return { inside: all === 0 ? 1 : 1 - outside / all, leaving };
}
