import type { Desk, Found } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** What needs the teacher today, and whatever is looked for in the studio. */
export const useDesk = defineStore('desk', () => {
  const desk = ref<Desk>();

  /** Opens the desk as it stands now; nothing of before is shown meanwhile. */
  async function open(): Promise<void> {
    desk.value = undefined;
    desk.value = await api.desk();
  }

  function search(q: string): Promise<readonly Found[]> {
    return api.search({ query: { q } });
  }

  return { desk, open, search };
});
