<script setup lang="ts" generic="Row extends object">
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import type { TableColumn } from './tableColumn.ts';

/** A table that only tells: the library's, a row for each fact. A slot takes the place of what the first column says. */
defineProps<{ rows: readonly Row[]; columns: readonly TableColumn<Row>[]; label: string }>();
/** The first cell of a row names it. */
const NAMES_ROW = { bodyCell: { role: 'rowheader' } };
defineSlots<{ first?: (props: { row: Row }) => unknown }>();
</script>

<template>
  <DataTable :value="[...rows]" size="small" scrollable :table-props="{ 'aria-label': label }">
    <Column
      v-for="(column, index) in columns"
      :key="column.head"
      :header="column.head"
      :class="column.look"
      :pt="index === 0 ? NAMES_ROW : {}"
    >
      <template #body="{ data: row }: { data: Row }">
        <slot v-if="index === 0 && $slots.first" name="first" :row="row" />
        <template v-else
          >{{ column.says(row) }} <span v-if="column.aside" class="soft">{{ column.aside(row) }}</span></template
        >
      </template>
    </Column>
  </DataTable>
</template>

<style scoped>
:deep(:is(th, td)) {
  overflow-wrap: anywhere;
  min-width: 3rem;
}
:deep(.number) {
  font-variant-numeric: tabular-nums;
}
</style>
