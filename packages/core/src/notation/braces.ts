import { HIGHEST_FRET } from '../pitch/index.ts';
import { EVENT_MARKS, markOfCode } from './marks.ts';
import { isNest, type EventItem, type EventMark, type Item, type PassRange, type Span } from './model.ts';
import { readSteps } from './eventParts.ts';
import { NOTE_MARK_RECORDS } from './noteMarks.ts';
import { withItems } from './rewrite.ts';
import { surenessOf } from './surenesses.ts';

/** What becomes of the items inside brackets or braces. */
export type Wrap = (items: readonly Item[], span: Span) => readonly Item[];

/** What a brace says, word by word, the first outermost; undefined where one of them says nothing known. */
export function readSpans(head: string, offNeck: (fret: number) => void): Wrap | undefined {
  const words = head.split(/\s+/);
  const marks = [...new Set(words.flatMap((word) => markOfWord(word) ?? []))];
  const others = words.filter((word) => !markOfWord(word)).map((word) => readSpan(word, offNeck));
  if (others.some((wrap) => wrap === undefined)) return undefined;
  const marked: Wrap = (items, span) => [{ kind: 'marked', span, items, marks }];
  const wraps = [...(marks.length > 0 ? [marked] : []), ...others.flatMap((wrap) => wrap ?? [])];
  return (items, span) => wraps.reduceRight((inner, wrap) => wrap(inner, span), items);
}

function readSpan(word: string, offNeck: (fret: number) => void): Wrap | undefined {
  const sureness = surenessOf(word);
  if (sureness) return (items, span) => [{ kind: 'sure', span, items, sureness }];
  const barre = /^bar(\d{1,2})$/.exec(word);
  if (barre) return barreWrap(Number(barre[1]), offNeck);
  if (word === 'alt' || word === 'altu') {
    const first = word === 'alt' ? 'down' : 'up';
    return (items, span) => [{ kind: 'alternate', span, items, first }];
  }
  if (word === 'fade' || word === 'grow') {
    const to = word === 'fade' ? 'softer' : 'louder';
    return (items, span) => [{ kind: 'swell', span, items, to }];
  }
  const arm = /^(?:w[+-][\d.¼½¾]*)+$/.test(word) ? readArm(word) : [];
  if (arm.length > 0) return (items) => eachEvent(items, (event) => ({ arm, ...event }));
  if (word === '~' || word === '~~') return (items) => shaken(items, word === '~~' ? 'wide' : 'narrow');
  return undefined;
}

function barreWrap(fret: number, offNeck: (fret: number) => void): Wrap {
  if (fret <= HIGHEST_FRET) return (items, span) => [{ kind: 'barre', span, items, fret }];
  offNeck(fret);
  return (items) => items;
}

/** Quiet as a whole. */
export const quiet: Wrap = (items, span) => [{ kind: 'marked', span, items, marks: ['quiet'] }];

/** Events with the mark of quiet on each. */
export function hushed(items: readonly Item[]): readonly Item[] {
  return items.map((item) => {
    if (item.kind !== 'event' || item.marks.includes('quiet')) return item;
    return { ...item, marks: EVENT_MARKS.filter((mark) => mark === 'quiet' || item.marks.includes(mark)) };
  });
}

/** The passes of a brace, `1-3`, `last`; undefined where it says something else. */
export function readPasses(head: string): readonly PassRange[] | undefined {
  const ranges: PassRange[] = [];
  for (const part of head.split(',')) {
    const match = /^\s*(?:(last)|(\d{1,3})(?:-(\d{1,3}))?)\s*$/.exec(part);
    if (!match) return undefined;
    const from = Number(match[2]);
    const to = Number(match[3] ?? match[2]);
    if (match[1]) ranges.push('last');
    else if (from < 1 || to < from) return undefined;
    else ranges.push([from, to]);
  }
  return ranges;
}

/** The mark a word of a brace stands for: its code, or what has none by its name. */
function markOfWord(word: string): EventMark | undefined {
  return word === 'quiet' ? 'quiet' : markOfCode(word);
}

/** Marks behind one another without a space; undefined for anything else. */
export function readGluedMarks(text: string): readonly EventMark[] | undefined {
  const marks: EventMark[] = [];
  for (let at = 0; at < text.length;) {
    const length = [2, 1].find((one) => markOfCode(text.slice(at, at + one)));
    const mark = length && markOfCode(text.slice(at, at + length));
    if (!length || !mark) return undefined;
    marks.push(mark);
    at += length;
  }
  return [...new Set(marks)];
}

/** Items whose notes all have vibrato, but those that have one of their own. */
function shaken(items: readonly Item[], vibrato: 'narrow' | 'wide'): readonly Item[] {
  return eachEvent(items, (event) => ({ ...event, notes: event.notes.map((note) => ({ vibrato, ...note })) }));
}

function eachEvent(items: readonly Item[], change: (event: EventItem) => EventItem): readonly Item[] {
  return items.map((item) => {
    if (isNest(item)) return withItems(item, eachEvent(item.items, change));
    return item.kind === 'event' ? change(item) : item;
  });
}

/** Moves of the tremolo arm, `w-1w-.5`, whole steps. */
function readArm(word: string): readonly number[] {
  return Array.from(word.matchAll(ARM), ([, sign, size]) => (readSteps(size) ?? 1) * (sign === '-' ? -1 : 1));
}

const ARM = new RegExp(NOTE_MARK_RECORDS.arm.pattern, 'g');

/** What closes a bracket that was left open, at the end of a text: behind a comment on a line of its own. */
export function closerAt(text: string, isRepeat: boolean): string {
  const isInComment = /(^|\s)#[^\n]*$/.test(text.slice(-400));
  return `${isInComment ? '\n' : ' '}${isRepeat ? ']2' : '}'}`;
}
