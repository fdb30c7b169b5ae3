import type { Span } from '../notation/index.ts';
import { NUMBERS, ORDINALS } from './vocabulary.ts';

/** A word, a number or a sign of a text. */
export interface Word {
  readonly span: Span;
  /** As it is said, in small letters. */
  readonly text: string;
  /** As it stands. */
  readonly raw: string;
  /** Whether it ends a clause: a comma, a stop, a line. */
  readonly isStop: boolean;
}

/** A number that is said. */
export interface SaidNumber {
  readonly value: number;
  readonly isOrdinal: boolean;
  /** Several of it, “the fives”. */
  readonly isPlural: boolean;
  readonly next: number;
}

const WORD = /\[\d{1,3}:\d{2}(?:[.:]\d+)?\]|\d+(?:st|nd|rd|th)\b|\d+|[\p{L}]+(?:['’][\p{L}]+)*|[^\s]/gu;

/** The words of a text; a hyphen parts words, `9B` is a number and a letter. */
export function wordsOf(text: string): readonly Word[] {
  return Array.from(text.matchAll(WORD), (match) => wordOf(match[0], match.index)).filter(
    ({ raw }) => !'-–—'.includes(raw),
  );
}

function wordOf(raw: string, from: number): Word {
  const text = raw.toLowerCase().replaceAll('’', "'");
  return { span: { from, to: from + raw.length }, text, raw, isStop: STOPS.includes(raw) };
}

const STOPS = '.,;:!?()…';

/** The number that is said at a word; undefined where none is. */
export function numberAt(words: readonly Word[], at: number): SaidNumber | undefined {
  const word = words[at];
  if (!word) return undefined;
  const digits = /^(\d+)(st|nd|rd|th)?$/.exec(word.text);
  if (digits) {
    const plural = words[at + 1];
    const isPlural = plural?.text === 's' && plural.span.from === word.span.to;
    return {
      value: Number(digits[1]),
      isOrdinal: digits[2] !== undefined,
      isPlural,
      next: at + (isPlural ? 2 : 1),
    };
  }
  const tens = NUMBERS[word.text];
  if (tens !== undefined) {
    const next = words[at + 1];
    const unit = next && tens >= 20 ? (NUMBERS[next.text] ?? ORDINALS[next.text]) : undefined;
    if (next && unit !== undefined && unit > 0 && unit < 10)
      return { value: tens + unit, isOrdinal: ORDINALS[next.text] !== undefined, isPlural: false, next: at + 2 };
    return { value: tens, isOrdinal: false, isPlural: false, next: at + 1 };
  }
  const place = ORDINALS[word.text];
  if (place !== undefined) return { value: place, isOrdinal: true, isPlural: false, next: at + 1 };
  const single = pluralOf(word.text);
  return single === undefined ? undefined : { value: single, isOrdinal: false, isPlural: true, next: at + 1 };
}

/** The number of which a word says several: fives, sixes. */
function pluralOf(word: string): number | undefined {
  if (!word.endsWith('s')) return undefined;
  return NUMBERS[word.slice(0, -1)] ?? (word.endsWith('es') ? NUMBERS[word.slice(0, -2)] : undefined);
}

/** Sayings of one or more words, found by their first. */
export type Sayings<Meaning> = ReadonlyMap<string, readonly (readonly [parts: readonly string[], meaning: Meaning])[]>;

/** Lays sayings out to be found; of those that begin alike the longest comes first. */
export function sayingsOf<Meaning>(said: readonly (readonly [words: string, meaning: Meaning])[]): Sayings<Meaning> {
  const found = new Map<string, (readonly [parts: readonly string[], meaning: Meaning])[]>();
  for (const [text, meaning] of said) {
    const parts = text.split(' ');
    const [first = ''] = parts;
    found.set(first, [...(found.get(first) ?? []), [parts, meaning] as const]);
  }
  for (const list of found.values()) list.sort(([a], [b]) => b.length - a.length);
  return found;
}

/** The longest saying that stands at a word; undefined for none. */
export function sayingAt<Meaning>(
  words: readonly Word[],
  at: number,
  sayings: Sayings<Meaning>,
): { readonly meaning: Meaning; readonly next: number } | undefined {
  for (const [parts, meaning] of sayings.get(words[at]?.text ?? '') ?? [])
    if (parts.every((part, index) => words[at + index]?.text === part)) return { meaning, next: at + parts.length };
  return undefined;
}

/** Past some words. */
export function skip(words: readonly Word[], at: number, said: readonly string[]): number {
  let next = at;
  while (said.includes(words[next]?.text ?? '')) next += 1;
  return next;
}
