<script setup lang="ts" generic="Row extends object">
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { headed } from './headed.ts';
import type { TableColumn } from './tableColumn.ts';

/** A table that only tells: the library's, a row for each fact. A slot takes the place of what the first column says. */
defineProps<{ rows: readonly Row[]; columns: readonly TableColumn<Row>[]; label: string }>();
/** The first cell of a row names it. */
const NAMES_ROW = { bodyCell: { role: 'rowheader' } };
/** More columns than these have no room beside each other on a phone. */
const FEW_COLUMNS = 3;
defineSlots<{ first?: (props: { row: Row }) => unknown }>();
</script>

<template>
  <DataTable
    :value="[...rows]"
    size="small"
    scrollable
    :class="{ slips: columns.length > FEW_COLUMNS }"
    :table-props="{ 'aria-label': label }"
  >
    <Column
      v-for="(column, index) in columns"
      :key="column.head"
      :header="column.head"
      :class="column.look"
      :pt="index === 0 ? NAMES_ROW : headed(column.head)"
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
