import { openMidi, type Tuning } from './tuning.ts';

/** Concert pitch of A4, hertz. Source: ISO 16:1975. */
export const CONCERT_A4_HZ = 440;

/** MIDI number of A4. Source: common practice (the MIDI note numbering). */
export const A4_MIDI = 69;

/** Highest fret the notation can write. Our choice. */
export const HIGHEST_FRET = 36;

/**
 * The MIDI number that a fretted string sounds: open string + capo + fret.
 * String 1 is the thinnest; frets count from the capo; fret 0 is open.
 *
 * @throws RangeError for a string the tuning lacks, or a negative or fractional fret or capo.
 */
export function midiOf(tuning: Tuning, string: number, fret: number, capo = 0): number {
  if (!Number.isInteger(fret) || fret < 0) throw new RangeError(`a fret is a whole number from 0, not ${fret}`);
  if (!Number.isInteger(capo) || capo < 0) throw new RangeError(`a capo is a whole number from 0, not ${capo}`);
  return openMidi(tuning, string) + capo + fret;
}

/**
 * The frequency of a (possibly fractional) MIDI number in twelve-tone equal temperament, hertz.
 *
 * @param a4 frequency of A4 in hertz
 * @param offsetCents how far the recording stands from that, in cents (100 to the semitone)
 * Source: ISO 16:1975 for A4; equal temperament, ratio 2^(1/12) a semitone.
 */
export function hzOf(midi: number, a4: number = CONCERT_A4_HZ, offsetCents = 0): number {
  if (!(a4 > 0)) throw new RangeError(`A4 is a frequency above 0 Hz, not ${a4}`);
  return a4 * 2 ** ((midi - A4_MIDI) / 12 + offsetCents / 1200);
}

/** The MIDI number of a frequency in hertz, with a fraction; the inverse of `hzOf`. Source: as there. */
export function midiAt(hz: number, a4: number = CONCERT_A4_HZ): number {
  return A4_MIDI + 12 * Math.log2(hz / a4);
}

/** Cents from one frequency up to another (negative when the second is lower). Both in hertz, above 0. */
export function centsBetween(fromHz: number, toHz: number): number {
  if (!(fromHz > 0) || !(toHz > 0)) throw new RangeError(`frequencies above 0 Hz, not ${fromHz} and ${toHz}`);
  return 1200 * Math.log2(toHz / fromHz);
}

/**
 * The distance along the neck between two frets, millimetres, never negative; fret 0 is the nut.
 * Source: the 12th-root-of-2 rule of fret placement: nut to fret n = scale length · (1 - 2^(-n/12)).
 */
export function fretDistanceMm(scaleLengthMm: number, fretA: number, fretB: number): number {
  if (!(scaleLengthMm > 0)) throw new RangeError(`a scale length is above 0 mm, not ${scaleLengthMm}`);
  const fromNut = (fret: number) => scaleLengthMm * (1 - 2 ** (-fret / 12));
  return Math.abs(fromNut(fretB) - fromNut(fretA));
}

/** A place on the neck: string 1 is the thinnest, fret 0 is open. */
export interface FretPosition {
  readonly string: number;
  readonly fret: number;
}

/**
 * Every place where a whole MIDI number can be played, thinnest string first; empty when there is none.
 *
 * @param frets how many frets this guitar has
 */
export function fretsFor(midi: number, tuning: Tuning, frets: number): readonly FretPosition[] {
  if (!Number.isInteger(midi)) throw new RangeError(`places exist for whole MIDI numbers, not ${midi}`);
  return tuning.openMidis.flatMap((open, index) => {
    const fret = midi - open;
    return fret >= 0 && fret <= frets ? [{ string: index + 1, fret }] : [];
  });
}
