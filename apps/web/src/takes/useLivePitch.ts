import { hearNow } from '@jam-ledger/core/listen';
import { useIntervalFn } from '@vueuse/core';
import { onScopeDispose, ref } from 'vue';
import { openStream } from './microphone.ts';

/** How often the microphone is listened to, milliseconds. */
const EVERY_MS = 60;
/** Samples that are looked at: 93 ms at the usual rates and more. */
const SAMPLES = 8192;

/** The one microphone that is listened to; another one that is opened ends it. */
let listening: (() => void) | undefined;

/** The pitch that a microphone hears just now; it is open only between start and stop. */
export function useLivePitch(heard: (midi: number) => void) {
  const isOn = ref(false);
  const trouble = ref('');
  let close: (() => void) | undefined;

  async function start(): Promise<void> {
    listening?.();
    trouble.value = '';
    try {
      const stream = await openStream();
      const context = new AudioContext();
      const analyser = context.createAnalyser();
      analyser.fftSize = SAMPLES;
      context.createMediaStreamSource(stream).connect(analyser);
      const samples = new Float32Array(SAMPLES);
      const timer = useIntervalFn(() => {
        analyser.getFloatTimeDomainData(samples);
        const midi = hearNow({ samples, sampleRate: context.sampleRate });
        if (midi !== undefined) heard(midi);
      }, EVERY_MS);
      close = () => {
        timer.pause();
        stream.getTracks().forEach((track) => track.stop());
        void context.close();
      };
      stream.getAudioTracks()[0]?.addEventListener('ended', () => {
        stop();
        trouble.value = 'The microphone was unplugged.';
      });
      listening = stop;
      isOn.value = true;
    } catch (error) {
      trouble.value = error instanceof Error ? error.message : 'The microphone does not answer.';
    }
  }

  function stop(): void {
    close?.();
    close = undefined;
    isOn.value = false;
    if (listening === stop) listening = undefined;
  }

  onScopeDispose(stop);
  return { isOn, trouble, start, stop };
}
