export { default as RecordingBar } from './RecordingBar.vue';
export { default as WaveStrip } from './WaveStrip.vue';
export { useRecording } from './useRecording.ts';
export type { Heard } from './recordings.worker.ts';
export type { RecordedStretch } from './useRecording.ts';
