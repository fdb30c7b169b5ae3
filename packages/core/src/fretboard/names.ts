import { letterOfString, LETTERED_STRINGS } from '../notation/index.ts';
import type { Tuning } from '../pitch/index.ts';

/** How strings are named: by letters, on six-strings, or by numbers from the thinnest. */
export type StringNames = 'letters' | 'numbers';

/** How the strings of a guitar are named: as wanted, but by numbers where they are not six. */
export function namesOf({
  tuning,
  names = 'letters',
}: {
  readonly tuning: Tuning;
  readonly names?: StringNames;
}): StringNames {
  return tuning.openMidis.length === LETTERED_STRINGS ? names : 'numbers';
}

/** A string as it is spoken of, `the high e` or `string 1`. */
export function sayString(string: number, names: StringNames = 'letters'): string {
  const letter = names === 'letters' ? letterOfString(string) : undefined;
  if (letter === undefined) return `string ${string}`;
  return letter === 'e' ? 'the high e' : letter === 'E' ? 'the low E' : letter;
}

/** A note as it is spoken of, `12 on the high e`. */
export function sayNote(
  { string, fret }: { readonly string: number; readonly fret: number | null },
  names?: StringNames,
): string {
  return `${fret ?? 'x'} on ${sayString(string, names)}`;
}

/** An event as it is spoken of: its notes, the thickest string first, and how they are played. */
export function sayEvent(
  { notes }: { readonly notes: readonly { readonly string: number; readonly fret: number | null }[] },
  techniques: readonly string[],
  names?: StringNames,
): string {
  const fretPositions = notes.toSorted((a, b) => b.string - a.string).map((note) => sayNote(note, names));
  return [fretPositions.join(', '), ...new Set(techniques)].join(' · ');
}
