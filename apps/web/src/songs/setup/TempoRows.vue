<script setup lang="ts">
import { SONG_LIMITS, type TempoMark } from '@jam-ledger/contract';
import { TEMPO_RANGE } from '@jam-ledger/core/notation';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import ClockField from './ClockField.vue';
import EditorRow from './EditorRow.vue';
import EditorRows from './EditorRows.vue';

defineProps<{ problems: Readonly<Record<string, string>> }>();
const changes = defineModel<readonly TempoMark[]>({ required: true });

function add(): void {
  const last = changes.value.at(-1);
  changes.value = [...changes.value, { atSeconds: 0, tempo: 100, meter: '4/4', ...last, key: '' }];
}

function set(index: number, change: Partial<TempoMark>): void {
  changes.value = changes.value.map((one, at) => (at === index ? { ...one, ...change } : one));
}
</script>

<template>
  <EditorRows legend="Changes of tempo, meter and key" one="change" prefix="changes." :problems="problems" @add="add">
    <EditorRow
      v-for="(change, index) in changes"
      :key="index"
      class="change"
      :name="`change ${index + 1}`"
      @take-out="changes = changes.filter((_, at) => at !== index)"
    >
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
      key
      <InputText
        :model-value="change.key"
        size="small"
        :aria-label="`Key of change ${index + 1}`"
        placeholder="as before"
        :maxlength="SONG_LIMITS.key"
        @update:model-value="set(index, { key: $event ?? '' })"
      />
    </EditorRow>
  </EditorRows>
</template>

<style scoped>
.change :deep(input) {
  width: 4.8rem;
}
</style>
