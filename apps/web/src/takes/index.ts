export { default as TakePanel } from './TakePanel.vue';
export { default as BendTry } from './BendTry.vue';
export { default as SentTakes } from './SentTakes.vue';
export { useSentTakes } from './sentTakes.ts';
export { default as TunerPanel } from './TunerPanel.vue';
export { flagsOf } from './takeWords.ts';
export { useTake } from './useTake.ts';
