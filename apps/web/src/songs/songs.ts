import type { TranscriptionLine } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** The transcriptions of the studio. */
export const useSongs = defineStore('songs', () => {
  const songs = ref<readonly TranscriptionLine[]>();

  async function load(): Promise<void> {
    songs.value = await api.songs();
  }

  return { songs, load };
});
