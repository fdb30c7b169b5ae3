import type { SongBeginning, Transcription, TranscriptionLine } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** The transcriptions of the studio. */
export const useSongs = defineStore('songs', () => {
  const songs = ref<readonly TranscriptionLine[]>();

  /** Opens the list as it stands now; nothing of before is shown meanwhile. */
  async function open(): Promise<void> {
    songs.value = undefined;
    songs.value = await api.songs();
  }

  /** Begins a song that nobody asked for. */
  function begin(body: SongBeginning): Promise<Transcription> {
    return api.beginSong({ body });
  }

  return { songs, open, begin, students: () => api.students() };
});
