import { bestPath, topFret, type Guitar } from '../fretboard/index.ts';
import {
  bendHeight,
  mapItems,
  TICKS_PER_QUARTER,
  unroll,
  type EventItem,
  type Phrase,
  type Writable,
  type WrittenNote,
} from '../notation/index.ts';

/** Bends up to here stay bends, whole steps. Our choice. */
const EASY_BEND_STEPS = 1;

/** Notes of a stack that are kept: its lowest and its two highest. Our choice. */
const EASY_STACK = 3;

/** What was made easier, in words for one and for many. */
const CHANGES = {
  grace: ['grace note is left out', 'grace notes are left out'],
  bend: ['wide bend is played as its target fret', 'wide bends are played as their target frets'],
  ornament: [
    'ornament (trill, dip, pinch, rake, tremolo) is left out',
    'ornaments (trills, dips, pinches, rakes, tremolo) are left out',
  ],
  vibrato: ['wide vibrato is narrow', 'wide vibratos are narrow'],
  stack: ['chord keeps its lowest and two highest notes', 'chords keep their lowest and two highest notes'],
  stretch: ['stretch beyond this hand loses a note', 'stretches beyond this hand lose a note'],
  fast: ['note between the eighths is left out', 'notes between the eighths are left out'],
  tap: ['tap is a hammer-on', 'taps are hammer-ons'],
} as const;
type Change = keyof typeof CHANGES;

/** The phrase without what is hard for its own sake; the tune, its bars and its chords stay. */
export function easier(
  phrase: Phrase,
  guitar: Guitar,
): { readonly phrase: Phrase; readonly changes: readonly string[] } {
  const counts = new Map<Change, number>();
  const count = (change: Change) => void counts.set(change, (counts.get(change) ?? 0) + 1);
  const wide = stretched(phrase, guitar);
  const thinned = thinning(phrase);
  let dropped = false;
  const flattened = new Map<number, number>();
  const made = mapItems(phrase, (item) => {
    if (item.kind !== 'event') return item;
    if (item.value === 'grace' || thinned.get(item) === 'drop') {
      count(item.value === 'grace' ? 'grace' : 'fast');
      dropped = true;
      return undefined;
    }
    const event = plainEvent(item, { guitar, count, isWide: wide.has(item), flattened });
    // What it grew from is gone.
    if (dropped) delete event.link;
    dropped = false;
    return thinned.get(item) === 'double' ? { ...event, value: { base: 8, dots: 0 } } : event;
  });
  const changes = [...counts].map(([change, times]) => `${times} ${CHANGES[change][times === 1 ? 0 : 1]}.`);
  return { phrase: soundLinks(made), changes };
}

/** Events wider than the hand. */
function stretched(phrase: Phrase, guitar: Guitar): ReadonlySet<EventItem> {
  const { growth } = bestPath(phrase, guitar, { asWritten: true });
  return new Set(growth.filter(({ spanMm }) => spanMm > guitar.reachMm).map(({ item }) => item));
}

/** Pairs of sixteenths that fill an eighth: the first becomes the eighth, the second goes. */
function thinning(phrase: Phrase): ReadonlyMap<EventItem, 'double' | 'drop'> {
  const found = new Map<EventItem, 'double' | 'drop'>();
  const { events, bars } = unroll(phrase);
  events.forEach(({ item, at, length, bar }, index) => {
    const next = events[index + 1];
    const begin = bars[bar]?.at ?? 0;
    if (!item || !next?.item || item.times > 1 || next.item.times > 1 || item === next.item) return;
    const isPair = [length, next.length].every((ticks) => ticks === TICKS_PER_QUARTER / 4);
    const plain = [item, next.item].every(
      ({ value }) => typeof value === 'object' && value.base === 16 && value.dots === 0,
    );
    if (!isPair || !plain || (at - begin) % (TICKS_PER_QUARTER / 2) !== 0 || found.has(item)) return;
    found.set(item, 'double');
    found.set(next.item, 'drop');
  });
  return found;
}

interface Plainer {
  readonly guitar: Guitar;
  readonly count: (change: Change) => void;
  readonly isWide: boolean;
  /** Strings whose bend is played as its target fret, and where the bend began. */
  readonly flattened: Map<number, number>;
}

const ORNAMENTS = ['rake', 'tremolo', 'rolled'] as const;

function plainEvent(item: EventItem, plainer: Plainer): Writable<EventItem> {
  const { count, isWide } = plainer;
  const event: Writable<EventItem> = { ...item };
  if (item.link === 'tap') {
    event.link = 'hammer';
    count('tap');
  }
  event.marks = item.marks.filter((mark) => {
    const isOrnament = ORNAMENTS.some((one) => one === mark);
    if (isOrnament) count('ornament');
    return !isOrnament;
  });
  if (event.arm) {
    delete event.arm;
    count('ornament');
  }
  event.notes = fewerNotes(item.notes, isWide, count).map((note) => plainNote(note, plainer));
  return event;
}

function fewerNotes(
  notes: readonly WrittenNote[],
  isWide: boolean,
  count: (change: Change) => void,
): readonly WrittenNote[] {
  const inOrder = [...notes].sort((a, b) => b.string - a.string);
  const [lowest] = inOrder;
  if (notes.length > EASY_STACK && lowest) {
    count('stack');
    const kept = [lowest, ...inOrder.slice(1 - EASY_STACK)];
    return notes.filter((note) => kept.includes(note));
  }
  if (!isWide || notes.length < 2) return notes;
  count('stretch');
  // The thicker of the outer notes gives way, so that the tune stays.
  return notes.filter((note) => note !== lowest);
}

function plainNote(note: WrittenNote, { guitar, count, flattened }: Plainer): WrittenNote {
  const begun = flattened.get(note.string);
  // What goes on from a bend that is a fret now is a fret, too.
  if (note.held !== undefined && begun !== undefined)
    return { string: note.string, fret: begun + Math.round(2 * (note.moves?.at(-1)?.steps ?? 0)) };
  if (note.held === undefined) flattened.delete(note.string);
  const plain: Writable<WrittenNote> = { ...note };
  const highest = bendHeight(note);
  const target = (note.fret ?? 0) + Math.round(highest * 2);
  if (highest > EASY_BEND_STEPS && note.fret !== null && target <= topFret(guitar)) {
    delete plain.moves;
    delete plain.preBend;
    delete plain.again;
    plain.fret = target;
    flattened.set(note.string, note.fret);
    count('bend');
  }
  if (note.trill !== undefined || note.harmonic === 'pinch') {
    delete plain.trill;
    if (note.harmonic === 'pinch') delete plain.harmonic;
    count('ornament');
  }
  if (note.vibrato === 'wide') {
    plain.vibrato = 'narrow';
    count('vibrato');
  }
  return plain;
}

/** Slurs that no longer go the way they say are struck instead. */
function soundLinks(phrase: Phrase): Phrase {
  let before: EventItem | undefined;
  return mapItems(phrase, (item) => {
    if (item.kind !== 'event') return item;
    const [from, to] = [before?.notes[0], item.notes[0]];
    before = item;
    if (item.link !== 'hammer' && item.link !== 'pull') return item;
    const rises = (to?.fret ?? 0) - (from?.fret ?? 0);
    const fits = from?.string === to?.string && (item.link === 'hammer' ? rises > 0 : rises < 0);
    if (fits) return item;
    const { link: _, ...struck } = item;
    return struck;
  });
}
