import { defineAsyncComponent, type Component } from 'vue';

export { default as RecordingBar } from './RecordingBar.vue';
/** Drawing waves comes with the first recording that is opened. */
export const WaveStrip = defineAsyncComponent(() => import('./WaveStrip.vue')) as Component;
export { useRecording } from './useRecording.ts';
export type { Heard } from './recordings.worker.ts';
export type { RecordedStretch } from './useRecording.ts';
