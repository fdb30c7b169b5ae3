<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, useId } from 'vue';
import { LEDGER_STATES, type LedgerFilter } from './ledgerFilter.ts';

const props = defineProps<{
  songs: readonly { readonly id: string; readonly title: string }[];
  shown: number;
  all: number;
}>();
const filter = defineModel<LedgerFilter>({ required: true });

const KINDS = [
  { value: '', says: 'all pieces' },
  { value: 'phrase', says: 'phrases' },
  { value: 'half', says: 'halves' },
  { value: 'drill', says: 'hard spots' },
  { value: 'join', says: 'joins' },
  { value: 'run', says: 'runs' },
];

const STATES = [{ value: '', says: 'all' }, ...LEDGER_STATES.map((state) => ({ value: state, says: state }))];
const choices = computed(() => {
  const songs = [{ value: '', says: 'all songs' }, ...props.songs.map(({ id, title }) => ({ value: id, says: title }))];
  return [
    { name: 'song', label: 'Song', options: songs },
    { name: 'state', label: 'Standing', options: STATES },
    { name: 'kind', label: 'Pieces', options: KINDS },
  ] as const;
});
const id = useId();

function set(name: keyof LedgerFilter, value: string | undefined): void {
  filter.value = { ...filter.value, [name]: value ?? '' };
}
</script>

<template>
  <div class="filters" role="search" aria-label="Rows shown">
    <span v-for="{ name, label, options } in choices" :key="name"
      ><span :id="`${id}-${name}`">{{ label }}</span>
      <Select
        size="small"
        :model-value="filter[name]"
        :aria-labelledby="`${id}-${name}`"
        :placeholder="options[0]?.says"
        :options="options"
        option-label="says"
        option-value="value"
        @update:model-value="set(name, $event)"
    /></span>
    <label
      >Name
      <InputText size="small" type="search" :model-value="filter.words" @update:model-value="set('words', $event)"
    /></label>
    <span class="soft" role="status"
      >{{ shown === all ? '' : `${shown} of ` }}{{ all }} {{ all === 1 ? 'row' : 'rows' }}</span
    >
  </div>
</template>

<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
  margin-bottom: 0.6rem;
  font-size: 0.92rem;
}
.filters > span,
.filters > label {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}
.filters :deep(input) {
  width: 9rem;
}
@media print {
  .filters {
    display: none;
  }
}
</style>
