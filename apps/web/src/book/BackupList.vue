<script setup lang="ts">
import type { Backup } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { addressOf, sizeText } from './book.ts';

defineProps<{
  backups: readonly Backup[];
  /** Whether something is done with the book just now. */
  busy: boolean;
  when: (moment: string) => string;
}>();
const emit = defineEmits<{ restore: [backup: Backup] }>();
</script>

<template>
  <DataTable :value="[...backups]" data-key="file" size="small" class="backups slips" scrollable>
    <Column header="Made">
      <template #body="{ data }: { data: Backup }">{{ when(data.madeAt) }}</template>
    </Column>
    <Column header="Why">
      <template #body="{ data }: { data: Backup }">
        <span v-if="data.trouble" class="trouble">{{ data.trouble }}</span>
        <template v-else>{{ data.why }}</template>
      </template>
    </Column>
    <Column header="Size">
      <template #body="{ data }: { data: Backup }">{{ sizeText(data.bytes) }}, {{ data.rows }} rows</template>
    </Column>
    <Column>
      <template #header><span class="unseen">Acts</span></template>
      <template #body="{ data }: { data: Backup }">
        <span class="acts">
          <Button
            as="a"
            size="small"
            text
            label="Download"
            :href="addressOf(data)"
            :download="data.file"
            :aria-label="`Download the backup of ${when(data.madeAt)}`"
          />
          <Button
            v-if="data.trouble === null"
            size="small"
            text
            severity="secondary"
            label="Restore"
            :disabled="busy"
            :aria-label="`Restore the backup of ${when(data.madeAt)}`"
            @click="emit('restore', data)"
          />
        </span>
      </template>
    </Column>
  </DataTable>
</template>

<style scoped>
.backups {
  margin: 0.8rem 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
}
.trouble {
  color: var(--warm);
}
</style>
