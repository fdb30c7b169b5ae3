export { HEARING_KINDS } from '../notation/index.ts';
export type { HearingKind } from '../notation/index.ts';
export { hearingList, MAX_POINTS } from './hearingList.ts';
export type { HearingOptions, HearingPoint } from './hearingList.ts';
