export * from './degrees.ts';
export * from './nameChord.ts';
export * from './scales.ts';
