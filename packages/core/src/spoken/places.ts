import { stringOfLetter } from '../notation/index.ts';
import { IN_A_ROW, ORDINALS, SIDES } from './vocabulary.ts';
import { numberAt, type Word } from './words.ts';

/** Strings that are said, 1 the thinnest, in the order they are said. */
export interface SaidStrings {
  readonly strings: readonly number[];
  readonly next: number;
  /** Whether it was an E and nobody said which. */
  readonly isEither?: true;
  /** Several of it, “four low Es”. */
  readonly isPlural?: true;
}

const isJoin = (word: Word | undefined) => word?.text === ',' || word?.text === 'and' || word?.text === 'or';
const isStringWord = (word: Word | undefined) => word?.text === 'string' || word?.text === 'strings';

/** The strings that are named at a word, by letter, by number or as a set; undefined where none are. */
export function stringsAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  const from = words[at]?.text === 'the' ? at + 1 : at;
  return (
    setAt(words, from, count) ??
    numberedAt(words, from, count) ??
    ordinalsAt(words, from, count) ??
    lettersAt(words, from, count)
  );
}

/** The strings that “on” names at a word; undefined where it does not stand there. */
export function onStringsAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  return words[at]?.text === 'on' ? stringsAt(words, at + 1, count) : undefined;
}

/** “the top two strings”, “all six strings”. */
function setAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  const side = words[at]?.text ?? '';
  const many = numberAt(words, at + 1);
  if (side === 'all') {
    const said = numberAt(words, at + 1);
    const next = said ? said.next : words[at + 1]?.text === 'the' ? at + 2 : at + 1;
    return isStringWord(words[next]) ? { strings: row(1, count), next: next + 1 } : undefined;
  }
  if (!['top', 'bottom', 'middle', 'thinnest', 'thickest', 'high', 'low', 'lowest', 'highest'].includes(side))
    return undefined;
  if (!many || many.isOrdinal || many.value < 2 || many.value > count) return undefined;
  const next = isStringWord(words[many.next]) ? many.next + 1 : many.next;
  const first = side === 'middle' ? Math.floor((count - many.value) / 2) + 1 : 1;
  const isThick = side === 'bottom' || side === 'thickest' || side === 'low' || side === 'lowest';
  return { strings: isThick ? row(count - many.value + 1, count) : row(first, first + many.value - 1), next };
}

/** “string two”, “strings four to two”, “strings 2 and 3”. */
function numberedAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  if (!isStringWord(words[at])) return undefined;
  const strings: number[] = [];
  let next = at + 1;
  for (;;) {
    const said = numberAt(words, next);
    if (!said || said.value < 1 || said.value > count) break;
    const last = strings.at(-1);
    if (last !== undefined && ['to', 'through'].includes(words[next - 1]?.text ?? ''))
      strings.push(...row(last, said.value).slice(1));
    else strings.push(said.value);
    next = said.next;
    const isMany = words[at]?.text === 'strings';
    if (!isMany || !(isJoin(words[next]) || ['to', 'through'].includes(words[next]?.text ?? ''))) break;
    if (!numberAt(words, next + 1)) break;
    next += 1;
  }
  return strings.length === 0 ? undefined : { strings, next };
}

/** “third string”, “the second and third strings”. */
function ordinalsAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  const strings: number[] = [];
  let next = at;
  for (;;) {
    const said = numberAt(words, next);
    if (!said?.isOrdinal || said.value > count) return undefined;
    strings.push(said.value);
    next = said.next;
    if (isStringWord(words[next])) {
      // “the third string and the second string”.
      let after = next + 1;
      while (isJoin(words[after]) || (after > next + 1 && words[after]?.text === 'the')) after += 1;
      const more = after > next + 1 ? numberAt(words, after) : undefined;
      if (!more?.isOrdinal || !isStringWord(words[more.next])) return { strings, next: next + 1 };
      next = after;
      continue;
    }
    // “on the second”: a fret would be at, not on.
    const isLast = words[next]?.text !== 'fret' && words[next]?.text !== 'finger';
    if (
      words[at - 1]?.text === 'the' &&
      words[at - 2]?.text === 'on' &&
      isLast &&
      !(isJoin(words[next]) && numberAt(words, next + 1)?.isOrdinal)
    )
      return { strings, next };
    while (isJoin(words[next]) || words[next]?.text === 'the') next += 1;
    if (next === said.next) return undefined;
  }
}

/** “the G”, “high E”, “the D, G and B strings”. */
function lettersAt(words: readonly Word[], at: number, count: number): SaidStrings | undefined {
  if (count !== 6) return undefined;
  const strings: number[] = [];
  let [next, isEither, isPlural] = [at, false, false];
  for (;;) {
    const one = letterAt(words, next, strings.length > 0 || isPlainlyString(words, at));
    if (!one) break;
    strings.push(one.string);
    isEither ||= one.isEither;
    isPlural ||= one.isPlural;
    next = one.next;
    let after = next;
    while (isJoin(words[after]) || (after > next && words[after]?.text === 'the')) after += 1;
    // “the A and the D”, “E A D G”; “the B, then …” and “the B, 8 …” end here.
    const more = letterAt(words, after, after > next);
    if (!more || isNoteHead(words, after, more.next)) break;
    next = after;
  }
  if (strings.length === 0) return undefined;
  if (isStringWord(words[next])) next += 1;
  return {
    strings,
    next,
    ...(isEither && { isEither: true }),
    ...(isPlural && { isPlural: true }),
  };
}

/** Whether a letter in a row begins something of its own: “the B, G 7”, “on the D, A string muted”, “7 D 9 D”. */
function isNoteHead(words: readonly Word[], at: number, next: number): boolean {
  const before = words[at - 1];
  if (before?.text === 'and' || before?.text === 'the') return false;
  const after = isStringWord(words[next]) ? words[next + 1] : words[next];
  if (before?.text === ',' && ['muted', 'dead', 'damped', 'open'].includes(after?.text ?? '')) return true;
  const number = isOneOfMany(words, next) ? undefined : numberAt(words, next);
  return number !== undefined && words[next]?.span.from !== words[next - 1]?.span.to && !number.isOrdinal;
}

const isPlainlyString = (words: readonly Word[], at: number) =>
  ['the', 'on', 'of'].includes(words[at - 1]?.text ?? '') ||
  isStringWord(words[at + 1]) ||
  SIDES[words[at]?.text ?? ''] !== undefined;

function letterAt(
  words: readonly Word[],
  at: number,
  isPlain: boolean,
):
  | { readonly string: number; readonly next: number; readonly isEither: boolean; readonly isPlural: boolean }
  | undefined {
  const side = SIDES[words[at]?.text ?? ''];
  const place = side === undefined ? at : at + 1;
  const word = words[place];
  if (!word) return undefined;
  const [, letter = '', plural = ''] = /^([a-gA-G])(s|'s|’s)?$/.exec(word.raw) ?? [];
  if (letter === '' || letter.toLowerCase() === 'c' || letter.toLowerCase() === 'f') return undefined;
  // A small letter is a string only where it can be nothing else; “a” is a word.
  const isSmall = letter !== letter.toUpperCase();
  const isGlued = words[place - 1]?.span.to === word.span.from && /^\d+$/.test(words[place - 1]?.raw ?? '');
  if (isSmall && !isGlued && side === undefined && !(isPlain && letter !== 'a') && !isStringWord(words[place + 1]))
    return undefined;
  const isE = letter.toLowerCase() === 'e';
  const string =
    isE && (side === 1 || (side === undefined && isSmall)) ? 1 : (stringOfLetter(letter.toUpperCase()) ?? 1);
  return { string, next: place + 1, isEither: isE && side === undefined && !isGlued, isPlural: plural !== '' };
}

/** Numbers from one to another, down as well as up. */
function row(from: number, to: number): readonly number[] {
  const step = to >= from ? 1 : -1;
  return Array.from({ length: Math.abs(to - from) + 1 }, (_, index) => from + step * index);
}

/** A fret that is said. */
export interface SaidFret {
  readonly fret: number;
  readonly next: number;
}

/** “one after the other”, “one at a time”: “one” is no fret there. */
const isOneOfMany = (words: readonly Word[], at: number) =>
  words[at]?.text === 'one' && ['after', 'at', 'by', 'note'].includes(words[at + 1]?.text ?? '');

/** The fret that is said at a word: “nine”, “the ninth fret”, “fret 9”, “open”. */
export function fretAt(words: readonly Word[], at: number): SaidFret | undefined {
  const from = words[at]?.text === 'the' ? at + 1 : at;
  if (words[from]?.text === 'open') return { fret: 0, next: from + 1 };
  const isNamed = words[from]?.text === 'fret';
  const said = numberAt(words, isNamed ? from + 1 : from);
  if (!said) return undefined;
  if (said.isOrdinal && isOfOther(words, at, said.next)) return undefined;
  const isAfter = words[said.next]?.text === 'fret' || words[said.next]?.text === 'frets';
  if (words[said.next]?.text === 'frets' && !said.isPlural && !said.isOrdinal) return undefined;
  return { fret: said.value, next: isAfter ? said.next + 1 : said.next };
}

/** Whether an ordinal numbers something that is no fret: “the second string”, “first note”, “first, …”. */
function isOfOther(words: readonly Word[], at: number, next: number): boolean {
  const after = words[next]?.text ?? '';
  if (after === 'fret' || words[at]?.text === 'fret') return false;
  if (isStringWord(words[next]) || IN_A_ROW.includes(after)) return true;
  return words[at]?.text !== 'the' && !TO_FRETS.has(words[at - 1]?.text ?? '');
}

/** What an ordinal after it is a fret of. */
const TO_FRETS = new Set('the to at from into fret and then of with on hammer slide pull tap bend , or'.split(' '));

/** Whether an ordinal is there as a finger: “third finger”. */
export function fingerAt(
  words: readonly Word[],
  at: number,
): { readonly finger: '1' | '2' | '3' | '4'; readonly next: number } | undefined {
  const from = ['with', 'the'].includes(words[at]?.text ?? '') ? at + 1 : at;
  const place = ['the', 'your', 'my'].includes(words[from]?.text ?? '') ? from + 1 : from;
  const number = ORDINALS[words[place]?.text ?? ''];
  if (number === undefined || number > 4) return undefined;
  const finger = String(number) as '1' | '2' | '3' | '4';
  const after = words[place + 1];
  if (after?.text === 'finger') return { finger, next: place + 2 };
  const isAtEnd = words[at]?.text === 'with' && place > from && (!after || after.isStop);
  return isAtEnd ? { finger, next: place + 1 } : undefined;
}
