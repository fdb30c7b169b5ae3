export { HEARING_KINDS, hearingList, MOST_POINTS } from './hearingList.ts';
export type { HearingKind, HearingOptions, HearingPoint } from './hearingList.ts';
