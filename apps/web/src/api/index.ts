export { keptTakes, lastSeen, waitingLines } from './device.ts';
export type { KeptTake, WaitingEntry, WaitingLines } from './device.ts';
export { EntryQueue } from './entryQueue.ts';
export { Refused, Unreachable } from './http.ts';
export { oneAfterAnother } from './oneAfterAnother.ts';
export { api, fileAddress, sendFile } from './studio.ts';
