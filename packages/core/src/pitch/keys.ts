/** Modes of a key, by how many fifths their tonic lies above that of the major key with the same signature. Source: common practice. */
const TONIC_FIFTHS = {
  major: 0,
  minor: 3,
  dorian: 2,
  phrygian: 4,
  lydian: -1,
  mixolydian: 1,
  locrian: 5,
} as const;

/** A mode of a key. */
export type Mode = keyof typeof TONIC_FIFTHS;

/** Scales that teachers name a key by, beside its mode. */
export type KeyScale = 'harmonic minor' | 'melodic minor' | 'blues' | 'pentatonic';

/** A key: sharps (positive) or flats of its signature, its mode, and the scale that was named, where it is not plainly the mode’s. */
export interface Key {
  readonly fifths: number;
  readonly mode: Mode;
  readonly scale?: KeyScale;
}

/** The key in which nothing is sharp or flat, for songs whose key is not said yet. */
export const OPEN_KEY: Key = { fifths: 0, mode: 'major' };

/** Most signs of a signature. Source: common practice. */
const MAX_SIGNS = 7;

/** Letters along the line of fifths, counted from C. */
const LETTER_FIFTHS = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 } as const;

/** What stands behind the tonic, in words as teachers write them. Source: common practice. */
const WORDS: readonly (readonly [RegExp, Pick<Key, 'mode' | 'scale'>])[] = [
  [/^(?:|maj(?:or)?|M|ionian)$/, { mode: 'major' }],
  [/^(?:m|min(?:or)?|-|aeolian|natural minor)$/, { mode: 'minor' }],
  [/^dor(?:ian)?$/, { mode: 'dorian' }],
  [/^phryg(?:ian)?$/, { mode: 'phrygian' }],
  [/^lyd(?:ian)?$/, { mode: 'lydian' }],
  [/^mixo(?:lydian)?$/, { mode: 'mixolydian' }],
  [/^locr(?:ian)?$/, { mode: 'locrian' }],
  [/^harm(?:onic)? min(?:or)?$/, { mode: 'minor', scale: 'harmonic minor' }],
  [/^mel(?:odic)? min(?:or)?$/, { mode: 'minor', scale: 'melodic minor' }],
  [/^(?:min(?:or)? )?blues$/, { mode: 'minor', scale: 'blues' }],
  [/^maj(?:or)? blues$/, { mode: 'major', scale: 'blues' }],
  [/^(?:maj(?:or)? )?pent(?:atonic)?$/, { mode: 'major', scale: 'pentatonic' }],
  [/^(?:m|min(?:or)?) pent(?:atonic)?$/, { mode: 'minor', scale: 'pentatonic' }],
];

const KEY = /^\s*([A-Ga-g])\s*(#|♯|b(?!lues)|♭|[Ss]harp\b|[Ff]lat\b)?\s*(.*?)\s*$/;

/**
 * Reads a key as teachers write it: `A`, `F# minor`, `Bbm`, `B flat`, `E dorian`, `D harmonic minor`, `A blues`; upper or lower
 * case. Undefined for what is none, for nothing at all, and where the signature would have more than seven signs.
 */
export function readKey(text: string): Key | undefined {
  const [, letter, sign, rest = ''] = KEY.exec(text) ?? [];
  if (letter === undefined) return undefined;
  const words = rest.length === 1 ? rest : rest.toLowerCase().replaceAll(/\s+/g, ' ');
  const named = WORDS.find(([pattern]) => pattern.test(words))?.[1];
  const name = letter.toUpperCase();
  if (!named || !isLetter(name)) return undefined;
  const fifths = LETTER_FIFTHS[name] + 7 * alterOf(sign) - TONIC_FIFTHS[named.mode];
  return Math.abs(fifths) > MAX_SIGNS ? undefined : { fifths, ...named };
}

function isLetter(name: string): name is keyof typeof LETTER_FIFTHS {
  return Object.hasOwn(LETTER_FIFTHS, name);
}

/** How far a sharp or flat sign alters a letter, semitones; 0 for none. */
export function alterOf(sign: string | undefined): number {
  if (sign === undefined) return 0;
  return /^(?:#|♯|sharp)$/i.test(sign) ? 1 : /^(?:b|♭|flat)$/i.test(sign) ? -1 : 0;
}

/** The pitch class of a key’s tonic, 0 for C to 11 for B. */
export function tonicOf({ fifths, mode }: Key): number {
  return ((((fifths + TONIC_FIFTHS[mode]) * 7) % 12) + 12) % 12;
}

/** The place of a key’s tonic on the line of fifths, C at 0. */
export function tonicFifths({ fifths, mode }: Key): number {
  return fifths + TONIC_FIFTHS[mode];
}

/** Whether the third above the tonic is minor. */
export function hasMinorThird({ mode }: Key): boolean {
  return TONIC_FIFTHS[mode] >= TONIC_FIFTHS.dorian;
}

/** Degrees above the tonic of a scale of seven notes, from the line of fifths. */
const MAJOR = [0, 2, 4, 5, 7, 9, 11] as const;

/**
 * The pitch classes of a key: those of its mode, and the raised sixth and seventh where a harmonic or melodic minor is named. Source:
 * common practice.
 */
export function scaleOfKey(key: Key): ReadonlySet<number> {
  const first = (((key.fifths * 7) % 12) + 12) % 12;
  const tonic = tonicOf(key);
  const raised = key.scale === 'harmonic minor' ? [11] : key.scale === 'melodic minor' ? [9, 11] : [];
  return new Set([...MAJOR.map((step) => (first + step) % 12), ...raised.map((above) => (tonic + above) % 12)]);
}
