<script setup lang="ts">
import { tempoFromTaps } from '@jam-ledger/core/form';
import Button from 'primevue/button';
import { computed, ref } from 'vue';

const emit = defineEmits<{ tempo: [bpm: number] }>();

/** A pause after which tapping begins anew, milliseconds. Our choice. */
const ANEW_MS = 3000;
const MAX_TAPS = 40;

const taps = ref<readonly number[]>([]);
const tapped = computed(() => tempoFromTaps(taps.value.map((time) => time / 1000)));
const says = computed(() => {
  if (taps.value.length === 0) return 'Tap along with the quarters.';
  if (!tapped.value) return `${taps.value.length} ${taps.value.length === 1 ? 'tap' : 'taps'}, go on …`;
  const { bpm, min, max, missed } = tapped.value;
  const skipped = missed === 0 ? '' : `, ${missed} missed`;
  return `${bpm.toFixed(1)} bpm, between ${min.toFixed(1)} and ${max.toFixed(1)}${skipped}`;
});

function tap(): void {
  const now = performance.now();
  const before = taps.value.at(-1);
  taps.value = before === undefined || now - before > ANEW_MS ? [now] : [...taps.value, now].slice(-MAX_TAPS);
}

function use(): void {
  if (tapped.value) emit('tempo', Math.round(tapped.value.bpm * 10) / 10);
}
</script>

<template>
  <div class="tap" role="group" aria-label="Tapping">
    <Button type="button" size="small" outlined label="Tap" @pointerdown="tap" @keydown.space.prevent="tap" />
    <span class="soft" role="status">{{ says }}</span>
    <Button v-if="tapped" type="button" size="small" text label="Use it" @click="use" />
  </div>
</template>

<style scoped>
.tap {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.6rem;
  align-items: center;
  font-size: 0.9rem;
  grid-column: 1 / -1;
}
</style>
