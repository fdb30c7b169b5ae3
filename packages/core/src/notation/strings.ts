/** Letters of the strings of a six-string guitar, thick to thin; small e is the 1st. */
export const STRING_LETTERS = 'EADGBe';

/** What may be typed for a string: its letter, and the small ones that stand for nothing else. */
export const STRING_SIGNS = `${STRING_LETTERS}ag`;

/** Letters name the strings of a six-string guitar only; with any other count numbers are used. */
export const LETTERED_STRINGS = STRING_LETTERS.length;

/** The string a letter names, 1 = thinnest; a small one but e is read as its capital. Undefined for any other letter. */
export function stringOfLetter(letter: string): number | undefined {
  const name = STRING_LETTERS.includes(letter) ? letter : letter.toUpperCase();
  const index = letter === '' ? -1 : STRING_LETTERS.indexOf(name);
  return index < 0 ? undefined : LETTERED_STRINGS - index;
}

/** The letter of string 1-6 (1 = thinnest); undefined beyond. */
export function letterOfString(string: number): string | undefined {
  return STRING_LETTERS[LETTERED_STRINGS - string];
}
