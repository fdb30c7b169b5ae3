import type { EventTime } from '@jam-ledger/core/notation';
import { useLocalStorage } from '@vueuse/core';
import { onMounted, onScopeDispose, ref, shallowRef } from 'vue';
import { prepareContext } from './context.ts';
import { Playback, type Levels, type PlayPlan } from './playback.ts';

export type { PlayPlan } from './playback.ts';

/** A quiet level to begin with, as a share of full. Our choice, for the care of ears. */
const SAFE_LEVEL = 0.5;

/** The one player that sounds; starting another stops it. */
let sounding: (() => void) | undefined;
/** Plays phrases on the audio clock, piece by piece, with click, count-in and a cursor. */
export function usePlayer() {
  const playing = ref(false);
  const counting = ref(false);
  const cursor = shallowRef<EventTime>();
  const level = useLocalStorage('jam-level', SAFE_LEVEL);
  const clickLevel = useLocalStorage('jam-click-level', 0.6);
  const backingLevel = useLocalStorage('jam-backing-level', 0.4);
  let playback: Playback | undefined;
  onMounted(prepareContext);

  function stop(): void {
    playback?.stop();
    playback = undefined;
    playing.value = false;
    counting.value = false;
    cursor.value = undefined;
  }

  function levels(): Levels {
    return { strings: level.value, click: clickLevel.value, backing: backingLevel.value };
  }

  /** Plays a plan; what comes `after` is done when it has come to its end by itself. */
  async function play(plan: PlayPlan, after?: () => void): Promise<void> {
    sounding?.();
    sounding = stop;
    playing.value = true;
    counting.value = plan.countIn;
    const started = new Playback(plan, levels(), (moment) => {
      if (playback !== started) return;
      if (moment === 'over') {
        stop();
        after?.();
      } else {
        counting.value = moment === 'count-in';
        cursor.value = typeof moment === 'object' ? moment : undefined;
      }
    });
    playback = started;
    try {
      await started.start();
    } catch (error) {
      if (playback === started) stop();
      throw error;
    }
  }

  function setLevels(): void {
    playback?.setLevels(levels());
  }

  onScopeDispose(() => {
    if (sounding === stop) sounding = undefined;
    stop();
  });
  return { playing, counting, cursor, level, clickLevel, backingLevel, play, stop, setLevels };
}
