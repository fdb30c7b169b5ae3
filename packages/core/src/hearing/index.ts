export { HEARING_KINDS, hearingList, MAX_POINTS } from './hearingList.ts';
export type { HearingKind, HearingOptions, HearingPoint } from './hearingList.ts';
