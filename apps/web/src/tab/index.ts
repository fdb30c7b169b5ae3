export { default as NeckBoard } from './NeckBoard.vue';
export { default as InWords } from './InWords.vue';
export { default as TabPage } from './TabPage.vue';
export { SHORTCUTS, applyEdit, loadedEditor, loadEditor } from './editor/index.ts';
export type { Editor } from './editor/index.ts';
export type { HandPosition, HandReport, PlaceWishes, StrokeReport, WayReport } from './hands.worker.ts';
export {
  laySystems,
  loadMusicFont,
  loadNotation,
  notation,
  MUSIC_FONT,
  piecesOf,
  musicUrl,
} from './engraving/index.ts';
export type { LaidSystem, TabFlag } from './engraving/index.ts';
export { legendOf } from './legend.ts';
export { POLICY_OF_SCHOOL, askHands, jobOf, readerProblems, useHands } from './useHands.ts';
export type { HandsFor } from './useHands.ts';
export { tuningOf, useReading } from './useReading.ts';
