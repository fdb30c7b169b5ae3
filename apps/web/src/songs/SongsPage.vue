<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { onMounted } from 'vue';
import { RouterLink } from 'vue-router';
import { useNotices } from '../session/index.ts';
import { useSongs } from './songs.ts';

const notices = useNotices();
const store = useSongs();
const { songs } = storeToRefs(store);
onMounted(() => notices.tell(store.open));
</script>

<template>
  <h1>Songs</h1>
  <p v-if="songs?.length === 0" class="soft">
    No song is begun. Accept a request on <RouterLink :to="{ name: 'requests' }">Requests</RouterLink>, and its
    transcription opens here.
  </p>
  <table v-else-if="songs" class="songs">
    <thead>
      <tr>
        <th scope="col">Song</th>
        <th scope="col">Whose</th>
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
