import { eventsOf } from './edit.ts';
import { isNest, type EventItem, type Item, type NestItem, type Phrase } from './model.ts';
import { FRONT_PATTERN } from './marks.ts';
import { letterOfString, STRING_SIGNS } from './strings.ts';
import { writeEvent } from './write.ts';

/** A phrase with each item replaced by what `change` makes of it, inner items before their nest; none takes it out. */
export function mapItems(phrase: Phrase, change: (item: Item) => Item | readonly Item[] | undefined): Phrase {
  const walk = (items: readonly Item[]): readonly Item[] =>
    items.flatMap((item) => change(isNest(item) ? withItems(item, walk(item.items)) : item) ?? []);
  return { ...phrase, items: walk(phrase.items) };
}

/** A nest with other items inside. */
export function withItems(nest: NestItem, items: readonly Item[]): NestItem {
  if (nest.kind === 'either') return { ...nest, items: items.filter((item) => item.kind === 'way') };
  return { ...nest, items };
}

/** A phrase with each event replaced by what `change` makes of it; undefined takes the event out. */
export function mapEvents(phrase: Phrase, change: (event: EventItem) => Item | undefined): Phrase {
  return mapItems(phrase, (item) => (item.kind === 'event' ? change(item) : item));
}

/** The value typed behind an event, `/16.`; a grace is written by the event itself. */
const TYPED_VALUE = /\/[\d?][\d.t]*/;

/**
 * The text with some of its events written anew, all else as it was typed: comments, line breaks, values and brackets stay.
 * What is glued to an event that is written anew is set apart by a space; a fret without a string keeps the one it lay on.
 *
 * @param read reads a text as this one was read
 */
export function rewriteEvents(
  text: string,
  changes: ReadonlyMap<EventItem, EventItem>,
  read: (text: string) => Phrase,
): string {
  const inOrder = [...changes].sort(([a], [b]) => a.span.from - b.span.from);
  let written = '';
  let at = 0;
  for (const [{ span }, event] of inOrder) {
    written += text.slice(at, span.from);
    if (/[^\s[{(]/.test(written.slice(-1))) written += ' ';
    const typed = text.slice(span.from, span.to);
    const value = TYPED_VALUE.exec(typed)?.[0] ?? '';
    const strings = typed.includes('@') ? 'numbers' : 'letters';
    written += writeEvent(event, { strings }).replace(/(?=%\d+$)|$/, value);
    at = span.to;
  }
  const after = written + text.slice(at);
  return inOrder.every(([one, other]) => isOnSame(one.notes, other.notes)) ? after : keepStrings(text, after, read);
}

/** The text with those events written anew that are others in a phrase made of its own, as moved over the neck; all else as it was typed. */
export function rewriteMoved(text: string, before: Phrase, after: Phrase, read: (text: string) => Phrase): string {
  const now = eventsOf(after);
  const changes = new Map<EventItem, EventItem>();
  eventsOf(before).forEach(({ item }, at) => {
    const moved = now[at]?.item;
    if (moved && moved !== item) changes.set(item, moved);
  });
  return rewriteEvents(text, changes, read);
}

/** A fret without a string, at the beginning of an event. */
const BARE_PATTERN = `${FRONT_PATTERN}(?:\\d+|x)(?![\\d@${STRING_SIGNS}])`;
const BARE = new RegExp(`^${BARE_PATTERN}`);

const BARE_SOMEWHERE = new RegExp(`(?:^|[\\s{[(])${BARE_PATTERN}`);

/** The text that was looked through last: all fixes of a phrase ask about the same. */
let looked = { text: '', mayBeBare: false };

/** Whether a text may hold such a fret; comments and repeats are taken for one, too. */
function mayBeBare(text: string): boolean {
  if (text !== looked.text) looked = { text, mayBeBare: BARE_SOMEWHERE.test(text) };
  return looked.mayBeBare;
}

/** A text that came of another by a change, with the string written out on frets that would have come to lie on another by it. */
export function keepStrings(before: string, after: string, read: (text: string) => Phrase): string {
  if (!mayBeBare(before)) return after;
  const old = eventsOf(read(before));
  const now = eventsOf(read(after));
  // Events are told apart from the end where there are not as many as before: a change is rather short.
  const shift = now.length - old.length;
  let isKept = false;
  let written = '';
  let at = 0;
  now.forEach(({ item: { span, notes } }, index) => {
    const was = old[index - shift]?.item;
    const typed = after.slice(span.from, span.to);
    if (!BARE.test(typed)) {
      isKept = false;
      return;
    }
    if (isKept || !was || before.slice(was.span.from, was.span.to) !== typed || isOnSame(was.notes, notes)) return;
    const end = span.from + (BARE.exec(typed)?.[0].length ?? 0);
    const names = was.notes.map(({ string }) => letterOfString(string));
    written +=
      after.slice(at, end) +
      (names.includes(undefined) ? `@${was.notes.map(({ string }) => string).join('')}` : names.join(''));
    at = end;
    // Those behind it follow it.
    isKept = true;
  });
  return written + after.slice(at);
}

function isOnSame(some: EventItem['notes'], others: EventItem['notes']): boolean {
  return some.length === others.length && some.every(({ string }, index) => string === others[index]?.string);
}
