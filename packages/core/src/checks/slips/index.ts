export { FEATURES } from './features.ts';
export type { FeatureValues } from './features.ts';
export { SLIP_KINDS } from './readings.ts';
export type { Reading, SlipKind } from './readings.ts';
export { costOf, likeliestFret, logOddsOf, logSum, rewritten, slipsOf, weighReadings } from './slips.ts';
export type { LikelyReading, Slip, Weighed } from './slips.ts';
export { slipProblems } from './slipProblems.ts';
