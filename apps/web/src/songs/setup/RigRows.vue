<script setup lang="ts">
import { SONG_LIMITS, type RigNote } from '@jam-ledger/contract';
import InputText from 'primevue/inputtext';
import ClockField from './ClockField.vue';
import EditorRow from './EditorRow.vue';
import EditorRows from './EditorRows.vue';

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
  <EditorRows legend="Rig: pickup, pedals, tone" one="rig note" prefix="rig." :problems="problems" @add="add">
    <EditorRow
      v-for="(note, index) in rig"
      :key="index"
      :name="`rig note ${index + 1}`"
      @take-out="rig = rig.filter((_, at) => at !== index)"
    >
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
    </EditorRow>
  </EditorRows>
</template>

<style scoped>
.note {
  flex: 1;
  min-width: 12rem;
}
</style>
