import { useIntervalFn, useSessionStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';

/** What a clock that is found running is at most believed, milliseconds: longer lasts no lesson. Our choice. */
const LONGEST_MS = 4 * 3_600_000;

/**
 * A clock that runs while a lesson does, also while the page is left or loaded anew; a clock of the device that is set back stands
 * still meanwhile.
 *
 * @param lesson which lesson it is; that of another begins at nothing. Empty while that is not known
 */
export function useLessonClock(lesson: () => string, now: () => number = Date.now) {
  const kept = useSessionStorage('jam-lesson-clock', { lesson: '', spent: 0, since: 0 });
  const at = ref(now());
  const runs = computed(() => kept.value.since > 0);
  const { pause, resume } = useIntervalFn(() => (at.value = Math.max(at.value, now())), 1000, { immediate: false });
  const seconds = computed(() => {
    const { spent, since } = kept.value;
    return Math.floor((spent + (since > 0 ? Math.max(0, at.value - since) : 0)) / 1000);
  });

  watch(
    lesson,
    (which) => {
      if (which === '') return;
      if (which !== kept.value.lesson || (runs.value && now() - kept.value.since > LONGEST_MS))
        kept.value = { lesson: which, spent: 0, since: 0 };
      if (runs.value) resume();
      else pause();
    },
    { immediate: true },
  );

  /** Starts it, or halts it; while it is not known which lesson it is, nothing. */
  function toggle(): void {
    if (lesson() === '') return;
    at.value = now();
    const { lesson: which, spent, since } = kept.value;
    kept.value = runs.value
      ? { lesson: which, spent: spent + Math.max(0, at.value - since), since: 0 }
      : { lesson: which, spent, since: at.value };
    if (runs.value) resume();
    else pause();
  }
  const text = computed(() => `${Math.floor(seconds.value / 60)}:${String(seconds.value % 60).padStart(2, '0')}`);
  return { runs, seconds, text, toggle };
}
