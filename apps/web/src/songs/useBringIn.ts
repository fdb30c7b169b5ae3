import { useEventListener } from '@vueuse/core';
import { ref, shallowRef, type Ref, type ShallowRef } from 'vue';

/** A file on its way into a song: chosen, or dropped on the page. */
export interface BringIn {
  readonly isOpen: Ref<boolean>;
  readonly isWanted: Ref<boolean>;
  readonly file: ShallowRef<File | undefined>;
  readonly begin: (file?: File) => void;
}

/** Opens the dialog for a file, also where one is dropped anywhere on the page; sound goes to the recording instead. */
export function useBringIn(bringSound: (file: File) => Promise<void>): BringIn {
  const isOpen = ref(false);
  const isWanted = ref(false);
  const file = shallowRef<File>();
  function begin(dropped?: File): void {
    file.value = dropped;
    isWanted.value = true;
    isOpen.value = true;
  }
  const hasFile = (event: DragEvent) => event.dataTransfer?.types.includes('Files') === true;
  useEventListener(window, 'dragover', (event: DragEvent) => {
    if (hasFile(event)) event.preventDefault();
  });
  useEventListener(window, 'drop', (event: DragEvent) => {
    const dropped = event.dataTransfer?.files[0];
    if (!hasFile(event) || !dropped) return;
    event.preventDefault();
    if (isSound(dropped)) void bringSound(dropped);
    else begin(dropped);
  });
  return { isOpen, isWanted, file, begin };
}

/** Whether a file is sound, or a film with sound; MIDI has a type of sound, and is a score. */
function isSound({ type, name }: File): boolean {
  if (/midi/.test(type) || /\.midi?$/i.test(name)) return false;
  return /^(audio|video)\//.test(type) || /\.(wav|flac|og[ga]|opus|mp3|m4a|aac|webm|mp4)$/i.test(name);
}
