export * from './check.ts';
export * from './errors.ts';
export * from './session.ts';
export * from './requests.ts';
export * from './transcriptions.ts';
export * from './phrases.ts';
export { SONG_LIMITS } from './songLimits.ts';
export * from './pieces.ts';
