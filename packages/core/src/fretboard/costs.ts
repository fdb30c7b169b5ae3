import { mmBetween, type Guitar } from './guitar.ts';
import type { Grip, GripNote } from './grips.ts';

/**
 * What a hand pays, milliseconds of work; the table of docs/hand.md. Distances along the neck enter as millimetres, so that
 * the same frets cost less high up. Our choice; the form (cost of a grip plus cost of the way to the next) after
 * S. Sayegh, Fingering for String Instruments with the Optimum Path Paradigm, Computer Music Journal 13(3), 1989.
 */
export const HAND_MS = {
  /** Letting go and settling again when the hand moves at all. */
  shift: 40,
  shiftPerMm: 1.2,
  /** Share of a shift that is left when an open string or another hand sounds meanwhile. */
  freeShare: 0.5,
  /** Share of a shift that is left when a slide leads the hand there. */
  slideShare: 0.5,
  stretchPerMm: 1.5,
  beyondReachPerMm: 6,
  /** Fingers closer than a fret each. */
  crowdPerFret: 5,
  /** The same finger lifted to another fret of another string without the hand moving. */
  hop: 45,
  /** The same finger rolled over at the same fret. */
  roll: 20,
  littleFinger: 6,
  thumb: 25,
  barre: 15,
  /** Laying another finger than the first over strings. */
  otherBarre: 40,
  /** Bends by finger, for each whole step; the third has two helpers behind it. */
  bend: { 1: 45, 2: 15, 3: 0, 4: 20 },
  /** Bends on wound strings and near the nut, for each whole step. */
  bendWound: 35,
  bendNearNut: 25,
  /** A string further over. */
  string: 4,
  /** A hammer-on by a lower finger, a pull-off to a higher one, a slide that changes fingers. */
  wrongFinger: 220,
  /** A stack for which there is no grip at all. */
  impossible: 5000,
} as const;

/** From this string on, strings are wound and heavier to bend. Source: common practice (a light electric set). */
const FIRST_WOUND_STRING = 4;

/** Below this fret a bend works against the nut. Our choice. */
const NEAR_NUT_FRETS = 4;

/** What holding a grip costs, milliseconds. */
export function gripMs(grip: Grip, guitar: Guitar): number {
  if (grip.impossible) return HAND_MS.impossible;
  let cost = 0;
  for (const finger of grip.barres) cost += finger === 1 ? HAND_MS.barre : HAND_MS.otherBarre;
  for (const note of grip.notes) cost += noteMs(note, grip.position, guitar);
  return cost + beyondReachMm(grip, guitar) * HAND_MS.beyondReachPerMm;
}

function noteMs(note: GripNote, position: number, guitar: Guitar): number {
  const { finger, fret, bendSteps, string } = note;
  if (finger === null || fret === null) return 0;
  if (finger === 'T') return HAND_MS.thumb;
  const natural = position + finger - 1;
  const stretched = finger === 1 ? fret < natural : fret > natural;
  const stretch = stretched ? mmBetween(guitar, natural, fret) * HAND_MS.stretchPerMm : 0;
  const crowd = !stretched ? Math.abs(fret - natural) * HAND_MS.crowdPerFret : 0;
  const little = finger === 4 ? HAND_MS.littleFinger : 0;
  const heavy =
    (string >= FIRST_WOUND_STRING ? HAND_MS.bendWound : 0) + (fret < NEAR_NUT_FRETS ? HAND_MS.bendNearNut : 0);
  return stretch + crowd + little + bendSteps * (HAND_MS.bend[finger] + heavy);
}

/** How far a grip goes beyond this hand’s reach, millimetres; 0 within it. */
export function beyondReachMm(grip: Grip, guitar: Guitar): number {
  return Math.max(0, spanMm(grip, guitar) - guitar.reachMm);
}

/** From the lowest to the highest fret that fingers hold, the hand’s place included, millimetres. */
export function spanMm({ notes, position }: Grip, guitar: Guitar): number {
  const frets = notes.flatMap(({ finger, fret }) => (typeof finger === 'number' && fret !== null ? [fret] : []));
  if (frets.length === 0) return 0;
  return mmBetween(guitar, Math.min(position, ...frets), Math.max(...frets));
}

/** A way between two grips: how the notes of the second grow out of the first, and whether the hand had time. */
export interface Way {
  readonly link: 'hammer' | 'pull' | 'slide' | 'none';
  /** Whether something sounded in between that this hand did not hold. */
  readonly free: boolean;
}

/** What the hand’s move along the neck costs, milliseconds. */
export function shiftMs(from: Grip, to: Grip, { link, free }: Way, guitar: Guitar): number {
  if (from.position === to.position) return 0;
  const mm = mmBetween(guitar, from.position, to.position);
  const share = (link === 'slide' ? HAND_MS.slideShare : 1) * (free ? HAND_MS.freeShare : 1);
  return (HAND_MS.shift + mm * HAND_MS.shiftPerMm) * share;
}

/** What the way from one grip to the next costs, milliseconds. */
export function wayMs(from: Grip, to: Grip, way: Way, guitar: Guitar): number {
  if (from.impossible || to.impossible) return 0;
  return handMs(from, to, way, guitar) + fingersMs(from, to, way);
}

/** What of it the hand pays, whatever its fingers do: at least so much. Without a link, all of it, unless the hand stays. */
export function handMs(from: Grip, to: Grip, way: Way, guitar: Guitar): number {
  if (from.impossible || to.impossible) return 0;
  return shiftMs(from, to, way, guitar) + stringsApart(from, to) * HAND_MS.string;
}

function stringsApart(from: Grip, to: Grip): number {
  const [a, b] = [from.notes[0]?.string ?? 0, to.notes[0]?.string ?? 0];
  return Math.abs(a - b);
}

function fingersMs(from: Grip, to: Grip, { link, free }: Way): number {
  let cost = 0;
  for (const note of to.notes) {
    if (typeof note.finger !== 'number') continue;
    for (const before of from.notes) {
      if (typeof before.finger !== 'number') continue;
      if (link !== 'none' && before.string === note.string) cost += linkMs(before.finger, note.finger, link);
      else if (before.finger === note.finger && !free && from.position === to.position)
        cost += sameFingerMs(before, note);
    }
  }
  return cost;
}

function linkMs(before: number, after: number, link: Way['link']): number {
  const fits = link === 'slide' ? before === after : link === 'hammer' ? after > before : after < before;
  return fits ? 0 : HAND_MS.wrongFinger;
}

function sameFingerMs(before: GripNote, note: GripNote): number {
  if (before.fret !== note.fret) return HAND_MS.hop;
  return before.string === note.string ? 0 : HAND_MS.roll;
}
