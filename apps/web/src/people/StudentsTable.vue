<script setup lang="ts">
import type { Student } from '@jam-ledger/contract';
import Button from 'primevue/button';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import { shallowRef } from 'vue';
import { DownloadMenu, saveFile } from '../files/index.ts';
import { readNames, studentsTable, type NamesRead } from './studentsTable.ts';
import { chosenFile } from '../ui/index.ts';

const props = defineProps<{ students: readonly Student[]; enter: (names: readonly string[]) => Promise<void> }>();
/** What a table holds, shown before anybody is entered. */
const found = shallowRef<NamesRead>();

async function read(event: FileUploadSelectEvent): Promise<void> {
  const file = chosenFile(event);
  if (file)
    found.value = readNames(
      await file.text(),
      props.students.map(({ name }) => name),
    );
}

async function accept(): Promise<void> {
  const names = found.value?.names ?? [];
  found.value = undefined;
  await props.enter(names);
}

function save(): void {
  saveFile('Students.csv', studentsTable(props.students), 'text/csv;charset=utf-8');
}
</script>

<template>
  <div class="tables">
    <div v-if="found" role="group" aria-label="Students of the file">
      <p v-for="line in found.problems" :key="line" class="problem">{{ line }}</p>
      <p v-if="found.names.length > 0">{{ found.names.join(', ') }}</p>
      <Button
        v-if="found.names.length > 0"
        size="small"
        :label="found.names.length === 1 ? 'Add this student' : `Add these ${found.names.length} students`"
        @click="accept"
      />
      <Button size="small" text severity="secondary" label="Cancel" @click="found = undefined" />
    </div>
    <template v-else>
      <DownloadMenu :items="[{ label: 'Students as a table (CSV)', icon: 'pi pi-table', command: save }]" />
      <FileUpload
        mode="basic"
        custom-upload
        auto
        accept=".csv,text/csv"
        choose-label="Import from a table (CSV)"
        @select="read"
      />
    </template>
  </div>
</template>

<style scoped>
.tables {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.8rem;
}
</style>
