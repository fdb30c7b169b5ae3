import { HighlightStyle, StreamLanguage, syntaxHighlighting, type StringStream } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import { EVENT_PARTS, SAID_FIRST_PATTERN, type EventPart } from '@jam-ledger/core/notation';
import { tags } from '@lezer/highlight';

/** What a stretch of the shorthand means, and the tag that stands for it in the editor. */
const MEANINGS = {
  value: tags.unit,
  string: tags.variableName,
  link: tags.keyword,
  bend: tags.operator,
  mark: tags.annotation,
  bar: tags.separator,
  bracket: tags.bracket,
  chord: tags.typeName,
  words: tags.string,
  aside: tags.comment,
  setting: tags.meta,
  silence: tags.null,
} as const;

/** Frets, the most frequent part, are the plain text: a span around each would cost at every keystroke. */
type Meaning = keyof typeof MEANINGS | 'fret';

/** Patterns that are tried in order at one place, as one; and what each of them means. */
interface Patterns {
  readonly pattern: RegExp;
  readonly meanings: readonly Meaning[];
}

/** A line is read anew with every key; one pattern reads it several times faster than one after another. */
function together(table: readonly (readonly [pattern: RegExp, Meaning])[]): Patterns {
  const sources = table.map(([{ source }], at) => `(?<${group(at)}>${source})`);
  return { pattern: new RegExp(sources.join('|'), 'y'), meanings: table.map(([, meaning]) => meaning) };
}

const group = (at: number) => `is${at}`;

/** Items that stand alone; tried only where an item may begin. */
const ITEMS = together([
  [/#.*/, 'aside'],
  [/:[^\s{}[\]|"]*/, 'chord'],
  [/\/(?:\?|\d+\.{0,2}(?:t\d*)?)(?=\s|$)/, 'value'],
  [/(?:pickup|(?:meter|tempo|feel|box)=\S*)(?=\s|$)/, 'setting'],
  [/-(?=\/|_)|[-_](?=\s|$|[|\]}])/, 'silence'],
  [new RegExp(`${SAID_FIRST_PATTERN}+(?=[\\dx<>'^?])`), 'mark'],
  [/@\d+:[\d.]+(?=\s|$)/, 'aside'],
  [/\/\/(?=\s|$)/, 'bracket'],
]);

/** Signs that may stand anywhere. */
const SIGNS = together([
  [/"[^"]*"?/, 'words'],
  [/\|/, 'bar'],
  [/\[|\](?:x(?=\d))?\d*\+?/, 'bracket'],
  [/\{[^{}[\]|":]*:|\}/, 'bracket'],
]);

/** How each part of an event is shown. */
const MEANING_OF_PART: Readonly<Record<EventPart, Meaning>> = {
  preBend: 'bend',
  bend: 'bend',
  release: 'bend',
  again: 'bend',
  arm: 'bend',
  link: 'link',
  far: 'link',
  trill: 'mark',
  vibrato: 'mark',
  harmonic: 'mark',
  finger: 'mark',
  claim: 'aside',
  mark: 'mark',
  slideOut: 'mark',
  value: 'value',
  times: 'value',
  numbers: 'string',
  letters: 'string',
  name: 'fret',
  degree: 'fret',
  unsaid: 'string',
  unsaidFret: 'string',
  surely: 'bracket',
  space: 'fret',
  fret: 'fret',
};

/** Parts of an event as the reader reads them, and what is between them. */
const PARTS = together([
  ...EVENT_PARTS.map(([part, pattern]) => [new RegExp(pattern), MEANING_OF_PART[part]] as const),
  [/[()+]/, 'mark'],
  [/_/, 'silence'],
]);

function match(stream: StringStream, { pattern, meanings }: Patterns): Meaning | undefined {
  pattern.lastIndex = stream.pos;
  const groups = pattern.exec(stream.string)?.groups;
  if (!groups) return undefined;
  stream.pos = pattern.lastIndex;
  return meanings.find((_, at) => groups[group(at)] !== undefined);
}

/** A longer line is shown without colours; it is no phrase, and colouring it would hold the page up. Our choice. */
const LONGEST_LINE = 20_000;

const language = StreamLanguage.define<{ readonly nothing?: never }>({
  name: 'shorthand',
  startState: () => ({}),
  token(stream) {
    if (stream.string.length > LONGEST_LINE) {
      stream.skipToEnd();
      return null;
    }
    if (stream.eatSpace()) return null;
    const begins = stream.pos === 0 || /[\s{}[\]|:]/.test(stream.string.charAt(stream.pos - 1));
    const meaning = match(stream, SIGNS) ?? (begins ? match(stream, ITEMS) : undefined) ?? match(stream, PARTS);
    if (meaning === undefined) stream.next();
    return meaning === 'fret' ? null : (meaning ?? null);
  },
  tokenTable: MEANINGS,
  languageData: { closeBrackets: { brackets: ['(', '[', '{', '"'] }, commentTokens: { line: '#' } },
});

/** The shorthand, highlighted by what each part means; the colours stand in the theme, as `.sh-…` classes. */
export function shorthandLanguage(): Extension {
  const styles = Object.entries(MEANINGS).map(([meaning, tag]) => ({ tag, class: `sh-${meaning}` }));
  return [language, syntaxHighlighting(HighlightStyle.define(styles))];
}
