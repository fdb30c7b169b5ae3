export * from './arpeggios.ts';
export * from './degrees.ts';
export * from './nameChord.ts';
export * from './scales.ts';
export { chordTones, chromaOf, chromaOfDegree, degreeAbove } from './names.ts';
export type { ChordTones } from './names.ts';
