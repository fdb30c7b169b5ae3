<script setup lang="ts">
import type { LoudnessOver } from '@jam-ledger/core/listen';
import { computed, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import WaveSurfer from 'wavesurfer.js';
import { clockText, token } from '../ui/index.ts';
import type { OpenRecording, RecordedStretch } from './useRecording.ts';

const props = defineProps<{
  recording: OpenRecording;
  perSecond: number;
  /** How loud it is over time, once that is known. */
  loud: LoudnessOver | undefined;
  /** The stretch that goes round and round. */
  loop: RecordedStretch | undefined;
}>();

const root = useTemplateRef<HTMLElement>('root');
let wave: WaveSurfer | undefined;

function draw(): void {
  wave?.destroy();
  if (!root.value) return;
  const { peaks, seconds } = props.recording;
  const colour = token('--cool');
  wave = WaveSurfer.create({
    ...{ container: root.value, height: HEIGHT, peaks: [peaks], duration: seconds, normalize: true },
    ...{ waveColor: colour, progressColor: colour, cursorWidth: 0, interact: false, hideScrollbar: true },
  });
}
const measured = computed(() => props.loud ?? { values: new Float32Array(0), hopSeconds: 1 });
const loudest = computed(() => measured.value.values.reduce((most, one) => Math.max(most, one), -Infinity));
/** The loudness as a line, the loudest moment on top. */
const line = computed(() => {
  const { values, hopSeconds } = measured.value;
  const place = (value: number) => HEIGHT * Math.min(1, (loudest.value - value) / LINE_DB);
  return [...values].map((value, at) => `${(at + 2) * hopSeconds},${place(value).toFixed(1)}`).join(' ');
});
const says = computed(() => {
  const at = measured.value.values.indexOf(loudest.value);
  const where = at < 0 ? '' : `, loudest at ${clockText(Math.round(at * measured.value.hopSeconds))}`;
  return `Loudness of the recording ${props.recording.name}${where}`;
});
onMounted(draw);
watch(() => props.recording, draw);
onBeforeUnmount(() => wave?.destroy());
</script>

<script lang="ts">
/** Pixels of the waveform. */
const HEIGHT = 38;
/** So much softer than the loudest moment is at the foot of the line, decibels. */
const LINE_DB = 36;
</script>

<template>
  <div class="wave-row" :style="{ height: `${HEIGHT}px` }">
    <div ref="root" role="img" :aria-label="says" :style="{ width: `${recording.seconds * perSecond}px` }"></div>
    <svg
      v-if="line"
      class="loud"
      aria-hidden="true"
      preserveAspectRatio="none"
      :viewBox="`0 0 ${recording.seconds} ${HEIGHT}`"
      :style="{ width: `${recording.seconds * perSecond}px`, height: `${HEIGHT}px` }"
    >
      <polyline :points="line" />
    </svg>
    <div
      v-if="loop"
      class="loop"
      :style="{ left: `${loop.from * perSecond}px`, width: `${(loop.to - loop.from) * perSecond}px` }"
    ></div>
  </div>
</template>

<style scoped>
.wave-row {
  position: relative;
  border-top: 1px solid var(--rule);
  pointer-events: none;
}
.loud {
  position: absolute;
  top: 0;
  left: 0;
}
.loud polyline {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.loop {
  position: absolute;
  top: 0;
  bottom: 0;
  border: solid var(--warm);
  border-width: 0 2px;
  background: color-mix(in srgb, var(--warm) 14%, transparent);
}
</style>
