export * from './tuning.ts';
export * from './pitch.ts';
