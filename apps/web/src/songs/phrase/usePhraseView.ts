import type { Transcription } from '@jam-ledger/contract';
import { eventsIn, type Phrase, type Span } from '@jam-ledger/core/notation';
import type { FretPosition, Key, Tuning } from '@jam-ledger/core/pitch';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, type Ref } from 'vue';

/** What of a phrase is shown beside its tab: the notation, and the neck with the notes at the caret. */
export function usePhraseView(
  song: () => Transcription,
  music: { readonly phrase: () => Phrase; readonly tuning: Ref<Tuning>; readonly key: Ref<Key> },
  caret: Ref<Span | undefined>,
) {
  const withStaff = useLocalStorage('jam-staff', false);
  const withNeck = useLocalStorage('jam-neck', true);
  const mirrored = ref(song().student.guitar.leftHanded);
  const staff = computed(() =>
    withStaff.value ? { tuning: music.tuning.value, capo: song().capo, key: music.key.value } : undefined,
  );
  const underCaret = computed((): readonly FretPosition[] => {
    if (!withNeck.value || !caret.value) return [];
    const { from, to } = caret.value;
    const notes = eventsIn(music.phrase(), { from, to }).flatMap(({ item }) => item.notes);
    return notes.flatMap(({ string, fret }) => (fret === null ? [] : [{ string, fret }]));
  });
  return { withStaff, withNeck, mirrored, staff, underCaret };
}
