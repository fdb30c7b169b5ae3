import type { Phrase, SetUpChange, Transcription } from '@jam-ledger/contract';
import { ref } from 'vue';
import { useNotices } from '../../session/index.ts';
import type { SongForm } from '../form/useSongForm.ts';
import { useSong, withChange } from '../song.ts';
import { useSongPhrases } from '../songPhrases.ts';
import { retuneSong, strungOf, type RetunedPhrase } from './retuning.ts';

/** The set-up of the song on the desk: changed, taken back, and the notes that another tuning or capo moves. */
export function useSetUp(form: SongForm) {
  const store = useSong();
  const songPhrases = useSongPhrases();
  const notices = useNotices();
  /** Phrases that would have to move for the new set-up, until that is decided. */
  const retuned = ref<readonly RetunedPhrase[]>([]);

  async function keepSetUp(change: SetUpChange): Promise<void> {
    const before = store.song && strungOf(store.song);
    const read = store.song?.sections.flatMap(({ phrases }) =>
      phrases.map((one) => [one.id, form.readingOf(one)] as const),
    );
    const old = store.song;
    await store.changeSetUp(change);
    notices.say('The set-up is changed.', () => takeSetUpBack(old));
    if (store.song && before) {
      const readings = new Map(read);
      const readingOf = (one: Phrase) => readings.get(one.id) ?? form.readingOf(one);
      retuned.value = retuneSong(store.song, { before, after: strungOf(store.song) }, readingOf);
    }
  }

  /** Puts the set-up back as it was; what was moved for the new one stays, with its versions. */
  async function takeSetUpBack(old: Transcription | null): Promise<void> {
    if (!old || !store.song) return;
    retuned.value = [];
    await store.changeSetUp(withChange(old, { version: store.song.version }));
  }

  function moveNotes(): Promise<void> {
    return notices.tell(async () => {
      for (const { phrase: one, text } of retuned.value) await songPhrases.changePhrase(one, { text });
      const count = retuned.value.length;
      retuned.value = [];
      notices.say(`${count === 1 ? 'One phrase is' : `${count} phrases are`} moved; the versions before are kept.`);
    });
  }

  return { retuned, keepSetUp, moveNotes };
}
