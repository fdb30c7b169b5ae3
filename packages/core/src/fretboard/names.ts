import { letterOfString, STRING_LETTERS } from '../notation/index.ts';

/** A string as it is spoken of on a guitar of so many: by its letter on six, else by its number. */
export function sayString(string: number, count: number = STRING_LETTERS.length): string {
  const letter = count === STRING_LETTERS.length ? letterOfString(string) : undefined;
  if (letter === undefined) return `string ${string}`;
  return letter === 'e' ? 'the high e' : letter === 'E' ? 'the low E' : letter;
}

/** A note as it is spoken of, `12 on the high e`. */
export function sayNote(
  { string, fret }: { readonly string: number; readonly fret: number | null },
  count?: number,
): string {
  return `${fret ?? 'x'} on ${sayString(string, count)}`;
}

/** An event as it is spoken of: its notes, the thickest string first, and how they are played. */
export function sayEvent(
  { notes }: { readonly notes: readonly { readonly string: number; readonly fret: number | null }[] },
  techniques: readonly string[],
  count?: number,
): string {
  const places = notes.toSorted((a, b) => b.string - a.string).map((note) => sayNote(note, count));
  return [places.join(', '), ...new Set(techniques)].join(' · ');
}
