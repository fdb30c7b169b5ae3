import type { FEATURES } from './features.ts';
import type { SlipKind } from './readings.ts';

/**
 * How much each feature speaks against a note, log-odds. Fitted by `npm run learn` to two thirds of the idioms of the corpus, rounded
 * to halves.
 */
export const WEIGHTS: Readonly<Record<(typeof FEATURES)[number], number>> = {
  key: 5.5,
  apart: 1,
  'apart on both sides': 3.5,
  'out of reach': 2.5,
  'out of the box': 3.5,
  'open far from open': 5,
  'new place': 1,
  'new figure': 0.5,
  'unison missed': 5.5,
  'new shape': 7,
  'wide stack': 7,
  'rub in a stack': 9,
  high: 4,
  leap: 5.5,
};

/** What a slip of each kind costs, log-odds against typing what was meant. Fitted with the weights. */
export const KIND_COSTS: Readonly<Record<SlipKind, number>> = {
  'one fret off': 2,
  'tens lost or gained': 2,
  'teen for ty': -0.5,
  'neighbour string': 3,
  'string that sounds alike': 2.5,
  'big E for little e': 1.5,
  'fret and string swapped': 1.5,
  'an octave off': 2,
  'size of the bend': 1.5,
  'finger said for fret': 7,
};

/** From these log-odds on a slip is told. Taken from idioms left out of fitting. */
export const THRESHOLD = 2.67;
