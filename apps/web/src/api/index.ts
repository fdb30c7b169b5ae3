export { keptRecordings, keptTakes, lastSeen, waitingLines } from './device.ts';
export type { KeptRecording, KeptTake, WaitingEntry, WaitingLines } from './device.ts';
export { EntryQueue } from './entryQueue.ts';
export { Refused, Unreachable } from './http.ts';
export { oneAfterAnother } from './oneAfterAnother.ts';
export { api, fileAddress, sendFile } from './studio.ts';
export { factsOf, sendParts } from './sounds.ts';
export type { Sending } from './sounds.ts';
