import type { Problem } from '../notation/index.ts';

/** So much of what could not be read is quoted, characters. Our choice. */
const MAX_QUOTED = 24;

/** What of a text was skipped when it was read, so that it is in nothing made from it; a sentence each, in the order of the text. */
export function sayUnread(text: string, problems: readonly Problem[]): readonly string[] {
  // What is skipped is an error, what is kept is a warning.
  return problems
    .filter(({ severity, span }) => severity === 'error' && span.to > span.from)
    .map(({ span }) => {
      const skipped = text.slice(span.from, Math.min(span.to, span.from + MAX_QUOTED));
      return `“${skipped}${span.to - span.from > MAX_QUOTED ? '…' : ''}” could not be read; look whether it is missing here.`;
    });
}
