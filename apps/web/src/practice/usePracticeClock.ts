import { useIntervalFn, useSessionStorage } from '@vueuse/core';
import { computed, ref } from 'vue';

/** A break of so many minutes is a rest. Our choice. */
const BREAK_MINUTES = 2;

/** How long somebody has practised without a break, over all their pieces; a clock that is set back begins anew. */
export function usePracticeClock(now: () => number = Date.now) {
  const since = useSessionStorage('jam-practising-since', 0);
  const last = useSessionStorage('jam-practised-last', 0);
  const at = ref(now());

  /** Something was played or posted. */
  function mark(): void {
    at.value = now();
    const idle = at.value - last.value;
    if (idle < 0 || idle > BREAK_MINUTES * 60_000) since.value = at.value;
    last.value = at.value;
  }

  /** A rest was taken. */
  function rest(): void {
    last.value = 0;
    since.value = 0;
    at.value = now();
  }

  useIntervalFn(() => (at.value = now()), 10_000);
  const minutes = computed(() => (since.value === 0 ? 0 : Math.max(0, last.value - since.value) / 60_000));
  return { minutes, mark, rest };
}
