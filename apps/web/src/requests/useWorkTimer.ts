import type { RequestHours, WorkAction } from '@jam-ledger/contract';
import { useIdle, useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';
import { api } from '../api/index.ts';
import { useNotices } from '../session/index.ts';

/** Whoever touches nothing for so long is not at work, and signs of life go out so often, milliseconds. Our choice. */
const IDLE_MS = 5 * 60_000;
const SIGN_MS = 60_000;

/** The hours of requests and the timer of whoever is signed in, which is only kept running while somebody is at work. */
export function useWorkTimer() {
  const notices = useNotices();
  const hours = ref<RequestHours>();
  const now = ref(Date.now());
  const { idle } = useIdle(IDLE_MS);

  async function load(): Promise<void> {
    hours.value = await api.hours();
  }
  async function act(requestId: string, action: WorkAction['action']): Promise<void> {
    hours.value = await api.timeWork({ id: requestId, body: { action } });
    now.value = Date.now();
  }
  /** Starts the timer of a request, or stops it. */
  function toggle(requestId: string): Promise<void> {
    return notices.tell(() => act(requestId, runsFor(requestId) ? 'stop' : 'start'));
  }
  const runsFor = (requestId: string) => hours.value?.running?.requestId === requestId;

  useIntervalFn(() => {
    now.value = Date.now();
    const running = hours.value?.running;
    // A sign of life that gets lost is no trouble: the next one, or none, settles it.
    if (running && !idle.value) void act(running.requestId, 'seen').catch(() => undefined);
  }, SIGN_MS);

  /** Whole minutes since the timer was started. */
  const minutes = computed(() => {
    const since = hours.value?.running?.since;
    return since === undefined ? 0 : Math.max(0, Math.floor((now.value - Date.parse(since)) / 60_000));
  });
  return { hours, load, toggle, runsFor, minutes };
}
