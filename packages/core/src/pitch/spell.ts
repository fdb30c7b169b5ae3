import { alterOf, hasMinorThird, OPEN_KEY, tonicFifths, type Key } from './keys.ts';

/** A pitch as it is written: letter, sharps (positive) or flats (negative), octave; middle C is C4. */
export interface Spelling {
  readonly letter: 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';
  readonly alter: number;
  readonly octave: number;
}

/** Letters along the line of fifths, beginning with F; each has the same place in its row of seven. */
const FIFTHS = ['F', 'C', 'G', 'D', 'A', 'E', 'B'] as const;
/** Semitones of the note letters above C. */
export const NATURAL_PITCH = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 } as const;

/**
 * How far the twelve spellings of a key reach down the line of fifths from its tonic: with a minor third to its lowered fifth, with a
 * major third to its lowered second, so that the fourth is the one that is raised. Source: common practice.
 */
const REACH = { minor: 6, major: 5 } as const;

/**
 * A whole MIDI number as it is spelt in a key: of the names of its pitch the one nearest to the key along the
 * line of fifths; in minor the raised sixth and seventh are sharps.
 * Source: the line of fifths, common practice.
 *
 * @throws RangeError for a MIDI number that is not whole.
 */
export function spell(midi: number, key: Key = OPEN_KEY): Spelling {
  if (!Number.isInteger(midi)) throw new RangeError(`a spelling exists for whole MIDI numbers, not ${midi}`);
  const pitch = ((midi % 12) + 12) % 12;
  const lowest = tonicFifths(key) - (hasMinorThird(key) ? REACH.minor : REACH.major);
  // One step along the line of fifths is seven semitones; seven undoes itself modulo twelve.
  const onLine = lowest + ((((pitch * 7 - lowest) % 12) + 12) % 12);
  const place = onLine + 1;
  const letter = FIFTHS[((place % 7) + 7) % 7] ?? 'C';
  const alter = Math.floor(place / 7);
  return { letter, alter, octave: Math.floor((midi - alter - NATURAL_PITCH[letter]) / 12) - 1 };
}

/** The text of a spelling, `F♯4`; without its octave where `octave` is false. */
export function writeSpelling({ letter, alter, octave }: Spelling, withOctave = true): string {
  const sign = alter >= 0 ? '♯'.repeat(alter) : '♭'.repeat(-alter);
  return `${letter}${sign}${withOctave ? octave : ''}`;
}

const NOTE_NAME = /^([A-G])([#b♯♭n]?)/;

/** How many semitones above C the pitch of a name lies, `F#`, `Bb`, `En`, from 0 to 11; NaN where it begins with no name. */
export function chromaOfName(name: string): number {
  const [, letter, sign] = NOTE_NAME.exec(name) ?? [];
  const natural = Object.entries(NATURAL_PITCH).find(([one]) => one === letter)?.[1];
  return natural === undefined ? NaN : (natural + alterOf(sign) + 12) % 12;
}

/**
 * A chord symbol moved by semitones, its quality untouched: root and slash bass are spelt for the key, `F♯m7/C♯` a whole step
 * up in E is `G♯m7/D♯`. What does not begin with a note stays as it is.
 */
export function transposeSymbol(symbol: string, semitones: number, key: Key = OPEN_KEY): string {
  return symbol
    .split('/')
    .map((part) => {
      const [name] = NOTE_NAME.exec(part) ?? [];
      if (name === undefined) return part;
      const moved = writeSpelling(spell(60 + chromaOfName(name) + semitones, key), false);
      return moved.replaceAll('♯', '#').replaceAll('♭', 'b') + part.slice(name.length);
    })
    .join('/');
}
