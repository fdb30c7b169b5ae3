export { checkPhrase } from './checkPhrase.ts';
export type { CheckCode, CheckOptions, HandProblem } from './problem.ts';
export { FASTEST_HAND_MM_PER_SECOND, FASTEST_LEGATO_PER_SECOND, FASTEST_PICK_PER_SECOND } from './speed.ts';
export { betterKey } from './keys.ts';
export {
  FEATURES,
  costOf,
  likeliestFret,
  logOddsOf,
  logSum,
  rewritten,
  SLIP_KINDS,
  slipsOf,
  weighReadings,
} from './slips/index.ts';
export type { FeatureValues, LikelyReading, Slip, SlipKind, Weighed } from './slips/index.ts';
