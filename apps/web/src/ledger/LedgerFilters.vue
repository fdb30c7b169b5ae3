<script setup lang="ts">
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { useId } from 'vue';
import { LEDGER_STATES, type LedgerFilter } from './ledgerFilter.ts';

defineProps<{ songs: readonly { readonly id: string; readonly title: string }[]; shown: number; all: number }>();
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
const id = useId();

function set(name: keyof LedgerFilter, value: string | undefined): void {
  filter.value = { ...filter.value, [name]: value ?? '' };
}
</script>

<template>
  <div class="filters" role="search" aria-label="Rows shown">
    <span
      ><span :id="`${id}-song`">Song</span>
      <Select
        size="small"
        :model-value="filter.song"
        :aria-labelledby="`${id}-song`"
        placeholder="all songs"
        :options="[{ id: '', title: 'all songs' }, ...songs]"
        option-label="title"
        option-value="id"
        @update:model-value="set('song', $event)"
    /></span>
    <span
      ><span :id="`${id}-state`">Standing</span>
      <Select
        size="small"
        :model-value="filter.state"
        :aria-labelledby="`${id}-state`"
        placeholder="all"
        :options="STATES"
        option-label="says"
        option-value="value"
        @update:model-value="set('state', $event)"
    /></span>
    <span
      ><span :id="`${id}-kind`">Pieces</span>
      <Select
        size="small"
        :model-value="filter.kind"
        :aria-labelledby="`${id}-kind`"
        placeholder="all pieces"
        :options="KINDS"
        option-label="says"
        option-value="value"
        @update:model-value="set('kind', $event)"
    /></span>
    <label
      >Name
      <InputText size="small" type="search" :model-value="filter.words" @update:model-value="set('words', $event)"
    /></label>
    <span class="soft" role="status">{{ shown === all ? `${all} rows` : `${shown} of ${all} rows` }}</span>
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
