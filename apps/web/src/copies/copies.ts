import type { CopyBody, CopyPreview, Student, Transcription, TranscriptionLine } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** Something that can be copied for another student. */
export interface Copyable {
  readonly kind: CopyBody['kind'];
  readonly id: string;
  /** What it is, in words: `the song`. */
  readonly label: string;
}

/** Copies for other students: who and where to, and what they would come to. */
export const useCopies = defineStore('copies', () => {
  const students = ref<readonly Student[]>([]);
  const songs = ref<readonly TranscriptionLine[]>([]);

  async function open(): Promise<void> {
    [students.value, songs.value] = await Promise.all([api.students(), api.songs()]);
  }

  function preview(body: CopyBody): Promise<CopyPreview> {
    return api.previewCopy({ body });
  }

  function copy(body: CopyBody): Promise<Transcription> {
    return api.copy({ body });
  }

  return { students, songs, open, preview, copy };
});
