import { useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';

/** A clock that runs while a lesson does; a clock of the device that is set back stands still meanwhile. */
export function useLessonClock(now: () => number = Date.now) {
  const spent = ref(0);
  const since = ref<number>();
  const at = ref(now());
  const { pause, resume } = useIntervalFn(() => (at.value = Math.max(at.value, now())), 1000, { immediate: false });
  const seconds = computed(() =>
    Math.floor((spent.value + (since.value === undefined ? 0 : Math.max(0, at.value - since.value))) / 1000),
  );

  /** Starts it, or halts it. */
  function toggle(): void {
    at.value = now();
    if (since.value === undefined) {
      since.value = at.value;
      return resume();
    }
    spent.value += Math.max(0, at.value - since.value);
    since.value = undefined;
    pause();
  }
  const runs = computed(() => since.value !== undefined);
  const text = computed(() => `${Math.floor(seconds.value / 60)}:${String(seconds.value % 60).padStart(2, '0')}`);
  return { runs, seconds, text, toggle };
}
