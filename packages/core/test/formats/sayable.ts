import {
  inRound,
  isNest,
  mapItems,
  playOut,
  STARTING_VALUE,
  withItems,
  type EventItem,
  type Item,
  type NoteValue,
  type Phrase,
  type WrittenNote,
} from '../../src/notation/index.ts';
import { GUITAR } from './songs.ts';

/**
 * A phrase, as in the one round of its section, without what other formats cannot say: that the size of a bend is open, what a note is claimed to be, that only the order is
 * known, hairpins and words over a repeat, and a grace note that nothing follows.
 * Undefined where a note has no place, or a bend goes on.
 */
export function sayable(phrase: Phrase): Phrase | undefined {
  const plainly = mapItems(inRound(phrase, { round: 1, of: 1 }), (item) => {
    if (item.kind === 'swell') return item.items;
    if (item.kind === 'repeat' || item.kind === 'passes') return { ...item, items: unlinked(item.items) };
    if (item.kind === 'words') return undefined;
    if (item.kind === 'event' && item.value === 'grace') return undefined;
    if (item.kind === 'event') return { ...item, value: timed(item.value), notes: item.notes.map(plain) };
    return 'value' in item ? { ...item, value: timed(item.value) } : item;
  });
  // Notes without a place make no sound, and are not written; a bend that stands may end where a repeat is written out.
  const isSaid = playOut(plainly, GUITAR).every(({ notes }) => notes.every((note) => !note.guess && !isStanding(note)));
  return isSaid ? plainly : undefined;
}

/** Items whose first event is not linked to what stands before them, which is another on the next pass. */
function unlinked(items: readonly Item[]): readonly Item[] {
  const first = items.findIndex((item) => item.kind === 'event' || isNest(item));
  return items.map((item, index) => {
    if (index !== first) return item;
    if (isNest(item)) return withItems(item, unlinked(item.items));
    const { link: _, ...rest } = item as EventItem;
    return rest;
  });
}

function isStanding({ held, again }: Pick<WrittenNote, 'held' | 'again'>): boolean {
  return held !== undefined || again !== undefined;
}

function timed(value: NoteValue): NoteValue {
  return value === 'untimed' ? STARTING_VALUE : value;
}

function plain({ claim: _, sought, moves, ...note }: WrittenNote): WrittenNote {
  const sized = moves?.map(({ unsized: __, upTo: ___, ...move }) => move);
  const guess = sought?.by === 'string' || sought?.by === 'fret' ? { sought } : {};
  return { ...note, ...guess, ...(sized && { moves: sized }) };
}
