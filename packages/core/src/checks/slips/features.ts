import { chromaOf } from '../../harmony/index.ts';
import { hasMinorThird, scaleOfKey, tonicOf, type Key } from '../../pitch/index.ts';
import type { Line, LineNote } from './line.ts';
import type { Reread } from './readings.ts';

/** What speaks against a note where it stands; less is likelier. */
export const FEATURES = [
  'key',
  'apart',
  'apart on both sides',
  'out of reach',
  'out of the box',
  'open far from open',
  'new place',
  'new figure',
  'unison missed',
  'new shape',
  'wide stack',
  'rub in a stack',
  'high',
  'leap',
] as const;
/** Those that are told soonest, and all that can speak for a note. */
export const FIRST_FEATURES = ['key', 'new place', 'new figure', 'unison missed'] as const;
/** A number for each of the `FEATURES`, in their order. */
export type FeatureValues = readonly number[];

/** So many events to each side are what a note is near to or far from; a thumb comes back to its string within them. Our choice. */
const NEAR_EVENTS = 3;
/** So many fretted events to each side make the box a note is played in. Source: common practice (a hand’s position). */
const BOX_EVENTS = 4;
/** What is left of the cost of a chromatic note that only passes. Our choice. */
const PASSING = 0.25;
/** Frets under a hand that stays. Source: common practice. */
const BOX_FRETS = 4;
/** So many events to each side are looked at for figures and open strings. Our choice. */
const FAR_EVENTS = 64;
const OPEN_EVENTS = 8;

/** A phrase with all that the features of its notes are computed from. */
export class Surroundings {
  readonly #line: Line;
  readonly #scale: ReadonlySet<number> | undefined;
  readonly #grey: ReadonlySet<number>;
  /** How often each pitch class sounds. */
  readonly #chromas = new Map<number, number>();
  /** A number for each place. */
  readonly #numbers = new Map<number | string, number>();
  /** Events of each place by its number, of each figure by those of both its places, and of each shape by its text. */
  readonly #seen = new Map<number | string, number[]>();

  /** Notes of each event as written, and the number of its place. */
  readonly #written: readonly (readonly LineNote[])[];
  readonly #places: readonly number[];
  /** The box around each event, as written. */
  readonly #boxes: (readonly [before: Box, after: Box])[] = [];
  /** Whether an open string sounds near an event, by event and string. */
  readonly #pedals = new Map<number, boolean>();
  /** The reading laid over the line last; several of its notes are asked about one after another. */
  #last = AS_WRITTEN;

  /** @param key the key that notes are compared with; undefined where it is open or in doubt */
  constructor(line: Line, key: Key | undefined) {
    this.#line = line;
    this.#written = line.events.map((indices) => indices.flatMap((index) => line.notes[index] ?? []));
    this.#places = this.#written.map((notes) => {
      const place = placeOf(notes);
      const number = this.#numbers.get(place) ?? this.#numbers.size + 1;
      this.#numbers.set(place, number);
      return number;
    });
    this.#scale = key && scaleOfKey(key);
    this.#grey = new Set(key && greyOf(key));
    for (const note of line.notes) {
      const chroma = chromaOf(note.midi);
      this.#chromas.set(chroma, (this.#chromas.get(chroma) ?? 0) + 1);
    }
    this.#places.forEach((place, event) => {
      this.#remember(place, event);
      this.#remember(figureOf(this.#places[event - 1] ?? NOWHERE, place), event);
      const shape = this.#shapeText(event, AS_WRITTEN);
      if (shape !== '') this.#remember(shape, event);
    });
  }

  /** What speaks against a note, all others as written but for `changes`. */
  featuresOf(index: number, changes: ReadonlyMap<number, Reread>): FeatureValues {
    const laid = this.#lay(changes);
    const note = this.#line.notes[index];
    if (!note) return FEATURES.map(() => 0);
    const { before, after } = this.#distances(note, laid);
    const box = this.#box(note, laid);
    const stack = this.#stack(note, laid);
    const read = laid.changes.get(index) ?? note;
    return [
      this.#key(note, laid),
      Math.min(before.apart, after.apart),
      Math.max(before.apart, after.apart),
      Math.min(box.before, box.after),
      box.around,
      this.#openFar(note, read),
      this.#isKnown(this.#place(note.event, laid), note.event) ? 0 : 1,
      this.#newFigures(note.event, laid),
      this.#unison(note, laid),
      stack.isNew,
      stack.wide,
      stack.rub,
      Math.max(0, read.fret - 17) / 5,
      Math.max(0, Math.min(before.leap, after.leap) - 12) / 12,
    ];
  }

  /** Of what speaks against a note the `FIRST_FEATURES`, in their order. */
  firstOf(index: number, changes: ReadonlyMap<number, Reread>): FeatureValues {
    const note = this.#line.notes[index];
    if (!note) return FIRST_FEATURES.map(() => 0);
    const laid = this.#lay(changes);
    return [
      this.#key(note, laid),
      this.#isKnown(this.#place(note.event, laid), note.event) ? 0 : 1,
      this.#newFigures(note.event, laid),
      this.#unison(note, laid),
    ];
  }

  #remember(what: number | string, event: number): void {
    const known = this.#seen.get(what);
    if (known) known.push(event);
    else this.#seen.set(what, [event]);
  }

  /** Whether a place, figure or shape stands at another event not too far away. */
  #isKnown(what: number | string, event: number): boolean {
    const places = this.#seen.get(what);
    if (!places) return false;
    // The first place that is not before the event; a phrase may say the same thousands of times.
    let [from, to] = [0, places.length];
    while (from < to) {
      const middle = (from + to) >> 1;
      if ((places[middle] ?? 0) < event) from = middle + 1;
      else to = middle;
    }
    const next = places[from] === event ? places[from + 1] : places[from];
    return event - (places[from - 1] ?? -Infinity) <= FAR_EVENTS || (next ?? Infinity) - event <= FAR_EVENTS;
  }

  /** Lays a reading over the line. */
  #lay(changes: ReadonlyMap<number, Reread>): Laid {
    if (changes.size === 0) return AS_WRITTEN;
    if (this.#last.changes === changes) return this.#last;
    const events = new Map<number, LaidEvent>();
    for (const index of changes.keys()) {
      const event = this.#line.notes[index]?.event ?? -1;
      const notes = (this.#written[event] ?? NO_NOTES).map((note) => changes.get(note.index) ?? note);
      events.set(event, { notes, place: this.#numbers.get(placeOf(notes)) ?? ELSEWHERE });
    }
    this.#last = { changes, events };
    return this.#last;
  }

  #read(index: number, laid: Laid): Reread | undefined {
    return laid.changes.get(index) ?? this.#line.notes[index];
  }

  #notesAt(event: number, laid: Laid): readonly Reread[] {
    return laid.events.get(event)?.notes ?? this.#written[event] ?? NO_NOTES;
  }

  /** The number of the place that an event is at. */
  #place(event: number, laid: Laid): number {
    return laid.events.get(event)?.place ?? this.#places[event] ?? NOWHERE;
  }

  #shapeText(event: number, laid: Laid): string {
    const notes = this.#notesAt(event, laid);
    const [first] = notes;
    if (!first || notes.length < 2 || !isGrip(notes)) return '';
    return `shape ${notes.map(({ string, fret }) => `${string - first.string},${fret - first.fret}`).join(' ')}`;
  }

  #key({ index, event, chord }: LineNote, laid: Laid): number {
    const read = this.#read(index, laid);
    if (!this.#scale || !read) return 0;
    const chroma = chromaOf(read.midi);
    if (this.#scale.has(chroma)) return 0;
    const own = chromaOf(this.#line.notes[index]?.midi ?? 0) === chroma ? 1 : 0;
    const isGrey = this.#grey.has(chroma) || chord?.tones.has(chroma);
    const rubs = chord !== undefined && chord.isPlainMajor && chromaOf(chroma - chord.root) === 3;
    const cost = (isGrey && !rubs ? 0.5 : 1) * (this.#passes(event, read, laid) ? PASSING : 1);
    return (this.#chromas.get(chroma) ?? 0) > own ? cost / 2 : cost;
  }

  /** Whether a note lies between its two neighbours, a semitone from each. */
  #passes(event: number, { midi }: Reread, laid: Laid): boolean {
    const before = this.#notesAt(event - 1, laid);
    const after = this.#notesAt(event + 1, laid);
    const [from, to] = [before[0], after[0]];
    if (!from || !to || before.length !== 1 || after.length !== 1) return false;
    return Math.abs(midi - from.midi) === 1 && to.midi - midi === midi - from.midi;
  }

  /** How far a note lies from the nearest of the events before, and after: in strings or melody, whichever is nearer. */
  #distances(note: LineNote, laid: Laid): { readonly before: Distance; readonly after: Distance } {
    const read = this.#read(note.index, laid);
    if (!read || (read.fret === 0 && this.#isPedal(note, read))) return { before: NO_DISTANCE, after: NO_DISTANCE };
    const before = this.#nearest(note, read, -1, laid);
    const after = this.#nearest(note, read, 1, laid);
    // At the ends of a phrase there is one side alone, and a leap there is nobody’s slip.
    if (before === NO_DISTANCE) return { before: halved(after), after: halved(after) };
    return after === NO_DISTANCE ? { before: halved(before), after: halved(before) } : { before, after };
  }

  /** How far a note lies from the nearest of the events on one side. */
  #nearest(note: LineNote, read: Reread, way: 1 | -1, laid: Laid): Distance {
    let isPedalAlone = true;
    let [nearest, least] = [Infinity, Infinity];
    for (let by = 1; by <= NEAR_EVENTS; by += 1)
      for (const other of this.#notesAt(note.event + way * by, laid)) {
        isPedalAlone &&= other.fret === 0 && read.fret !== 0 && this.#isPedal(note, other);
        const strings = Math.max(0, Math.abs(other.string - read.string) - 1);
        const leap = Math.abs(other.midi - read.midi);
        nearest = Math.min(nearest, strings, Math.max(0, leap - 4) / 3);
        least = Math.min(least, leap);
      }
    // A pedal alone tells nothing of the line above it.
    return isPedalAlone ? NO_DISTANCE : { apart: nearest, leap: least };
  }

  /** Whether an open string sounds at another event near by, or beside a note in its own. */
  #isPedal({ event, index }: LineNote, { string }: Reread): boolean {
    const key = index * STRINGS + string;
    const known = this.#pedals.get(key);
    if (known !== undefined) return known;
    let found = false;
    for (let near = event - OPEN_EVENTS; near <= event + OPEN_EVENTS; near += 1)
      for (const note of this.#written[near] ?? NO_NOTES)
        found ||= note.index !== index && note.fret === 0 && note.string === string;
    this.#pedals.set(key, found);
    return found;
  }

  /** Frets beyond the box that the events around are played in; none for open strings and taps. In threes of frets, 3 at most. */
  #box(note: LineNote, laid: Laid): { before: number; after: number; around: number } {
    const read = this.#read(note.index, laid);
    if (!read || read.fret === 0 || note.item.link === 'tap') return { before: 0, after: 0, around: 0 };
    const [before, after] = this.#boxesAt(note.event);
    const around = beyond(read.fret, joined(before, after));
    return {
      before: before.count < 2 ? around : beyond(read.fret, before),
      after: after.count < 2 ? around : beyond(read.fret, after),
      around,
    };
  }

  #boxesAt(event: number): readonly [before: Box, after: Box] {
    const known = this.#boxes[event];
    if (known) return known;
    const boxes = [this.#boxBeside(event, -1), this.#boxBeside(event, 1)] as const;
    this.#boxes[event] = boxes;
    return boxes;
  }

  #boxBeside(own: number, step: 1 | -1): Box {
    let [low, high, count, events] = [Infinity, -Infinity, 0, 0];
    for (let event = own + step; events < BOX_EVENTS && this.#written[event]; event += step) {
      const before = count;
      for (const { item, fret } of this.#written[event] ?? NO_NOTES) {
        if (item.link === 'tap' || fret === 0) continue;
        low = Math.min(low, fret);
        high = Math.max(high, fret);
        count += 1;
      }
      if (count > before) events += 1;
    }
    return { low, high, count };
  }

  /** An open string where no other one sounds near and the hand is up the neck. */
  #openFar({ event, index }: LineNote, read: Reread): number {
    if (read.fret !== 0) return 0;
    let low = Infinity;
    for (let one = event - OPEN_EVENTS; one <= event + OPEN_EVENTS; one += 1)
      for (const other of this.#line.events[one] ?? []) {
        if (other === index) continue;
        const fret = this.#line.notes[other]?.fret ?? 0;
        if (fret === 0) return 0;
        low = Math.min(low, fret);
      }
    return low >= BOX_FRETS && low < Infinity ? 1 : 0;
  }

  /** Of the steps into an event and on from it, the share that stands nowhere else. */
  #newFigures(event: number, laid: Laid): number {
    const own = this.#place(event, laid);
    const into = this.#isKnown(figureOf(this.#place(event - 1, laid), own), event);
    const on = this.#isKnown(figureOf(own, this.#place(event + 1, laid)), event + 1);
    return (into ? 0 : 0.5) + (on ? 0 : 0.5);
  }

  /** A bend beside a plain note that it meets, or misses by no more than two semitones. */
  #unison({ index, event }: LineNote, laid: Laid): number {
    const read = this.#read(index, laid);
    if (!read) return 0;
    let worst = 0;
    for (const one of this.#line.events[event] ?? []) {
      const other = one === index ? undefined : this.#read(one, laid);
      // One of the two is bent, and the other is not.
      if (!other || read.bend > 0 === other.bend > 0) continue;
      const apart = Math.abs(read.midi - other.midi);
      if (apart === 0) return -1;
      if (apart <= 2) worst = 1;
    }
    return worst;
  }

  #isGripAsWritten(event: number): boolean {
    return isGrip(this.#notesAt(event, AS_WRITTEN));
  }

  #stack({ event, index }: LineNote, laid: Laid): { isNew: number; wide: number; rub: number } {
    const notes = this.#notesAt(event, laid);
    const read = this.#read(index, laid);
    if (notes.length < 2 || !read) return { isNew: 0, wide: 0, rub: 0 };
    const frets = notes.map(({ fret }) => fret).filter((fret) => fret > 0);
    const width = frets.length === 0 ? 0 : Math.max(...frets) - Math.min(...frets);
    const rubs = notes.some((one) => one !== read && Math.abs(one.midi - read.midi) === 1);
    return {
      isNew: this.#isGripAsWritten(event) && !this.#isKnown(this.#shapeText(event, laid), event) ? 1 : 0,
      wide: Math.max(0, width - 3) / 2,
      rub: rubs ? 1 : 0,
    };
  }
}

/** Frets that are held around a note. */
interface Box {
  readonly low: number;
  readonly high: number;
  readonly count: number;
}
const joined = (a: Box, b: Box): Box => ({
  low: Math.min(a.low, b.low),
  high: Math.max(a.high, b.high),
  count: a.count + b.count,
});

/** How far a fret lies beyond a box, in threes of frets, 3 at most; 0 where too little is known of the box. */
function beyond(fret: number, { low, high, count }: Box): number {
  if (count < 2) return 0;
  return Math.min(3, Math.max(0, fret - Math.max(high, low + BOX_FRETS), Math.min(low, high - BOX_FRETS) - fret) / 3);
}

/** The number of no event at all, and that of a place where no event is as written. */
const NOWHERE = 0;
const ELSEWHERE = -1;

/** A step from one place to another as one number, below zero so that it is none of a place. Phrases have fewer places than this. */
const figureOf = (from: number, to: number): number =>
  from === ELSEWHERE || to === ELSEWHERE ? Number.NEGATIVE_INFINITY : -(from * MOST_PLACES + to + 1);
const MOST_PLACES = 2 ** 24;
/** More frets than any number typed for one. */
const MOST_FRETS = 2 ** 12;

/** A note alone as a number, a stack as text: strings, frets and bends. */
function placeOf(notes: readonly Reread[]): number | string {
  const [only] = notes;
  if (only && notes.length === 1) return (only.string * MOST_FRETS + only.fret) * 64 + only.bend * 8;
  return notes.map(({ string, fret, bend }) => `${string}.${fret}${bend > 0 ? `b${bend}` : ''}`).join('+');
}

/** More strings than any guitar has. */
const STRINGS = 16;

/** Whether a stack is held as one grip: all of it fretted, on strings that lie together. A thumb and a finger apart are none. */
function isGrip(notes: readonly Reread[]): boolean {
  const strings = notes.map(({ string }) => string).toSorted((a, b) => a - b);
  return (
    notes.every(({ fret }) => fret > 0) &&
    strings.every((string, index) => string - (strings[index - 1] ?? string) <= GRIP_STRINGS)
  );
}

/** Strings from one note of a grip to the next, as in an octave. Our choice. */
const GRIP_STRINGS = 2;

interface Distance {
  readonly apart: number;
  readonly leap: number;
}
const NO_DISTANCE: Distance = { apart: 0, leap: 0 };
const halved = ({ apart, leap }: Distance): Distance => ({ apart: apart / 2, leap: leap / 2 });

/** A reading laid over the line: what it changes, and the notes of the events where it does. */
interface Laid {
  readonly changes: ReadonlyMap<number, Reread>;
  readonly events: ReadonlyMap<number, LaidEvent>;
}
/** An event in a reading: its notes, and the number of its place; one that no event is at as written for all others. */
interface LaidEvent {
  readonly notes: readonly Reread[];
  readonly place: number;
}
const AS_WRITTEN: Laid = { changes: new Map(), events: new Map() };
const NO_NOTES: readonly LineNote[] = [];

/** Notes that belong half: the blue third, fifth and seventh, and in minor the raised sixth and seventh. Source: common practice. */
function greyOf(key: Key): readonly number[] {
  const above = hasMinorThird(key) ? [6, 9, 11] : [3, 6, 10];
  return above.map((semitones) => chromaOf(tonicOf(key) + semitones));
}
