<script setup lang="ts">
import { storeToRefs } from 'pinia';
import type { SongBeginning, Student } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { onMounted, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { useNotices, usePage } from '../session/index.ts';
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

function choose(): Promise<void> {
  return notices.tell(async () => {
    const all = await store.students();
    if (all.length === 0) notices.say('Enter a student first, on Studio; every song is for somebody.');
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
  <table v-else-if="songs" class="songs">
    <thead>
      <tr>
        <th scope="col">Song</th>
        <th scope="col">Artist</th>
        <th scope="col">For</th>
        <th scope="col" class="number">Phrases</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="song in songs" :key="song.id">
        <td>
          <RouterLink :to="{ name: 'song', params: { id: song.id } }">{{ song.title }}</RouterLink>
        </td>
        <td>{{ song.whose }}</td>
        <td>{{ song.student.name }}</td>
        <td class="number">{{ song.phrases }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.head {
  display: flex;
  gap: 1rem;
  align-items: center;
}
.songs {
  margin-top: 0.8rem;
  border-collapse: collapse;
  width: min(56rem, 100%);
}
th {
  text-align: left;
  border-bottom: 2px solid var(--ink);
}
td,
th {
  padding: 0.45rem 1rem 0.45rem 0;
}
td {
  border-bottom: 1px solid var(--rule);
}
.number {
  text-align: right;
}
</style>
