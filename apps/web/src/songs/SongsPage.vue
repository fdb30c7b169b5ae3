<script setup lang="ts">
import { storeToRefs } from 'pinia';
import type { SongBeginning, Student, TranscriptionLine } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { onMounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useNotices, usePage } from '../session/index.ts';
import { PlainTable, type TableColumn } from '../ui/index.ts';
import BeginSongForm from './BeginSongForm.vue';
import { useSongs } from './songs.ts';

const page = usePage();
const notices = useNotices();
const store = useSongs();
const { songs } = storeToRefs(store);
const router = useRouter();
/** Whom a song can be begun for; undefined while nobody begins one. */
const students = ref<readonly Student[]>();
onMounted(() => page.open(store.open));

const COLUMNS: readonly TableColumn<TranscriptionLine>[] = [
  { head: 'Song', says: ({ title }) => title },
  { head: 'Artist', says: ({ whose }) => whose },
  { head: 'For', says: ({ student }) => student.name },
  { head: 'Phrases', says: ({ phrases }) => phrases, look: 'number' },
];

function choose(): Promise<void> {
  return notices.tell(async () => {
    const all = await store.students();
    if (all.length === 0) notices.say('Add a student first, on Studio; every song is for somebody.');
    else students.value = all;
  });
}

async function begin(body: SongBeginning): Promise<void> {
  const { id } = await store.begin(body);
  await router.push({ name: 'song', params: { id } });
}
</script>

<template>
  <header class="head">
    <h1>Songs</h1>
    <Button v-if="!students" size="small" outlined label="Begin a song" @click="choose" />
  </header>
  <BeginSongForm v-if="students" :students="students" :begin="begin" @done="students = undefined" />
  <p v-if="songs?.length === 0" class="soft">
    No song is begun. Accept a request on <RouterLink :to="{ name: 'requests' }">Requests</RouterLink>, or begin one
    that nobody asked for.
  </p>
  <PlainTable v-else-if="songs" class="songs" label="Songs" :rows="songs" :columns="COLUMNS">
    <template #first="{ row }">
      <RouterLink :to="{ name: 'song', params: { id: row.id } }">{{ row.title }}</RouterLink>
    </template>
  </PlainTable>
</template>

<style scoped>
.head {
  display: flex;
  gap: 1rem;
  align-items: center;
}
.songs {
  margin-top: 0.8rem;
  max-width: 56rem;
}
</style>
