<script setup lang="ts">
import { LEDGER_STATES, type LedgerFilter } from './ledgerFilter.ts';

defineProps<{ songs: readonly { readonly id: string; readonly title: string }[]; shown: number; all: number }>();
const filter = defineModel<LedgerFilter>({ required: true });

const KINDS = [
  ['', 'all pieces'],
  ['phrase', 'phrases'],
  ['half', 'halves'],
  ['drill', 'hard spots'],
  ['join', 'joins'],
  ['run', 'runs'],
] as const;

function set(name: keyof LedgerFilter, event: Event): void {
  const { target } = event;
  if (target instanceof HTMLSelectElement || target instanceof HTMLInputElement)
    filter.value = { ...filter.value, [name]: target.value };
}
</script>

<template>
  <div class="filters" role="search" aria-label="Rows shown">
    <label
      >Song
      <select :value="filter.song" @change="set('song', $event)">
        <option value="">all songs</option>
        <option v-for="{ id, title } in songs" :key="id" :value="id">{{ title }}</option>
      </select>
    </label>
    <label
      >Standing
      <select :value="filter.state" @change="set('state', $event)">
        <option value="">all</option>
        <option v-for="state in LEDGER_STATES" :key="state">{{ state }}</option>
      </select>
    </label>
    <label
      >Pieces
      <select :value="filter.kind" @change="set('kind', $event)">
        <option v-for="[kind, words] in KINDS" :key="kind" :value="kind">{{ words }}</option>
      </select>
    </label>
    <label>Name <input type="search" :value="filter.words" @input="set('words', $event)" /></label>
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
select,
input {
  font: inherit;
  color: var(--ink);
  background: var(--page);
  border: 1px solid var(--rule-strong);
  padding: 0.2rem 0.4rem;
}
input {
  width: 9rem;
}
@media print {
  .filters {
    display: none;
  }
}
</style>
