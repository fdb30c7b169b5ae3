import { useRafFn } from '@vueuse/core';
import { ref, type Ref } from 'vue';

/** The clock of a song: that of its recording, or one that runs in silence where there is none. */
export interface SongClock {
  /** Where the song stands, seconds. */
  readonly seconds: Readonly<Ref<number>>;
  readonly running: Readonly<Ref<boolean>>;
  /** Runs or stops it. */
  toggle(): void;
  goTo(seconds: number): void;
}

/** A clock that runs in silence; `end` gives the second at which it stops by itself. */
export function useSongClock(end: () => number): SongClock {
  const seconds = ref(0);
  const running = ref(false);
  let from = 0;
  let started = 0;
  const frames = useRafFn(
    ({ timestamp }) => {
      started ||= timestamp;
      seconds.value = Math.min(from + (timestamp - started) / 1000, end());
      if (seconds.value >= end()) stop();
    },
    { immediate: false },
  );

  function stop(): void {
    running.value = false;
    frames.pause();
  }

  function toggle(): void {
    if (running.value) return stop();
    if (seconds.value >= end()) seconds.value = 0;
    goTo(seconds.value);
    running.value = true;
    frames.resume();
  }

  function goTo(place: number): void {
    seconds.value = Math.max(0, place);
    from = seconds.value;
    started = 0;
  }

  return { seconds, running, toggle, goTo };
}
