import { isNest, type EventItem, type Item, type Phrase } from './model.ts';
import { writeEvent } from './write.ts';

/** A phrase with each item replaced by what `change` makes of it, inner items before their nest; none takes it out. */
export function mapItems(phrase: Phrase, change: (item: Item) => Item | readonly Item[] | undefined): Phrase {
  const walk = (items: readonly Item[]): readonly Item[] =>
    items.flatMap((item) => change(isNest(item) ? { ...item, items: walk(item.items) } : item) ?? []);
  return { ...phrase, items: walk(phrase.items) };
}

/** A phrase with each event replaced by what `change` makes of it; undefined takes the event out. */
export function mapEvents(phrase: Phrase, change: (event: EventItem) => Item | undefined): Phrase {
  return mapItems(phrase, (item) => (item.kind === 'event' ? change(item) : item));
}

/** The value typed behind an event, `/16.`; a grace is written by the event itself. */
const TYPED_VALUE = /\/[\d?][\d.t]*/;

/**
 * The text with some of its events written anew, all else as it was typed: comments, line breaks, values and brackets stay.
 * What is glued to an event that is written anew is set apart by a space. Linear in the text.
 */
export function rewriteEvents(text: string, changes: ReadonlyMap<EventItem, EventItem>): string {
  const inOrder = [...changes].sort(([a], [b]) => a.span.from - b.span.from);
  let written = '';
  let at = 0;
  for (const [{ span }, event] of inOrder) {
    written += text.slice(at, span.from);
    if (/[^\s[{(]$/.test(written)) written += ' ';
    const typed = text.slice(span.from, span.to);
    const value = TYPED_VALUE.exec(typed)?.[0] ?? '';
    const strings = typed.includes('@') ? 'numbers' : 'letters';
    written += writeEvent(event, { strings }).replace(/(?=%\d+$)|$/, value);
    at = span.to;
  }
  return written + text.slice(at);
}
