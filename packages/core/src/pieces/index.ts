export * from './ladder.ts';
export * from './result.ts';
export * from './nextStep.ts';
export * from './cut.ts';
export * from './graph.ts';
export { assemble, cutPlaces, phraseToCut } from './stretch.ts';
export type { Assembled, CutPlace, PhraseToCut } from './stretch.ts';
export { floorTempo, startTempo, temposOf } from './startTempo.ts';
export type { PieceTempos, Shown, TempoAdvice, TimedPhrase } from './startTempo.ts';
