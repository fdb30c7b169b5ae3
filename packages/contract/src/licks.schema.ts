import { TECHNIQUES } from '@jam-ledger/core/notation';
import { HIGHEST_FRET } from '@jam-ledger/core/pitch';
import Joi from 'joi';
import { LICK_LIMITS, type LickQuery } from './licks.ts';
import { asText, between, id, oneOf, optional, shape, typed, whole } from './typed.ts';

const pattern = (letters: RegExp) => optional(typed<string>(Joi.string().max(LICK_LIMITS.pattern).pattern(letters)));
const words = (max: number) => optional(typed<string>(Joi.string().max(max)));
const fret = () => optional(asText(whole({ min: 0, max: HIGHEST_FRET })));
const bpm = () => optional(asText(between({ min: 1, max: LICK_LIMITS.bpm })));

/** Checks `LickQuery`. */
export const lickQuerySchema = shape<LickQuery>({
  technique: optional(oneOf(TECHNIQUES)),
  chord: words(LICK_LIMITS.chord),
  degrees: pattern(/^[b#\d ]+$/),
  shape: pattern(/^[-\d, ]+$/),
  steps: pattern(/^[-\d ]+$/),
  lowestFret: fret(),
  highestFret: fret(),
  slowest: bpm(),
  fastest: bpm(),
  words: words(LICK_LIMITS.words),
  like: optional(id()),
});
