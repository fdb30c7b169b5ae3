import { computed, onBeforeUnmount, ref, watch } from 'vue';

/** Reads sentences in the voice of the browser, one after the other, each when the hands are ready. */
export function useReadAloud(sentences: () => readonly string[]) {
  const voice = 'speechSynthesis' in globalThis ? globalThis.speechSynthesis : undefined;
  /** The sentence that is read next; how many are read as it stands is its number. */
  const next = ref(0);
  const reading = ref<number>();
  /** Whether it goes on by itself, after so many seconds. */
  const goesOn = ref(false);
  const pauseSeconds = ref(2);
  let timer: ReturnType<typeof setTimeout> | undefined;

  function read(index: number): void {
    const text = sentences()[index];
    if (!voice || text === undefined) return;
    stop();
    const said = new SpeechSynthesisUtterance(text);
    said.lang = 'en';
    said.onend = () => {
      if (reading.value !== index) return;
      reading.value = undefined;
      if (goesOn.value && index + 1 < sentences().length)
        timer = setTimeout(() => read(index + 1), 1000 * pauseSeconds.value);
    };
    reading.value = index;
    next.value = (index + 1) % sentences().length;
    voice.speak(said);
  }
  function stop(): void {
    clearTimeout(timer);
    // A voice that is not speaking is left alone: waking it takes a while.
    if (reading.value === undefined) return;
    reading.value = undefined;
    voice?.cancel();
  }
  watch(sentences, () => {
    stop();
    next.value = 0;
  });
  onBeforeUnmount(stop);
  const isThere = computed(() => voice !== undefined);
  return { isThere, next, reading, goesOn, pauseSeconds, read, stop };
}
