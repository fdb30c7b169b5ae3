import { EVENT_MARKS } from './marks.ts';
import { withItems } from './rewrite.ts';
import { isNest, isPicked, type AlternateItem, type EventItem, type EventMark, type Item } from './model.ts';

/** Strokes that take turns, as far as they are counted. */
export interface Strokes {
  next: AlternateItem['first'];
}

/** The stroke that an event gets where strokes take turns: none where it is not picked, or says its own; that counts as one. */
export function strokeOf(item: EventItem, strokes: Strokes | null): readonly EventMark[] {
  if (!strokes || !isPicked(item)) return [];
  const stroke = strokes.next;
  strokes.next = stroke === 'down' ? 'up' : 'down';
  return item.marks.includes('down') || item.marks.includes('up') ? [] : [stroke];
}

/** What stands in a span of strokes in turn, each event with its own; an event that is struck several times is written so often. */
export function settledStrokes({ items, first }: AlternateItem): readonly Item[] {
  const strokes: Strokes = { next: first };
  const settle = (all: readonly Item[]): readonly Item[] =>
    all.flatMap((item): readonly Item[] => {
      if (isNest(item)) return [withItems(item, settle(item.items))];
      if (item.kind !== 'event') return [item];
      return Array.from({ length: item.times }, () => {
        const marks = [...item.marks, ...strokeOf(item, strokes)];
        return { ...item, times: 1, marks: EVENT_MARKS.filter((mark) => marks.includes(mark)) };
      });
    });
  return settle(items);
}
