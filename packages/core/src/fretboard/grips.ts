import { bendHeight, type EventItem, type WrittenNote } from '../notation/index.ts';

/** A fretting finger 1 (index) to 4 (little), the thumb, or null where no finger of this hand holds the note. */
export type FrettingFinger = 1 | 2 | 3 | 4 | 'T' | null;

/** A note under the hand. `string` 1 is the thinnest; frets count from the capo; null is a dead note. */
export interface GripNote {
  readonly string: number;
  readonly fret: number | null;
  readonly finger: FrettingFinger;
  /** How far it is bent, whole steps; 0 for not. */
  readonly bendSteps: number;
}

/** A hand on the neck: where its first finger would fall, and what each finger holds. */
export interface Grip {
  readonly position: number;
  readonly notes: readonly GripNote[];
  /** The fingers that lie over more than one string. */
  readonly barres: readonly FrettingFinger[];
  /** No way was found to hold all of it. */
  readonly impossible: boolean;
}

/** A place for each note of an event, in the order in which they are written. */
export type FretPositions = readonly { readonly string: number; readonly fret: number | null }[];

/** Fingers in the order of the frets. */
const FINGERS = [1, 2, 3, 4] as const;

/** How many frets past its own a finger may stretch up; the first may stretch down by one. Our choice. */
const STRETCH_UP = { 1: 0, 2: 1, 3: 1, 4: 2 } as const;

/** From the first finger stretched back to the fourth stretched up, frets; only the thumb makes a hand wider. */
const WIDEST = 1 + 3 + STRETCH_UP[4];

/** What the grips of an event must respect. */
export interface GripRules {
  /** The fret of a barre held at the time; its notes belong to the first finger. */
  readonly barre: number | null;
  /** Only grips of this position, where one is to be kept. */
  readonly position?: number;
}

/**
 * Every way to hold the notes of an event at some places: fingers in the order of frets, one finger on several strings only
 * at one fret (a barre), given fingers respected. Never empty: where there is none, one that is called impossible.
 */
export function gripsFor(event: EventItem, fretPositions: FretPositions, rules: GripRules): readonly Grip[] {
  const notes = fretPositions.map(({ string, fret }, index) => ({ string, fret, ...askedOf(event, index) }));
  const isTap = event.link === 'tap';
  const held = notes
    .flatMap((note, index) =>
      isTap || note.fret === null || note.fret === 0 ? [] : [{ ...note, fret: note.fret, index }],
    )
    .sort((a, b) => a.fret - b.fret || b.string - a.string);
  const grips: Grip[] = [];
  const open = notes.filter(({ fret }) => fret === 0).map(({ string }) => string);
  for (const fingers of fingerings(held, open, rules.barre)) {
    const given = new Map(held.map(({ index }, place) => [index, fingers[place] ?? null]));
    const withFingers = notes.map(({ string, fret, bendSteps }, index) => ({
      string,
      fret,
      bendSteps,
      finger: given.get(index) ?? null,
    }));
    for (const position of positionsOf(held, fingers))
      if (rules.position === undefined || rules.position === position)
        grips.push({ position, notes: withFingers, barres: barresOf(fingers), impossible: false });
  }
  return grips.length > 0 ? grips : [noGrip(notes)];
}

/** Whether a grip leaves this hand free to move: open strings, dead notes and taps alone. */
export function isFree({ notes }: Grip): boolean {
  return notes.every(({ finger }) => finger === null);
}

interface Held {
  readonly string: number;
  readonly fret: number;
  readonly asked: FrettingFinger | undefined;
  readonly needsAbove: boolean;
}

function askedOf({ notes }: EventItem, index: number) {
  const note: WrittenNote | undefined = notes[index];
  const { finger, trill } = note ?? {};
  const asked: FrettingFinger | undefined = finger === 'T' ? 'T' : FINGERS.find((one) => String(one) === finger);
  return { asked, bendSteps: note ? bendHeight(note) : 0, needsAbove: trill !== undefined };
}

function noGrip(notes: readonly Omit<GripNote, 'finger'>[]): Grip {
  const frets = notes.flatMap(({ fret }) => (fret === null || fret === 0 ? [] : [fret]));
  return {
    position: frets.length === 0 ? 1 : Math.min(...frets),
    notes: notes.map(({ string, fret, bendSteps }) => ({ string, fret, bendSteps, finger: null })),
    barres: [],
    impossible: frets.length > 0,
  };
}

/**
 * Fingers for held notes in the order of frets. One finger twice only at one fret, with no open string between; none that leave the hand
 * no place are looked at further.
 */
function fingerings(
  held: readonly Held[],
  open: readonly number[],
  barre: number | null,
): readonly (readonly FrettingFinger[])[] {
  const found: FrettingFinger[][] = [];
  const [lowest, highest] = [held[0]?.fret ?? 0, held.at(-1)?.fret ?? 0];
  if (highest - lowest > WIDEST && held.every(({ asked }) => asked !== 'T')) return found;
  const walk = (index: number, fingers: FrettingFinger[], places: Places): void => {
    const note = held[index];
    if (!note) {
      found.push(fingers);
      return;
    }
    for (const finger of fingersFor(note, barre)) {
      const left = placesFor(places, finger, note.fret);
      if (left.low > left.high) continue;
      const before = held.findLastIndex((_, at) => at < index && fingers[at] === finger);
      const other = held[before];
      if (typeof finger === 'number' && finger < lowestFinger(held, fingers, index)) continue;
      if (other && !(other.fret === note.fret && typeof finger === 'number' && canBar(other, note, open))) continue;
      walk(index + 1, [...fingers, finger], left);
    }
  };
  walk(0, [], ANYWHERE);
  return found;
}

/**
 * The lowest finger that may press the next note: none below those of lower frets. At one fret fingers that are written may stand in
 * any order, as in an open A; others go up with the strings, so that the same grip is not looked at over and over.
 */
function lowestFinger(held: readonly Held[], fingers: readonly FrettingFinger[], index: number): number {
  const note = held[index];
  const before = fingers.filter((_, at) => note?.asked === undefined || held[at]?.fret !== note.fret);
  return Math.max(0, ...before.filter((one) => typeof one === 'number'));
}

function fingersFor({ fret, asked, needsAbove }: Held, barre: number | null): readonly FrettingFinger[] {
  if (asked !== undefined) return [asked];
  if (barre !== null && fret === barre) return [1];
  return needsAbove ? FINGERS.slice(0, 3) : FINGERS;
}

/** A finger cannot lie over a string that is to sound open. */
function canBar(a: Held, b: Held, open: readonly number[]): boolean {
  const [low, high] = [Math.min(a.string, b.string), Math.max(a.string, b.string)];
  return !open.some((string) => string > low && string < high);
}

function barresOf(fingers: readonly FrettingFinger[]): readonly FrettingFinger[] {
  return [...new Set(fingers.filter((finger, index) => fingers.indexOf(finger) !== index))];
}

/** From where to where the hand may lie. */
interface Places {
  readonly low: number;
  readonly high: number;
}
const ANYWHERE: Places = { low: 1, high: Infinity };

/** Those of some places from which a finger comes to a fret as well. */
function placesFor({ low, high }: Places, finger: FrettingFinger, fret: number): Places {
  if (typeof finger !== 'number') return { low, high };
  // The first finger may reach a fret back, the others up by their stretch or down onto the position itself.
  return {
    low: Math.max(low, fret - (finger - 1) - STRETCH_UP[finger]),
    high: Math.min(high, finger === 1 ? fret + 1 : fret),
  };
}

/** The places of the hand from which each finger comes to its fret. */
function positionsOf(held: readonly Held[], fingers: readonly FrettingFinger[]): readonly number[] {
  const { low, high } = held.reduce(
    (places, { fret }, index) => placesFor(places, fingers[index] ?? null, fret),
    ANYWHERE,
  );
  if (high === Infinity) return [held[0]?.fret ?? 1];
  return Array.from({ length: Math.max(0, high - low + 1) }, (_, index) => low + index);
}
