export { default as NeckBoard } from './NeckBoard.vue';
export { default as TabPage } from './TabPage.vue';
export { SHORTCUTS, applyEdit, closeEditor, makeEditor, showProblems } from './editor/index.ts';
export type { HandPosition, HandReport, PlaceWishes, StrokeReport, WayReport } from './hands.worker.ts';
export { legendOf } from './legend.ts';
export { POLICY_OF_SCHOOL, askHands, jobOf, readerProblems, useHands } from './useHands.ts';
export type { HandsFor } from './useHands.ts';
export { tuningOf, useReading } from './useReading.ts';
