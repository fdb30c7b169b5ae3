<script setup lang="ts">
import type { EntryRow, Ledger, LedgerPiece, OldEntry } from '@jam-ledger/contract';
import { writeCsv } from '@jam-ledger/core/formats';
import Button from 'primevue/button';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import { computed, shallowRef } from 'vue';
import { useRouter } from 'vue-router';
import { DownloadMenu, fileName, saveFile } from '../files/index.ts';
import { useNotices } from '../session/index.ts';
import { ENTRY_HEADINGS, entryRows, LEDGER_HEADINGS, ledgerRows } from './ledgerTable.ts';
import { readResults, type ResultsRead } from './readResults.ts';
import { chosenFile } from '../ui/index.ts';

const props = defineProps<{
  ledger: Ledger;
  shown: readonly LedgerPiece[];
  /** All results there are. */
  entries: () => Promise<readonly EntryRow[]>;
  /** Brings results of an older book in, where whoever looks may. */
  bring: ((entries: readonly OldEntry[]) => Promise<void>) | undefined;
}>();

const notices = useNotices();
const router = useRouter();
/** Results of a table, shown before they are kept. */
const found = shallowRef<ResultsRead>();

function save(what: string, csv: string): void {
  saveFile(fileName(`${what} of ${props.ledger.student.name}`, 'csv'), csv, 'text/csv;charset=utf-8');
}

const items = computed(() => [
  {
    label: 'These rows as a table (CSV)',
    icon: 'pi pi-table',
    command: () => save('Ledger', writeCsv(LEDGER_HEADINGS, ledgerRows(props.shown))),
  },
  {
    label: 'All results as a table (CSV)',
    icon: 'pi pi-list',
    command: () =>
      void notices.tell(async () => save('Results', writeCsv(ENTRY_HEADINGS, entryRows(await props.entries())))),
  },
  ...props.ledger.songs.map(({ id, title }) => ({
    label: `Handout of ${title}`,
    icon: 'pi pi-file',
    command: () => void router.push({ name: 'sheet', params: { id } }),
  })),
]);

async function read(event: FileUploadSelectEvent): Promise<void> {
  const file = chosenFile(event);
  if (file) found.value = readResults(await file.text(), props.ledger.pieces, props.ledger.today);
}

async function accept(): Promise<void> {
  const entries = found.value?.entries ?? [];
  found.value = undefined;
  await props.bring?.(entries);
}
</script>

<template>
  <div v-if="found" class="found" role="group" aria-label="Results of the file">
    <p v-for="line in found.problems.slice(0, 20)" :key="line" class="problem">{{ line }}</p>
    <p v-if="found.problems.length > 20" class="problem">And {{ found.problems.length - 20 }} more like these.</p>
    <Button
      v-if="found.entries.length > 0 && found.problems.length === 0"
      size="small"
      :label="`Enter ${found.entries.length === 1 ? 'one result' : `${found.entries.length} results`} in ink`"
      @click="accept"
    />
    <p v-else>Nothing is added while a line is wrong.</p>
    <Button size="small" text severity="secondary" label="Cancel" @click="found = undefined" />
  </div>
  <template v-else>
    <DownloadMenu :items="items" />
    <FileUpload
      v-if="bring"
      mode="basic"
      custom-upload
      auto
      accept=".csv,text/csv"
      choose-label="Import from a table (CSV)"
      :choose-button-props="{ size: 'small', text: true }"
      @select="read"
    />
  </template>
</template>

<style scoped>
.found {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
}
.found p {
  margin: 0;
}
</style>
