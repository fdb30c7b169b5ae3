import type { Span } from './model.ts';
import type { Fix } from './problems.ts';
import { STRING_SIGNS } from './strings.ts';

const NOTE = `\\d{1,2}[${STRING_SIGNS}]`;

/** Slips of the typing hand that are common, and what was meant; where two readings are likely, both. Source: common practice. */
const SLIPS: readonly (readonly [pattern: RegExp, ...meant: readonly string[]])[] = [
  // The string before the fret: `B17`.
  [new RegExp(`^([${STRING_SIGNS}])(\\d{1,2})$`), '$2$1'],
  // A slash for a slide, up or down: `9G/11`, `9G\7`.
  [new RegExp(`^(${NOTE})[/\\\\](\\d{1,2})$`), '$1 s$2', '$1 $2'],
  // A dash between two notes: `7G-9G`, `7G-9`.
  [new RegExp(`^(\\d{1,2})([${STRING_SIGNS}])-(\\d{1,2})\\2?$`), '$1$2 $3$2', '$1$2 s$3'],
  [new RegExp(`^(${NOTE})-(${NOTE})$`), '$1 $2'],
];

/** What may have been meant by a word that is not read, the likeliest first; its spans count from the start of the word. */
export function meantBy(word: string): readonly Fix[] {
  const span = { from: 0, to: word.length };
  return SLIPS.flatMap(([pattern, ...meant]) =>
    pattern.test(word) ? meant.map((text) => word.replace(pattern, text)) : [],
  )
    .filter((text, index, all) => all.indexOf(text) === index)
    .map((text) => ({ title: `Write ${text}`, span, text }));
}

/** A mark of a note that stands alone behind it: `15B b1`. */
const ALONE = /^(?:bb?|rr?|pb)[\d.¼½¾>?]*$|^(?:full|half|~~?)$/;

/** Where a group begins or ends, or the next way of playing it. */
const GROUP_SIGN = /[[\]{}]|\/\//;

/** Glues a mark that stands alone to the note before it; none where it is no mark, or no note is right before, or a group ends between. */
export function glued(text: string, { from, to }: Span, before: Span | undefined): readonly Fix[] {
  const word = text.slice(from, to);
  if (!before || !ALONE.test(word) || GROUP_SIGN.test(text.slice(before.to, from))) return [];
  return [{ title: `Put ${word} to the note before`, span: { from: before.to, to }, text: word }];
}
