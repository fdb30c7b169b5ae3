<script setup lang="ts">
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import WaveSurfer from 'wavesurfer.js';
import { token } from '../ui/index.ts';
import type { OpenRecording, RecordedStretch } from './useRecording.ts';

const props = defineProps<{
  recording: OpenRecording;
  perSecond: number;
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
onMounted(draw);
watch(() => props.recording, draw);
onBeforeUnmount(() => wave?.destroy());
</script>

<script lang="ts">
/** Pixels of the waveform. */
const HEIGHT = 38;
</script>

<template>
  <div class="wave-row" :style="{ height: `${HEIGHT}px` }">
    <div
      ref="root"
      role="img"
      :aria-label="`Loudness of the recording ${recording.name}`"
      :style="{ width: `${recording.seconds * perSecond}px` }"
    ></div>
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
.loop {
  position: absolute;
  top: 0;
  bottom: 0;
  border: solid var(--warm);
  border-width: 0 2px;
  background: color-mix(in srgb, var(--warm) 14%, transparent);
}
</style>
