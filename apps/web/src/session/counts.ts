import type { CountedList, Counts } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';
import { useSession } from './session.ts';

/** What is new on each list of whoever is signed in. */
export const useCounts = defineStore('counts', () => {
  const counts = ref<Counts>();
  const session = useSession();

  /** Counts anew; a line that is cut leaves what was counted before. */
  async function load(): Promise<void> {
    if (!session.me) counts.value = undefined;
    else counts.value = await api.counts().catch(() => counts.value);
  }

  /** Notes that a list is being looked at. */
  async function see(list: CountedList): Promise<void> {
    if (session.me) counts.value = await api.seeList({ body: { list } }).catch(() => counts.value);
  }

  return { counts, load, see };
});
