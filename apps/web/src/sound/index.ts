export { default as PlayBar } from './PlayBar.vue';
export { feelOf, soundOf, useListening } from './useListening.ts';
export type { PlayPlan } from './usePlayer.ts';
export type { Stretch } from './useListening.ts';
export { lazyWorker } from './worker.ts';
export { sharedContext } from './context.ts';
export { decodeFile, megabytes, mixed, NotTaken } from './decode.ts';
export type { SoundLimits } from './decode.ts';
