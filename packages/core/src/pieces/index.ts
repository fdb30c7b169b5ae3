export * from './ladder.ts';
export * from './result.ts';
export * from './nextStep.ts';
export * from './cut.ts';
export * from './graph.ts';
export { assemble, cutPoints, phraseToCut } from './excerpt.ts';
export type { Assembled, CutPoint, PhraseToCut } from './excerpt.ts';
export { floorTempo, startTempo, temposOf } from './startTempo.ts';
export type { PieceTempos, Shown, TempoAdvice, TimedPhrase } from './startTempo.ts';
