import { fretDistanceMm, type Tuning } from '../pitch/index.ts';
import type { StringNames } from './names.ts';

/** A guitar and the hand on it. Frets of notes count from the capo, `frets` from the nut. */
export interface Guitar {
  readonly tuning: Tuning;
  readonly capo: number;
  readonly frets: number;
  readonly scaleLengthMm: number;
  /** How far this hand reaches along the neck, first finger to fourth, millimetres. */
  readonly reachMm: number;
  /** How its strings are spoken of; by letters where left out. */
  readonly names?: StringNames;
}

/** Reach where nobody was measured, millimetres: a little more than 5 to 9 on a 648 mm scale. Our choice. */
export const USUAL_REACH_MM = 110;

/** Scale length of most electric guitars, millimetres (25.5 inches). Source: common practice. */
export const USUAL_SCALE_MM = 648;

/** A guitar as most have it, to a tuning. */
export function usualGuitar(tuning: Tuning): Guitar {
  return { tuning, capo: 0, frets: 22, scaleLengthMm: USUAL_SCALE_MM, reachMm: USUAL_REACH_MM };
}

/** The reach of a hand whose fingers comfortably span so many frets from the fifth, millimetres. 4 is 5 to 9. */
export function reachOfSpan(frets: number, scaleLengthMm: number = USUAL_SCALE_MM): number {
  return fretDistanceMm(scaleLengthMm, 5, 5 + frets);
}

/** The reach of a hand that was asked for its span of frets; the usual one where nobody asked (null). Millimetres. */
export function reachOfHand({
  spanFrets,
  scaleLengthMm,
}: {
  readonly spanFrets: number | null;
  readonly scaleLengthMm: number;
}): number {
  return spanFrets === null ? USUAL_REACH_MM : reachOfSpan(spanFrets, scaleLengthMm);
}

/** Millimetres along the neck between two frets counted from the capo; below the open string counts as the open string. */
export function mmBetween(guitar: Guitar, fretA: number, fretB: number): number {
  const { scaleLengthMm, capo } = guitar;
  let fretPositions = fromNut.get(guitar);
  if (!fretPositions) {
    fretPositions = Array.from({ length: MAX_FRETS }, (_, fret) => fretDistanceMm(scaleLengthMm, 0, fret));
    fromNut.set(guitar, fretPositions);
  }
  return Math.abs(
    (fretPositions[Math.max(0, fretB) + capo] ?? scaleLengthMm) -
      (fretPositions[Math.max(0, fretA) + capo] ?? scaleLengthMm),
  );
}

/** Millimetres from the nut to each fret, of guitars that were asked about; a path asks some thousand times. */
const fromNut = new WeakMap<Guitar, readonly number[]>();
const MAX_FRETS = 64;

/** The highest fret from the capo. */
export function topFret({ frets, capo }: Guitar): number {
  return frets - capo;
}

/** The MIDI number of a place; NaN for a string the tuning lacks. */
export function pitchAt({ tuning, capo }: Guitar, string: number, fret: number): number {
  return (tuning.openMidis[string - 1] ?? NaN) + capo + fret;
}
