/** Ticks to the quarter note: triplets, fives, sevens, nines and dotted 64ths stay whole. Our choice. */
export const TICKS_PER_QUARTER = 20_160;

/** Ticks to the whole note. */
export const TICKS_PER_WHOLE = 4 * TICKS_PER_QUARTER;

/** What a grace note takes from the event after it: a 32nd, ticks. Our choice. */
export const GRACE_TICKS = TICKS_PER_WHOLE / 32;

/** The undotted note values, as the bottom number of their fraction of a whole note. */
export const BASE_VALUES = [1, 2, 4, 8, 16, 32, 64] as const;
/** One of the `BASE_VALUES`. */
export type BaseValue = (typeof BASE_VALUES)[number];

/**
 * How many notes are played in the time of how many: `TUPLET_TIMES[5]` is 4, five in the time of four.
 * Source: common practice (the nearest lower power of two).
 */
export const TUPLET_TIMES = { 3: 2, 5: 4, 6: 4, 7: 4, 9: 8, 10: 8, 12: 8 } as const;
/** A tuplet number that can be written. */
export type TupletNumber = keyof typeof TUPLET_TIMES;

/** A length that is known: a base value, up to two dots, perhaps inside a tuplet. */
export interface TimedValue {
  readonly base: BaseValue;
  readonly dots: 0 | 1 | 2;
  readonly tuplet?: TupletNumber;
}

/** A written length: timed, `untimed` (order only), or `grace` (before the beat). */
export type NoteValue = TimedValue | 'untimed' | 'grace';

/** The value a phrase starts with: the eighth. */
export const STARTING_VALUE: TimedValue = { base: 8, dots: 0 };

/** Ticks in a timed value; always a whole number. */
export function ticksOfTimed({ base, dots, tuplet }: TimedValue): number {
  const dotted = ((TICKS_PER_WHOLE / base) * (2 ** (dots + 1) - 1)) / 2 ** dots;
  return tuplet === undefined ? dotted : (dotted * TUPLET_TIMES[tuplet]) / tuplet;
}

/** Ticks a value occupies in its bar: an untimed event is spaced as an eighth, a grace note takes none. */
export function ticksOf(value: NoteValue): number {
  if (value === 'grace') return 0;
  return ticksOfTimed(value === 'untimed' ? STARTING_VALUE : value);
}

const VALUE = /^(64|32|16|8|4|2|1)(\.{0,2})(?:t(3|5|6|7|9|10|12)?)?$/;
const INNER_TUPLET = /t/;

/**
 * Reads what stands after the slash: `16`, `8.`, `8t` (three in the time of two), `16t5`, `?`, `g`.
 * Undefined when it is none of these.
 */
export function readValue(text: string): NoteValue | undefined {
  if (text === '?') return 'untimed';
  if (text === 'g') return 'grace';
  const match = VALUE.exec(text);
  if (!match) return undefined;
  const base = BASE_VALUES.find((value) => String(value) === match[1]);
  const dots = DOTS.find((count) => count === (match[2] ?? '').length);
  if (base === undefined || dots === undefined) return undefined;
  if (!INNER_TUPLET.test(text)) return { base, dots };
  const tuplet = TUPLET_NUMBERS.find((number) => String(number) === (match[3] ?? '3'));
  return tuplet === undefined ? undefined : { base, dots, tuplet };
}

const DOTS = [0, 1, 2] as const;
const TUPLET_NUMBERS = [3, 5, 6, 7, 9, 10, 12] as const satisfies readonly TupletNumber[];

/** The canonical text of a value, without its slash. */
export function writeValue(value: NoteValue): string {
  if (value === 'untimed') return '?';
  if (value === 'grace') return 'g';
  const tuplet = value.tuplet === undefined ? '' : value.tuplet === 3 ? 't' : `t${value.tuplet}`;
  return `${value.base}${'.'.repeat(value.dots)}${tuplet}`;
}

/** Whether two values are written alike. */
export function sameValue(a: NoteValue, b: NoteValue): boolean {
  return writeValue(a) === writeValue(b);
}

/** The single plain or dotted value that lasts so many ticks, or undefined when there is none. */
export function valueOfTicks(ticks: number): TimedValue | undefined {
  for (const base of BASE_VALUES)
    for (const dots of DOTS) if (ticksOfTimed({ base, dots }) === ticks) return { base, dots };
  return undefined;
}

/** A meter: `beats` of the value 1/`unit`. */
export interface Meter {
  readonly beats: number;
  readonly unit: number;
}

/** The meter where nothing else is said. */
export const COMMON_TIME: Meter = { beats: 4, unit: 4 };

/** Most beats a meter may have. Our choice. */
export const MAX_BEATS = 32;

/** Reads `3/4`, `12/8`; undefined when it is not a meter of 1-32 beats of a whole, half … 32nd. */
export function readMeter(text: string): Meter | undefined {
  const match = /^(\d{1,2})\/(1|2|4|8|16|32)$/.exec(text);
  const beats = Number(match?.[1]);
  if (!match || beats < 1 || beats > MAX_BEATS) return undefined;
  return { beats, unit: Number(match[2]) };
}

/** Whether two meters are the same. */
export function sameMeter(a: Meter, b: Meter): boolean {
  return a.beats === b.beats && a.unit === b.unit;
}

/** The text of a meter, `3/4`. */
export function writeMeter(meter: Meter): string {
  return `${meter.beats}/${meter.unit}`;
}

/** Ticks in a full bar of a meter. */
export function barTicks(meter: Meter): number {
  return (meter.beats * TICKS_PER_WHOLE) / meter.unit;
}

/** A length in ticks as a reduced fraction of a whole note, `5/4`, `0`, `2`. */
export function fractionOfWhole(ticks: number): string {
  const divisor = greatestCommonDivisor(ticks, TICKS_PER_WHOLE);
  const top = ticks / divisor;
  const bottom = TICKS_PER_WHOLE / divisor;
  return bottom === 1 ? String(top) : `${top}/${bottom}`;
}

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a || 1 : greatestCommonDivisor(b, a % b);
}

/** The beat at a place of a bar, from 1; a beat is the unit of the meter. `at` in ticks from the bar line. */
export function beatOf(at: number, { unit }: Meter): number {
  return 1 + Math.floor(at / (TICKS_PER_WHOLE / unit));
}

/** Where something stands, for a person: `bar 2, beat 3`; `note 6` where only the order is known. Bars, beats and notes count from 1. */
export function sayPlace(place: {
  readonly timed: boolean;
  readonly bar: number;
  /** Ticks from the start of its bar. */
  readonly at: number;
  readonly meter: Meter;
  readonly note: number;
}): string {
  return place.timed ? `bar ${place.bar}, beat ${beatOf(place.at, place.meter)}` : `note ${place.note}`;
}
