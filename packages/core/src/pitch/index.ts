export * from './tuning.ts';
export * from './pitch.ts';
export * from './keys.ts';
export * from './spell.ts';
export * from './reference.ts';
