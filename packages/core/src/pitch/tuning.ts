import { alterOf } from './keys.ts';
import { NATURAL_PITCH } from './spell.ts';

/**
 * A tuning: the open strings from the thinnest (string 1) to the thickest.
 * `openMidis[0]` is string 1. MIDI numbers, A4 = 69.
 */
export interface Tuning {
  readonly name: string;
  readonly openMidis: readonly number[];
}

/** Fewest and most strings a tuning may have. Our choice: bass to nine-string guitar. */
export const STRING_COUNT_RANGE = { min: 4, max: 9 } as const;

/** Lowest and highest open string, MIDI. Our choice: C1 (24) to C6 (84). */
export const OPEN_STRING_RANGE = { min: 24, max: 84 } as const;

/**
 * Makes a tuning from the open strings, thinnest first, as MIDI numbers.
 *
 * @throws RangeError with the value when a number is not whole or out of `OPEN_STRING_RANGE`, or the
 *   count of strings is out of `STRING_COUNT_RANGE`.
 */
export function makeTuning(name: string, openMidis: readonly number[]): Tuning {
  const { min, max } = STRING_COUNT_RANGE;
  if (openMidis.length < min || openMidis.length > max)
    throw new RangeError(`a tuning has ${min} to ${max} strings, not ${openMidis.length}`);
  for (const midi of openMidis)
    if (!Number.isInteger(midi) || midi < OPEN_STRING_RANGE.min || midi > OPEN_STRING_RANGE.max)
      throw new RangeError(
        `an open string is a whole MIDI number ${OPEN_STRING_RANGE.min}-${OPEN_STRING_RANGE.max}, not ${midi}`,
      );
  return { name, openMidis: [...openMidis] };
}

/**
 * The tunings the studio meets, by name; string 1 (thinnest) first.
 * Source: common practice (standard E2 A2 D3 G3 B3 E4 from the 6th string).
 */
export const TUNINGS = {
  standard: makeTuning('standard', [64, 59, 55, 50, 45, 40]),
  'drop D': makeTuning('drop D', [64, 59, 55, 50, 45, 38]),
  'half step down': makeTuning('half step down', [63, 58, 54, 49, 44, 39]),
  'whole step down': makeTuning('whole step down', [62, 57, 53, 48, 43, 38]),
  'D A D G A D': makeTuning('D A D G A D', [62, 57, 55, 50, 45, 38]),
  'open G': makeTuning('open G', [62, 59, 55, 50, 43, 38]),
  'open D': makeTuning('open D', [62, 57, 54, 50, 45, 38]),
} as const satisfies Record<string, Tuning>;

/** The name of one of the `TUNINGS`. */
export type TuningName = keyof typeof TUNINGS;

/** Every tuning name, in the order a choice shows them. */
export const TUNING_NAMES = Object.keys(TUNINGS) as readonly TuningName[];

/** Whether a text names one of the `TUNINGS`. */
export function isTuningName(name: string): name is TuningName {
  return Object.hasOwn(TUNINGS, name);
}

/**
 * The open pitch of a string, MIDI.
 *
 * @throws RangeError when the tuning has no such string (string 1 is the thinnest).
 */
export function openMidi(tuning: Tuning, string: number): number {
  const midi = tuning.openMidis[string - 1];
  if (midi === undefined)
    throw new RangeError(`${tuning.name} has strings 1 to ${tuning.openMidis.length}, not ${string}`);
  return midi;
}

const LETTER_PITCH: Readonly<Record<string, number>> = NATURAL_PITCH;
const STRING_NOTE = /^([A-Ga-g])([#♯b♭]?)(-?\d)?$/;

/**
 * Reads a tuning: one of the `TUNINGS` by its name, or its open strings from the thickest to the thinnest,
 * `C2 G2 D3 A3 E4`, 4 to 9 of them. An octave that is left out is the one nearest to standard tuning, which can be
 * told for six strings only. Undefined where it is none of these.
 */
export function readTuning(text: string): Tuning | undefined {
  const name = text.trim();
  if (isTuningName(name)) return TUNINGS[name];
  const words = name.split(/[\s,]+/).filter(Boolean);
  const { min, max } = STRING_COUNT_RANGE;
  if (words.length < min || words.length > max) return undefined;
  const midis = words.map((word, index) =>
    readString(word, words.length === 6 ? openMidi(TUNINGS.standard, 6 - index) : undefined),
  );
  const known = midis.filter((midi) => midi !== undefined);
  const inRange = (midi: number) => midi >= OPEN_STRING_RANGE.min && midi <= OPEN_STRING_RANGE.max;
  if (known.length < midis.length || !known.every(inRange)) return undefined;
  return makeTuning(name, known.reverse());
}

function readString(word: string, near: number | undefined): number | undefined {
  const [, letter, sign, octave] = STRING_NOTE.exec(word) ?? [];
  if (letter === undefined || (octave === undefined && near === undefined)) return undefined;
  const pitch = (LETTER_PITCH[letter.toUpperCase()] ?? 0) + alterOf(sign);
  if (octave !== undefined) return pitch + 12 * (Number(octave) + 1);
  return pitch + 12 * Math.round(((near ?? 0) - pitch) / 12);
}
