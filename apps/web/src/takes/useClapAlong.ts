import type { Click } from '@jam-ledger/core/notation';
import { useLocalStorage } from '@vueuse/core';
import { onScopeDispose, ref } from 'vue';
import { startTrack, type ClickTrack } from './clicks.ts';
import { decode } from './decode.ts';
import { openMicrophone, type Microphone } from './microphone.ts';
import { listener } from './takeListener.ts';

/** Clicks to be clapped to, after one bar of four: slow enough that a late clap is not taken for the next one. Our choice. */
const CLAPS = 8;
const BEAT_SECONDS = 0.8;
const COUNT_IN = { beats: 4, beatSeconds: BEAT_SECONDS } as const;

/** What goes on with the clapping. */
export type ClapState = 'idle' | 'clapping' | 'listening';

/** How late this device hears what is played to its click, found once by clapping along. */
export function useClapAlong() {
  /** Seconds; null where nobody has clapped yet. */
  const delay = useLocalStorage<number | null>('jam-take-delay', null, {
    serializer: { read: (text) => (Number.isFinite(Number(text)) ? Number(text) : null), write: String },
  });
  const state = ref<ClapState>('idle');
  const says = ref('');
  let microphone: Microphone | undefined;
  let clicks: ClickTrack | undefined;

  async function close(): Promise<Blob | undefined> {
    clicks?.stop();
    const file = await microphone?.stop();
    [microphone, clicks] = [undefined, undefined];
    return file;
  }

  /** Clicks, listens for the claps, and keeps how late they are. */
  async function clap(): Promise<void> {
    if (state.value !== 'idle') return;
    [state.value, says.value] = ['clapping', ''];
    try {
      microphone = await openMicrophone(
        () => undefined,
        () => void close(),
      );
      const track: readonly Click[] = Array.from({ length: CLAPS }, (_, beat) => ({
        seconds: beat * BEAT_SECONDS,
        accent: beat % 4 === 0,
      }));
      const seconds = (CLAPS + 1) * BEAT_SECONDS;
      clicks = await startTrack({ clicks: track, countIn: COUNT_IN, seconds }, true);
      const first = (clicks.beginsAt - microphone.startedAt) / 1000;
      await new Promise((resolve) => setTimeout(resolve, 1000 * (first + seconds)));
      const file = await close();
      if (!file) throw new Error('The microphone was closed before the last clap; try again.');
      state.value = 'listening';
      const audio = await decode(file);
      const asked = track.map((click) => first + click.seconds);
      const found = await listener.ask((worker) => worker.clap(audio, asked));
      if (found) delay.value = found.seconds;
      says.value = found
        ? `This device hears ${Math.round(found.seconds * 1000)} ms after its click, by ${found.claps} claps.`
        : 'The claps were not heard, or fell too unevenly. Clap once to each click, near the microphone.';
    } catch (error) {
      says.value = error instanceof Error ? error.message : 'It could not be heard; try again.';
    } finally {
      await close();
      state.value = 'idle';
    }
  }

  onScopeDispose(() => void close());
  return { delay, state, says, clap };
}
