import type { DoubtKind, Habits } from '@jam-ledger/core/spoken';
import { useLocalStorage } from '@vueuse/core';
import type { Ref } from 'vue';
import { useSession } from '../session/index.ts';

/** Kinds of doubt whose answer is the same the next time. */
const HABITUAL: readonly DoubtKind[] = ['which E', 'how far', 'slide'];

/** What whoever is signed in means by words that others mean otherwise, as it was answered before; each device remembers. */
export function useHabits(): {
  readonly habits: Ref<Habits>;
  readonly remember: (kind: DoubtKind, label: string) => void;
} {
  const habits = useLocalStorage<Habits>(`jam-said-${useSession().me?.id ?? ''}`, {});
  function remember(kind: DoubtKind, label: string): void {
    if (HABITUAL.includes(kind)) habits.value = { ...habits.value, [kind]: label };
  }
  return { habits, remember };
}
