import { COUNTED_LISTS } from '@jam-ledger/contract';
import { useIntervalFn } from '@vueuse/core';
import { computed, watch } from 'vue';
import type { RouteLocationNormalizedLoaded } from 'vue-router';
import { useCounts, useSession } from '../session/index.ts';

/** So often it is counted anew what is new, milliseconds. Our choice. */
const COUNT_MS = 60_000;

/** How much is new on each list, counted anew as pages are opened and time passes. */
export function useFresh(route: RouteLocationNormalizedLoaded) {
  const counts = useCounts();
  const session = useSession();
  // A list that is open is being looked at; what comes meanwhile is counted when it is left.
  watch(
    () => [route.name, session.me?.id] as const,
    ([name]) => {
      const list = COUNTED_LISTS.find((one) => one === name);
      void (list === undefined || (list === 'requests' && session.isTeacher) ? counts.load() : counts.see(list));
    },
    { immediate: true },
  );
  useIntervalFn(() => {
    if (document.visibilityState === 'visible') void counts.load();
  }, COUNT_MS);

  const countOf = (name: string): number => {
    const list = COUNTED_LISTS.find((one) => one === name);
    return list === undefined ? 0 : (counts.counts?.[list] ?? 0);
  };
  const total = computed(() => (session.me ? COUNTED_LISTS.reduce((sum, list) => sum + countOf(list), 0) : 0));
  return { countOf, total };
}
