import type { LickBody, LickQuery, LicksFound, LickWritten } from '@jam-ledger/contract';
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { api } from '../api/index.ts';

/** Phrases that are looked for by what is played. */
export const useLicks = defineStore('licks', () => {
  const found = ref<LicksFound>();
  const busy = ref(false);
  let asked = 0;

  /** Begins with nothing found. */
  function open(): void {
    found.value = undefined;
  }

  /** Looks for phrases; an answer that comes after a newer question is none. */
  async function search(query: LickQuery): Promise<void> {
    asked += 1;
    const mine = asked;
    busy.value = true;
    try {
      const answer = await api.licks({ query });
      if (mine === asked) found.value = answer;
    } finally {
      if (mine === asked) busy.value = false;
    }
  }

  /** Writes a lick of one’s own down. */
  function write(body: LickBody): Promise<LickWritten> {
    return api.writeLick({ body });
  }

  return { found, busy, open, search, write };
});
