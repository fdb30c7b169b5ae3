import { HIGHEST_FRET } from '../pitch/index.ts';
import { movedEvent, type WrittenPlace } from './frets.ts';
import { growsFromBefore, isNest, type EventItem, type Item, type NestItem, type Phrase, type Span } from './model.ts';

/** A change to a text: what replaces a span, and where the selection stands afterwards. */
export interface Edit {
  readonly span: Span;
  readonly text: string;
  readonly select: Span;
}

/** An edit, or why it cannot be made, in words. */
export type Edited = { readonly ok: true; readonly edit: Edit } | { readonly ok: false; readonly why: string };

/** An event with the nests around it, outermost first. */
export interface PlacedItem {
  readonly item: EventItem;
  readonly around: readonly NestItem[];
}

/** The events of a phrase in the order of the text, each with the brackets and braces around it. */
export function eventsOf(phrase: Pick<Phrase, 'items'>): readonly PlacedItem[] {
  const events: PlacedItem[] = [];
  collect(phrase.items, [], events);
  return events;
}

function collect(items: readonly Item[], around: readonly NestItem[], events: PlacedItem[]): void {
  for (const item of items)
    if (isNest(item)) collect(item.items, [...around, item], events);
    else if (item.kind === 'event') events.push({ item, around });
}

/** The events a selection touches; with an empty selection the one at or right before the caret. */
export function eventsIn(phrase: Phrase, { from, to }: Span): readonly PlacedItem[] {
  const events = eventsOf(phrase);
  const before = events.findLast(({ item }) => item.span.from <= from);
  if (from === to) return before ? [before] : [];
  return events.filter(({ item }) => item.span.from < to && item.span.to > from);
}

/** Moves the frets of the selected events up (or down) by so many, on the strings they are on. */
export function transpose(text: string, phrase: Phrase, selection: Span, frets: number): Edited {
  const events = eventsIn(phrase, selection);
  const [first, last] = [events[0]?.item.span, events.at(-1)?.item.span];
  if (!first || !last) return { ok: false, why: 'Select the notes to move.' };
  let moved = '';
  let at = first.from;
  for (const { item } of events) {
    moved += text.slice(at, item.span.from);
    at = item.span.to;
    const typed = text.slice(item.span.from, at);
    const strings = item.notes.map(({ string }) => string);
    const there = movedEvent({ typed, strings }, { place: (place) => alongString(place, frets), semitones: frets });
    if (there === undefined) {
      const side = frets < 0 ? 'below the open string' : `beyond fret ${HIGHEST_FRET}`;
      return { ok: false, why: `“${typed}” would go ${side}; nothing was moved.` };
    }
    moved += there;
  }
  const span = { from: first.from, to: last.to };
  return { ok: true, edit: { span, text: moved, select: { from: span.from, to: span.from + moved.length } } };
}

/** A place so many frets further on its string; undefined beyond the neck. A dead note keeps its cross. */
function alongString({ string, fret }: WrittenPlace, frets: number): WrittenPlace | undefined {
  if (fret === null) return { string, fret };
  const there = fret + frets;
  return there >= 0 && there <= HIGHEST_FRET ? { string, fret: there } : undefined;
}

const MUTED = { open: '{m: ', close: ' }' } as const;

/** Puts the selected events under a palm mute; where all of them stand under one already, takes it away. */
export function togglePalmMute(text: string, phrase: Phrase, selection: Span): Edited {
  const events = eventsIn(phrase, selection);
  const [first, last] = [events[0], events.at(-1)];
  if (!first || !last) return { ok: false, why: 'Select the notes to mute.' };
  const mute = first.around.findLast((nest) => nest.kind === 'marked' && nest.marks.join() === 'palm-mute');
  if (mute && events.every(({ around }) => around.includes(mute))) return unwrap(text, mute);
  return wrap(text, first, last, MUTED);
}

/** Puts the selected events into a repeat that is played twice. */
export function wrapInRepeat(text: string, phrase: Phrase, selection: Span): Edited {
  const events = eventsIn(phrase, selection);
  const [first, last] = [events[0], events.at(-1)];
  if (!first || !last) return { ok: false, why: 'Select the notes to repeat.' };
  return wrap(text, first, last, { open: '[ ', close: ' ]2' });
}

function wrap(
  text: string,
  first: PlacedItem,
  last: PlacedItem,
  { open, close }: { open: string; close: string },
): Edited {
  if (first.around.at(-1) !== last.around.at(-1))
    return { ok: false, why: 'The selection begins and ends in different brackets.' };
  const span = { from: first.item.span.from, to: last.item.span.to };
  const inner = text.slice(span.from, span.to);
  const from = span.from + open.length;
  return { ok: true, edit: { span, text: open + inner + close, select: { from, to: from + inner.length } } };
}

function unwrap(text: string, { span }: NestItem): Edited {
  const whole = text.slice(span.from, span.to);
  const head = /^\{[^:]*:\s*/.exec(whole)?.[0].length ?? 0;
  const inner = whole.slice(head).replace(/\s*\}$/, '');
  return { ok: true, edit: { span, text: inner, select: { from: span.from, to: span.from + inner.length } } };
}

/** Changes places of the two ways around the caret: the one that is played becomes the other. */
export function swapWays(text: string, phrase: Phrase, at: number): Edited {
  const nests = eventsOf(phrase).flatMap(({ around }) => around);
  const either = nests.findLast((nest) => nest.kind === 'either' && nest.span.from <= at && at <= nest.span.to);
  if (either?.kind !== 'either') return { ok: false, why: 'Stand inside {either: … // … } to swap its ways.' };
  const [first, second] = either.items;
  if (!first || !second) return { ok: false, why: 'There is only one way here.' };
  const [one, other] = [first.span, second.span].map(({ from, to }) => text.slice(from, to).trim());
  const span = { from: first.span.from, to: second.span.to };
  const swapped = ` ${other ?? ''} // ${one ?? ''} `;
  return { ok: true, edit: { span, text: swapped, select: { from: at, to: at } } };
}

/** Types something of its own at the caret: with a space before and after where one is needed. */
export function insertItem(text: string, at: number, item: string): Edit {
  const before = at > 0 && !/\s/.test(text.charAt(at - 1)) ? ' ' : '';
  const after = /\s/.test(text.charAt(at)) ? '' : ' ';
  const caret = at + before.length + item.length + 1;
  return { span: { from: at, to: at }, text: before + item + after, select: { from: caret, to: caret } };
}

/** The event at or before the caret once more, behind it. A glued chain is repeated as it stands. */
export function repeatEvent(text: string, phrase: Phrase, at: number): Edited {
  const found = eventsIn(phrase, { from: at, to: at })[0];
  if (!found) return { ok: false, why: 'There is no event before the caret.' };
  const { item } = found;
  const isLinked = growsFromBefore(item);
  let from = item.span.from;
  // A linked event repeats together with what it grows from, or it would grow from itself.
  if (isLinked) {
    const events = eventsOf(phrase);
    const index = events.indexOf(events.find((one) => one.item === item) ?? found);
    const root = events.slice(0, index).findLast((one) => !growsFromBefore(one.item));
    from = root?.item.span.from ?? from;
  }
  return { ok: true, edit: insertItem(text, item.span.to, text.slice(from, item.span.to)) };
}

/** Adds a note where the neck was touched: a new event at the caret, or one more string of the event before it. */
export function touchNeck(
  text: string,
  phrase: Phrase,
  at: number,
  touch: { readonly note: string; readonly stack: boolean },
): Edit {
  const before = touch.stack ? eventsIn(phrase, { from: at, to: at })[0]?.item : undefined;
  if (!before) return insertItem(text, at, touch.note);
  const { from, to } = before.span;
  const typed = text.slice(from, to);
  // The stack ends where the value or the count of the event begins.
  const tail = /(?:\)|\/[\d.?gt]+|%\d+)+$/.exec(typed)?.[0] ?? '';
  const head = typed.slice(0, typed.length - tail.length);
  const joined = `${head}+${touch.note}${tail}`;
  const caret = from + joined.length;
  return { span: { from, to }, text: joined, select: { from: caret, to: caret } };
}
