<script setup lang="ts">
import { SONG_LIMITS, type RigNote } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import ClockField from './ClockField.vue';
import ProblemLines from './ProblemLines.vue';

defineProps<{ problems: Readonly<Record<string, string>> }>();
const rig = defineModel<readonly RigNote[]>({ required: true });

function add(): void {
  rig.value = [...rig.value, { fromSeconds: rig.value.at(-1)?.toSeconds ?? 0, toSeconds: null, note: '' }];
}

function set(index: number, change: Partial<RigNote>): void {
  rig.value = rig.value.map((one, at) => (at === index ? { ...one, ...change } : one));
}
</script>

<template>
  <fieldset class="rows">
    <legend>Rig: pickup, pedals, tone</legend>
    <div v-for="(note, index) in rig" :key="index" class="row">
      from
      <ClockField
        :model-value="note.fromSeconds"
        :label="`Rig note ${index + 1} from`"
        @update:model-value="set(index, { fromSeconds: $event ?? 0 })"
      />
      to
      <ClockField
        :model-value="note.toSeconds"
        :label="`Rig note ${index + 1} to`"
        optional
        placeholder="the end"
        @update:model-value="set(index, { toSeconds: $event })"
      />
      <InputText
        :model-value="note.note"
        class="note"
        size="small"
        placeholder="bridge pickup, driven"
        :aria-label="`Rig note ${index + 1}`"
        :maxlength="SONG_LIMITS.rigNote"
        @update:model-value="set(index, { note: $event ?? '' })"
      />
      <Button
        size="small"
        text
        severity="secondary"
        icon="pi pi-times"
        :aria-label="`Take rig note ${index + 1} out`"
        @click="rig = rig.filter((_, at) => at !== index)"
      />
    </div>
    <ProblemLines :problems="problems" prefix="rig." />
    <Button size="small" text label="Add a rig note" @click="add" />
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
.note {
  flex: 1;
  min-width: 12rem;
}
</style>
