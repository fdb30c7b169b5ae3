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
const SIX_STRINGS = new RegExp(`^${'([A-Ga-g][#♯b♭]?)'.repeat(6)}$`);
const STRING_NOTE = /^([A-Ga-g])([#♯b♭]?)(-?\d)?$/;

/**
 * Reads a tuning as people say it: one of the `TUNINGS` by its name, whatever its capitals, `drop c`, `Eb`, `half step down`; or its
 * open strings from the thickest to the thinnest, `C2 G2 D3 A3 E4`, 4 to 9 of them, six also in one word, `DADGBE`. An octave that is
 * left out is the one nearest to standard tuning, which can be told for six strings only. Undefined where it is none of these.
 */
export function readTuning(text: string): Tuning | undefined {
  const name = text.trim();
  return namedTuning(name) ?? tuningOfStrings(name);
}

/** A tuning by what it is called. Names: common practice. */
function namedTuning(name: string): Tuning | undefined {
  const said = name.toLowerCase().replaceAll('♭', 'b').replaceAll('♯', '#').replaceAll(/\s+/g, ' ');
  const known = TUNING_NAMES.find((one) => one.toLowerCase() === said);
  if (known) return TUNINGS[known];
  const [, half, whole] =
    /^(?:(?:a )?(half|1\/2)|(?:a )?(whole|full|1|one))[ -]step (?:down|low(?:er)?)$/.exec(said) ?? [];
  if (half !== undefined) return TUNINGS['half step down'];
  if (whole !== undefined) return TUNINGS['whole step down'];
  const [, drop, low = ''] = /^(drop(?:ped)? )?([a-g][#b]?)(?: standard| tuning)?$/.exec(said) ?? [];
  const pitch = low === '' ? undefined : readString(low, openMidi(TUNINGS.standard, 6));
  if (pitch === undefined || pitch > openMidi(TUNINGS.standard, 6)) return undefined;
  // Dropped, the thickest string lies a whole step under where the others have it.
  const down = openMidi(TUNINGS.standard, 6) - pitch - (drop === undefined ? 0 : DROP_SEMITONES);
  if (down < 0 || down > LOWEST_BY_NAME) return undefined;
  const opens = TUNINGS.standard.openMidis.map((midi) => midi - down);
  const same = TUNING_NAMES.find((one) => drop === undefined && TUNINGS[one].openMidis.join() === opens.join());
  if (same) return TUNINGS[same];
  return makeTuning(name, drop === undefined ? opens : opens.with(-1, pitch));
}

const DROP_SEMITONES = 2;
/** So far below standard tuning a name alone is understood, semitones. Our choice. */
const LOWEST_BY_NAME = 6;

/** Open strings, each for itself or six in one word. */
function tuningOfStrings(name: string): Tuning | undefined {
  const joined = SIX_STRINGS.exec(name)?.slice(1);
  const words = joined ?? name.split(/[\s,]+/).filter(Boolean);
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
