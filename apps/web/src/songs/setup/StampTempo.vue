<script setup lang="ts">
import { tempoFromStamps } from '@jam-ledger/core/form';
import { readMeter, COMMON_TIME } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { readClock } from '../../ui/index.ts';

const props = defineProps<{ meter: string }>();
const emit = defineEmits<{ tempo: [bpm: number] }>();

const from = ref('');
const to = ref('');
const bars = ref('');

const found = computed(() => {
  const [fromSeconds, toSeconds, count] = [readClock(from.value), readClock(to.value), Number(bars.value)];
  if (fromSeconds === undefined || toSeconds === undefined || !(count > 0)) return undefined;
  return tempoFromStamps(
    { fromSeconds, toSeconds },
    {
      bars: count,
      meter: readMeter(props.meter) ?? COMMON_TIME,
      stampSeconds: isWhole(from.value, to.value) ? 0.5 : 0.05,
    },
  );
});
const says = computed(() => {
  if (found.value) {
    const { bpm, min, max } = found.value;
    return `${bpm.toFixed(1)} bpm, between ${min.toFixed(1)} and ${max.toFixed(1)}`;
  }
  return [from.value, to.value, bars.value].every(Boolean)
    ? 'These tell no tempo.'
    : 'Two stamps and the bars between.';
});

/** Stamps in whole seconds leave half a second to each side, those with tenths a twentieth. */
function isWhole(...stamps: readonly string[]): boolean {
  return stamps.some((stamp) => !/[.,]\d/.test(stamp));
}
</script>

<template>
  <div class="stamps" role="group" aria-label="Tempo from two stamps">
    <InputText v-model="from" size="small" aria-label="From" placeholder="0:17" maxlength="9" />
    to
    <InputText v-model="to" size="small" aria-label="To" placeholder="0:40" maxlength="9" />
    are
    <InputText v-model="bars" size="small" aria-label="Bars between" placeholder="8" maxlength="4" /> bars
    <span class="soft" role="status">{{ says }}</span>
    <Button
      v-if="found"
      type="button"
      size="small"
      text
      label="Use this tempo"
      @click="emit('tempo', Math.round(found.bpm * 10) / 10)"
    />
  </div>
</template>

<style scoped>
.stamps {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.5rem;
  align-items: center;
  font-size: 0.9rem;
  grid-column: 1 / -1;
}
.stamps :deep(input) {
  width: 4.5rem;
}
</style>
