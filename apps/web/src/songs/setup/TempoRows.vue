<script setup lang="ts">
import type { TempoMark } from '@jam-ledger/contract';
import { TEMPO_RANGE } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import ClockField from './ClockField.vue';
import ProblemLines from './ProblemLines.vue';

defineProps<{ problems: Readonly<Record<string, string>> }>();
const changes = defineModel<readonly TempoMark[]>({ required: true });

function add(): void {
  const last = changes.value.at(-1);
  changes.value = [...changes.value, last ?? { atSeconds: 0, tempo: 100, meter: '4/4' }];
}

function set(index: number, change: Partial<TempoMark>): void {
  changes.value = changes.value.map((one, at) => (at === index ? { ...one, ...change } : one));
}
</script>

<template>
  <fieldset class="rows">
    <legend>Changes of tempo and meter</legend>
    <div v-for="(change, index) in changes" :key="index" class="row">
      from
      <ClockField
        :model-value="change.atSeconds"
        :label="`Change ${index + 1} at`"
        @update:model-value="set(index, { atSeconds: $event ?? 0 })"
      />
      on
      <InputNumber
        :model-value="change.tempo"
        size="small"
        :aria-label="`Tempo of change ${index + 1}`"
        :min="0"
        :max="TEMPO_RANGE.max"
        :max-fraction-digits="1"
        :use-grouping="false"
        @update:model-value="set(index, { tempo: $event ?? 0 })"
      />
      bpm in
      <InputText
        :model-value="change.meter"
        size="small"
        :aria-label="`Meter of change ${index + 1}`"
        maxlength="5"
        @update:model-value="set(index, { meter: $event ?? '' })"
      />
      <Button
        size="small"
        text
        severity="secondary"
        icon="pi pi-times"
        :aria-label="`Take change ${index + 1} out`"
        @click="changes = changes.filter((_, at) => at !== index)"
      />
    </div>
    <ProblemLines :problems="problems" prefix="changes." />
    <Button size="small" text label="Add a change" @click="add" />
  </fieldset>
</template>

<style scoped>
.rows {
  grid-column: 1 / -1;
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
  padding: 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.5rem;
  align-items: center;
  padding: 0.1rem 0;
  font-size: 0.92rem;
}
.row :deep(input) {
  width: 4.8rem;
}
</style>
