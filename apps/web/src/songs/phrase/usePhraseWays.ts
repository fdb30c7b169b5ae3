import type { Phrase } from '@jam-ledger/contract';
import { sayMove } from '@jam-ledger/core/notation';
import { computed } from 'vue';
import { useSong } from '../song.ts';
import { useSongPhrases } from '../songPhrases.ts';
import { isWayOf } from './useAlike.ts';

/** The ways a phrase is kept in, and what it refers to. */
export function usePhraseWays(phrase: () => Phrase, open: (phraseId: string) => void) {
  const store = useSong();
  const songPhrases = useSongPhrases();
  /** The phrase and what is kept beside it. */
  const ways = computed(() => store.phrases.filter((one) => isWayOf(phrase(), one)));
  /** What the phrase refers to, in words. */
  const refers = computed(() => {
    const target = store.phrases.find(({ id }) => id === phrase().refersTo);
    const moved = sayMove(phrase().move);
    const says = `This is “${target?.name ?? ''}”${moved && `, ${moved}`}; it changes along with it.`;
    return target && { id: target.id, says };
  });

  async function addWay(): Promise<void> {
    open((await songPhrases.addAlternate(phrase())).id);
  }

  return { ways, refers, addWay };
}
