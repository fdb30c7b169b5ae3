import { JUST_TALK, type Habits, type SpokenChoice, type SpokenDoubt } from '@jam-ledger/core/spoken';
import { useLocalStorage } from '@vueuse/core';
import type { Ref } from 'vue';
import { useSession } from '../session/index.ts';

/** Kinds of doubt whose answer is the same the next time. */
const HABITUAL: readonly string[] = ['which E', 'how far', 'a step', 'which way', 'slide', 'open'];

/** What whoever is signed in means by words that others mean otherwise, as it was answered before; each device remembers. */
export function useHabits(): {
  readonly habits: Ref<Habits>;
  /** @param words what was said where the doubt is */
  readonly remember: (doubt: SpokenDoubt, choice: SpokenChoice, words: string) => void;
} {
  const habits = useLocalStorage<Habits>(`jam-said-${useSession().me?.id ?? ''}`, {});
  function remember({ kind }: SpokenDoubt, { label }: SpokenChoice, words: string): void {
    const talk = [habits.value[kind], words.toLowerCase()].filter(Boolean).join(' ');
    if (label === JUST_TALK) habits.value = { ...habits.value, [kind]: talk };
    else if (HABITUAL.includes(kind)) habits.value = { ...habits.value, [kind]: label };
  }
  return { habits, remember };
}
