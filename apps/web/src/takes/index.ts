export { default as TakePanel } from './TakePanel.vue';
export { flagsOf } from './takeWords.ts';
export { useTake } from './useTake.ts';
