import {
  heardOf,
  namedMidi,
  sayPlace,
  unroll,
  type EventItem,
  type HeardNote,
  type Phrase,
  type Setup,
} from '../notation/index.ts';
import { spell, type Key } from '../pitch/index.ts';

/** How one phrase grows out of another. */
export type Kinship =
  'same' | 'moved' | 'elsewhere' | 'octave' | 'transposed' | 'sequence' | 'part' | 'grown' | 'tail' | 'none';

/** A place where two phrases differ, in the second one: `bar 2, beat 4`, or `note 6` where only the order is known. */
export interface Difference {
  readonly place: string;
  readonly what: 'changed' | 'added' | 'left out';
}

/** What two phrases have in common. */
export interface Likeness {
  /** Share of the events that agree, 0 to 1; half an event where only its length or place on the neck differs. */
  readonly likeness: number;
  readonly kinship: Kinship;
  /** How far the second lies above the first: semitones; frets where it moved along the neck; steps of the scale. */
  readonly semitones: number;
  readonly frets: number;
  readonly steps: number;
  readonly differences: readonly Difference[];
  /** How the first events that sound alike are made, in a word each, where hands make any of them otherwise; else null. */
  readonly hands: readonly [first: string, second: string] | null;
}

/** What comparing must know besides the phrases. */
export interface CompareOptions extends Setup {
  readonly key: Key;
  /** How the first phrase is set up, where that is another song’s. */
  readonly first?: Setup & { readonly key: Key };
}

/** Phrases at least so alike are worth a word. Chosen on the labelled pairs of the tests. */
export const ALIKE = 0.7;

/** Longest phrases compared, events; comparing costs the product of both lengths. Our choice. */
const MAX_EVENTS = 300;

/** Shifts tried: the most frequent ones between events at the same place. Our choice. */
const SHIFTS_TRIED = 4;

const COST = { changed: 1, missing: 1, lengthOrPlace: 0.5 } as const;

/** How an event is made by the hands: in a word, and all of it. */
interface Made {
  readonly word: string;
  readonly full: string;
}

/** An event as it sounds, for comparing. */
interface Sounded {
  readonly at: number;
  readonly length: number;
  /** False where only the order is known. */
  readonly timed: boolean;
  readonly place: string;
  readonly notes: readonly { readonly string: number; readonly fret: number | null }[];
  readonly made: Made;
  /** Heights that are compared, of the pitches that its notes rest on: MIDI numbers, or steps of the scale. */
  readonly midis: readonly number[];
  readonly steps: readonly number[];
}

/** What is heard of a phrase, as far as it is compared with others; worth keeping where many are. */
export type Heard = readonly Sounded[];

/** Compares two phrases: the second against the first, up to 300 events each. Cost is the product of their lengths and of how much they differ. */
export function compare(first: Phrase, second: Phrase, options: CompareOptions): Likeness {
  return compareHeard(hear(first, options.first ?? options), hear(second, options));
}

/**
 * Compares what is heard of two phrases, as `compare` does. What cannot be at least so alike is not looked at note by note, and
 * comes out as not alike at all; that takes time linear in their lengths.
 */
export function compareHeard(a: Heard, b: Heard, min = 0): Likeness {
  const none: Likeness = {
    likeness: 0,
    kinship: 'none',
    semitones: 0,
    frets: 0,
    steps: 0,
    differences: [],
    hands: null,
  };
  if (a.length === 0 || b.length === 0) return none;
  // Every event that one has more than the other is missing from it.
  if (Math.min(a.length, b.length) < min * Math.max(a.length, b.length)) return none;
  const near = bestShift(a, b, 'midis', min);
  const bySteps = bestShift(a, b, 'steps', near?.likeness ?? min);
  if (!near && !bySteps) return none;
  // A sequence must be clearly nearer than a plain shift, since every shift by octaves is one as well.
  if (bySteps && bySteps.shift !== 0 && (!near || bySteps.likeness > near.likeness + 1e-9))
    return { ...none, ...bySteps, kinship: 'sequence', steps: bySteps.shift, hands: handsUnlike(bySteps.pairs) };
  const byPitch = near ?? bestShift(a, b, 'midis', 0);
  if (!byPitch) return none;
  const frets = fretsMoved(byPitch.pairs);
  const kinship = kinshipOf(byPitch.shift, frets, byPitch.pairs);
  const hands = handsUnlike(byPitch.pairs);
  return { ...none, ...byPitch, kinship, semitones: byPitch.shift, frets: frets ?? 0, hands };
}

/** How the first events are made that sound alike and are made otherwise. */
function handsUnlike(pairs: readonly Pair[]): Likeness['hands'] {
  const unlike = pairs.find(([a, b]) => a.made.full !== b.made.full);
  return unlike ? [unlike[0].made.word, unlike[1].made.word] : null;
}

/** What is heard of a phrase in its tuning; the first 300 events. Linear. */
export function hear(phrase: Phrase, { tuning, capo, key }: Setup & { readonly key: Key }): Heard {
  const { events, bars } = unroll(phrase);
  const heard = new Map<number, HeardNote[]>();
  for (const note of heardOf(phrase, { tuning, capo })) heard.set(note.at, [...(heard.get(note.at) ?? []), note]);
  return events
    .filter(({ item }) => item)
    .slice(0, MAX_EVENTS)
    .flatMap(({ at, length, item, bar: index, timed }, note): readonly Sounded[] => {
      const bar = bars[index];
      if (!item || !bar) return [];
      const notes = (heard.get(at) ?? []).filter((one) => one.item === item);
      const midis = notes.map(({ rests }) => rests).sort((x, y) => x - y);
      const place = sayPlace({ timed, bar: index + 1, at: at - bar.at, meter: bar.meter, note: note + 1 });
      const made = madeOf(item, notes);
      const steps = midis.map((midi) => stepOf(namedMidi(midi), key));
      return [{ at, length, timed, place, notes: item.notes, made, midis, steps }];
    });
}

/** How the notes of an event are made: in a word, and in full. */
function madeOf(item: EventItem, notes: readonly HeardNote[]): Made {
  const { link, slideIn, slideOut, arm, notes: written } = item;
  const bent = notes.some(({ how }) => how === 'bent');
  const linked = link === 'slide' || link === 'shift' ? 'slid' : ((link && LINK_WORDS[link]) ?? 'picked');
  const full = written.map(({ moves, preBend, vibrato, harmonic, trill, held, again }) => ({
    ...{ moves, preBend, vibrato, harmonic, held, again },
    trills: trill !== undefined,
  }));
  return { word: bent ? 'bent' : linked, full: JSON.stringify([link, slideIn, slideOut, arm, full]) };
}

const LINK_WORDS = { hammer: 'hammered', pull: 'pulled', tap: 'tapped' } as const;

/** The step of the scale a note stands on, over all octaves; a note outside the scale lies between two. */
function stepOf(midi: number, key: Key): number {
  const { letter, alter, octave } = spell(midi, key);
  const natural = spell(midi - alter, { fifths: 0, mode: 'major' });
  return octave * 7 + 'CDEFGAB'.indexOf(letter) + (inKey(midi, key) ? 0 : 0.5 * Math.sign(alter || natural.alter || 1));
}

/** Pitch classes of a major scale from its tonic; a minor key has those of its relative major. */
const MAJOR = [0, 2, 4, 5, 7, 9, 11];

function inKey(midi: number, { fifths }: Key): boolean {
  const tonic = (((fifths * 7) % 12) + 12) % 12;
  return MAJOR.includes((((midi - tonic) % 12) + 12) % 12);
}

type Pair = readonly [Sounded, Sounded];

interface Shifted {
  readonly shift: number;
  readonly likeness: number;
  readonly differences: readonly Difference[];
  readonly pairs: readonly Pair[];
}

/** The best of the shifts tried; undefined where none can come to the least. */
function bestShift(a: Heard, b: Heard, heights: 'midis' | 'steps', min: number): Shifted | undefined {
  let best: Shifted | undefined;
  for (const shift of shiftsBetween(a, b, heights)) {
    // The next must be better than the best so far.
    const least = best?.likeness ?? min;
    const most = mostAlike(a, b, heights, shift);
    if (most < least - 1e-9) continue;
    const one = align(a, b, { heights, shift, least, most });
    if (one && (!best || one.likeness > best.likeness + 1e-9)) best = one;
  }
  return best;
}

/** As alike as two phrases can be at most, whatever the order of their events: those that have a partner at all. */
function mostAlike(a: Heard, b: Heard, heights: 'midis' | 'steps', shift: number): number {
  const counts = new Map<string, number>();
  for (const event of a) {
    const key = event[heights].map((height) => height + shift).join();
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  let partners = 0;
  for (const event of b) {
    const key = event[heights].join();
    const left = counts.get(key) ?? 0;
    if (left === 0) continue;
    counts.set(key, left - 1);
    partners += 1;
  }
  return partners / Math.max(a.length, b.length);
}

function shiftsBetween(a: readonly Sounded[], b: readonly Sounded[], heights: 'midis' | 'steps'): readonly number[] {
  const counts = new Map<number, number>([[0, 0.5]]);
  for (const [index, event] of b.entries())
    for (const near of [index - 1, index, index + 1]) {
      const shift = (event[heights].at(-1) ?? NaN) - (a[near]?.[heights].at(-1) ?? NaN);
      if (Number.isFinite(shift)) counts.set(shift, (counts.get(shift) ?? 0) + (near === index ? 1 : 0.4));
    }
  return [...counts.entries()]
    .sort((x, y) => y[1] - x[1])
    .slice(0, SHIFTS_TRIED)
    .map(([shift]) => shift);
}

/** Bands are tried from this half width on, each twice as wide as the last, events. Our choice. */
const FIRST_BAND = 16;

/** What it costs at least to turn the first `i` events of one phrase into the first `j` of the other; `Infinity` outside of the band. */
type Costs = (i: number, j: number) => number;

/**
 * The costs of turning one phrase into the other, within a band around the diagonal that holds every way that costs no more than its
 * half width, since whoever leaves it has left out or added more events. They are known to differ by `least`; undefined where by more than `most`. Cost is the
 * product of the length and of how much they differ.
 * Source: E. Ukkonen, Algorithms for approximate string matching, Information and Control 64, 1985.
 */
function costsBetween(
  a: readonly Matched[],
  b: readonly Matched[],
  { least, most }: { readonly least: number; readonly most: number },
): Costs | undefined {
  const widest = Math.max(a.length, b.length);
  for (let half = Math.max(FIRST_BAND, Math.abs(a.length - b.length), Math.ceil(least)); ; half *= 2) {
    const at = costsWithin(a, b, Math.min(half, widest));
    const cost = at(a.length, b.length);
    if (cost <= half || half >= widest) return cost <= most ? at : undefined;
    if (half >= most) return undefined;
  }
}

function costsWithin(a: readonly Matched[], b: readonly Matched[], half: number): Costs {
  // A row for each beginning of `a`, with a margin on both sides that stays infinite.
  const wide = 2 * half + 3;
  const costs = new Float64Array((a.length + 1) * wide).fill(Infinity);
  for (let i = 0; i <= a.length; i += 1) {
    const row = i * wide - i + half + 1;
    const above = row - wide + 1;
    const last = Math.min(b.length, i + half);
    for (let j = Math.max(0, i - half); j <= last; j += 1) {
      if (i === 0 || j === 0) costs[row + j] = (i + j) * COST.missing;
      else {
        const changed = (costs[above + j - 1] ?? Infinity) + changeCost(a[i - 1], b[j - 1]);
        const missing = Math.min(costs[above + j] ?? Infinity, costs[row + j - 1] ?? Infinity) + COST.missing;
        costs[row + j] = Math.min(changed, missing);
      }
    }
  }
  return (i, j) => (Math.abs(i - j) > half ? Infinity : (costs[i * wide - i + half + 1 + j] ?? Infinity));
}

/** An event as far as another is like it. */
interface Matched {
  /** The same for the same heights. */
  readonly heights: number;
  /** Its length, where it is known. */
  readonly length: number | undefined;
}

/** What is compared of each event, the heights of one phrase shifted. */
function matchedOf(
  heard: Heard,
  heights: 'midis' | 'steps',
  { shift, known }: { readonly shift: number; readonly known: Map<string, number> },
): readonly Matched[] {
  return heard.map((event) => {
    const key = event[heights].map((height) => (height + shift).toFixed(6)).join();
    const number = known.get(key) ?? known.size;
    known.set(key, number);
    return { heights: number, length: event.timed ? event.length : undefined };
  });
}

function changeCost(a: Matched | undefined, b: Matched | undefined): number {
  if (!a || !b || a.heights !== b.heights) return COST.changed;
  return a.length === undefined || b.length === undefined || a.length === b.length ? 0 : COST.lengthOrPlace;
}

/**
 * The cheapest way to turn one phrase, shifted, into the other, known to be at most so alike; undefined where they are less alike than `least`.
 * Source: edit distance, common practice.
 */
function align(
  a: Heard,
  b: Heard,
  {
    heights,
    shift,
    least,
    most,
  }: { readonly heights: 'midis' | 'steps'; readonly shift: number; readonly least: number; readonly most: number },
): Shifted | undefined {
  const longer = Math.max(a.length, b.length);
  const known = new Map<string, number>();
  const ours = matchedOf(a, heights, { shift, known });
  const theirs = matchedOf(b, heights, { shift: 0, known });
  const change = (i: number, j: number) => changeCost(ours[i - 1], theirs[j - 1]);
  const at = costsBetween(ours, theirs, { least: (1 - most) * longer, most: (1 - least) * longer + 1e-9 });
  if (!at) return undefined;
  const pairs: Pair[] = [];
  const differences: Difference[] = [];
  const differs = (event: Sounded | undefined, what: Difference['what']) => {
    if (event) differences.unshift({ place: event.place, what });
  };
  for (let i = a.length, j = b.length; i > 0 || j > 0;) {
    const [one, other] = [a[i - 1], b[j - 1]];
    if (one && other && Math.abs(at(i, j) - at(i - 1, j - 1) - change(i, j)) < 1e-9) {
      const cost = change(i, j);
      if (cost < COST.changed) pairs.unshift([one, other]);
      if (cost > 0) differs(other, 'changed');
      i -= 1;
      j -= 1;
    } else if (other && Math.abs(at(i, j) - at(i, j - 1) - COST.missing) < 1e-9) {
      differs(other, 'added');
      j -= 1;
    } else {
      differs(one, 'left out');
      i -= 1;
    }
  }
  const likeness = 1 - at(a.length, b.length) / longer;
  return { shift, likeness, differences, pairs };
}

/** Frets that every note moved along its own string; undefined where any changed strings. */
function fretsMoved(pairs: readonly Pair[]): number | undefined {
  let moved: number | undefined;
  for (const [a, b] of pairs)
    for (const [index, note] of b.notes.entries()) {
      const from = a.notes[index];
      if (from?.string !== note.string) return undefined;
      if (from.fret === null || note.fret === null) continue;
      const frets = note.fret - from.fret;
      if (moved !== undefined && moved !== frets) return undefined;
      moved = frets;
    }
  return moved;
}

function kinshipOf(shift: number, frets: number | undefined, pairs: readonly Pair[]): Kinship {
  if (pairs.length === 0) return 'none';
  if (frets === 0) return 'same';
  if (frets !== undefined) return 'moved';
  if (shift === 0) return 'elsewhere';
  return shift % 12 === 0 ? 'octave' : 'transposed';
}

/** Fewest events in a row that make a part. Our choice. */
const MIN_PART = 5;

/**
 * How one phrase is part of another where they are not alike as wholes: the second is a part of the first, the first is a part of the
 * second, which has grown, or both end alike. The events in a row sound alike, all as far apart. Undefined where there is no such part
 * of five events or more. Cost is the product of their lengths.
 */
export function comparePart(a: Heard, b: Heard): Likeness | undefined {
  const run = longestRun(a, b);
  if (!run || run.length < MIN_PART) return undefined;
  const { length, from, to } = run;
  const ends = from + length === a.length && to + length === b.length;
  const kinship = length === b.length ? 'part' : length === a.length ? 'grown' : ends ? 'tail' : undefined;
  const [one, other] = [a[from], b[to]];
  if (!kinship || !one || !other) return undefined;
  const pairs = Array.from({ length }, (_, index) => [a[from + index], b[to + index]]).flatMap(
    ([x, y]): readonly Pair[] => (x && y ? [[x, y]] : []),
  );
  const semitones = (other.midis.at(-1) ?? 0) - (one.midis.at(-1) ?? 0);
  const differences: readonly Difference[] = kinship === 'part' ? [] : [{ place: other.place, what: 'changed' }];
  return {
    likeness: length / Math.max(a.length, b.length),
    ...{ kinship, semitones, frets: fretsMoved(pairs) ?? 0, steps: 0, differences, hands: handsUnlike(pairs) },
  };
}

/** The longest row of events that sound alike in both, all moved as far; where it begins in each. */
function longestRun(
  a: Heard,
  b: Heard,
): { readonly length: number; readonly from: number; readonly to: number } | undefined {
  const wide = b.length + 1;
  const lengths = new Uint16Array((a.length + 1) * wide);
  let best = { length: 0, from: 0, to: 0 };
  for (let i = 1; i <= a.length; i += 1)
    for (let j = 1; j <= b.length; j += 1) {
      const shift = shiftOf(a[i - 1], b[j - 1]);
      if (shift === undefined) continue;
      const goesOn = shiftOf(a[i - 2], b[j - 2]) === shift;
      const length = goesOn ? (lengths[(i - 1) * wide + j - 1] ?? 0) + 1 : 1;
      lengths[i * wide + j] = length;
      if (length > best.length) best = { length, from: i - length, to: j - length };
    }
  return best.length > 0 ? best : undefined;
}

/** How far the second of two events lies above the first, semitones; undefined where they do not sound alike. */
function shiftOf(a: Sounded | undefined, b: Sounded | undefined): number | undefined {
  if (!a || !b || a.midis.length === 0 || a.midis.length !== b.midis.length) return undefined;
  if (a.timed && b.timed && a.length !== b.length) return undefined;
  const shift = (b.midis[0] ?? 0) - (a.midis[0] ?? 0);
  return a.midis.every((midi, index) => Math.abs(midi + shift - (b.midis[index] ?? NaN)) < 1e-9) ? shift : undefined;
}
