import type { Span } from './model.ts';

/** A piece of the text that the reader decides about as a whole. */
export interface Token {
  readonly kind:
    | 'word'
    | 'bar'
    | 'repeat-open'
    | 'repeat-close'
    | 'brace-open'
    | 'brace-close'
    | 'harmony'
    | 'words'
    | 'words-unclosed'
    | 'brace-bare';
  /** The text that matters: a brace's head, the words inside quotes, what follows `]`, or the whole. */
  readonly text: string;
  readonly span: Span;
}

/** Longest head of a brace, `{likely:`; anything longer is no head. Our choice. */
const LONGEST_HEAD = 60;

const SPACE = /\s+/y;
const COMMENT = /#[^\n]*/y;
const WORDS = /"([^"\n]*)("?)/y;
const REPEAT_CLOSE = /\](?:x(?=\d))?(\d*\+?)/y;
const BRACE_OPEN = new RegExp(`\\{([^{}\\[\\]|":\\n]{0,${LONGEST_HEAD}}):`, 'y');
const HARMONY = /:[^\s{}[\]|"]*/y;
// A brace behind a plus is of one note of a stack, and belongs to its word.
const WORD = /(?:[^\s{}[\]|"]|(?<=\+)\{\w{1,12}:[^{}[\]|"\n]{0,40}\})+/y;

/** Splits a shorthand text into tokens, lazily, so that a reader can stop early. Linear; never throws. */
export function* scan(text: string): Generator<Token, void, undefined> {
  let at = 0;
  const take = (pattern: RegExp): RegExpExecArray | null => {
    pattern.lastIndex = at;
    return pattern.exec(text);
  };
  while (at < text.length) {
    const skipped = take(SPACE) ?? take(COMMENT);
    if (skipped) {
      at += skipped[0].length;
      continue;
    }
    const { kind, inner, length } = next(text.charAt(at), take);
    yield { kind, text: inner, span: { from: at, to: at + length } };
    at += length;
  }
}

interface Found {
  readonly kind: Token['kind'];
  readonly inner: string;
  readonly length: number;
}

function next(first: string, take: (pattern: RegExp) => RegExpExecArray | null): Found {
  switch (first) {
    case '|':
      return { kind: 'bar', inner: '|', length: 1 };
    case '[':
      return { kind: 'repeat-open', inner: '[', length: 1 };
    case '}':
      return { kind: 'brace-close', inner: '}', length: 1 };
    case ']':
      return found('repeat-close', take(REPEAT_CLOSE), 1);
    case '{': {
      const open = take(BRACE_OPEN);
      return open ? found('brace-open', open, 1) : { kind: 'brace-bare', inner: '{', length: 1 };
    }
    case '"': {
      const words = take(WORDS);
      return found(words?.[2] === '"' ? 'words' : 'words-unclosed', words, 1);
    }
    case ':':
      return found('harmony', take(HARMONY), 0);
    default:
      return found('word', take(WORD), 0);
  }
}

function found(kind: Token['kind'], match: RegExpExecArray | null, group: number): Found {
  return { kind, inner: match?.[group] ?? '', length: Math.max(1, match?.[0].length ?? 1) };
}
