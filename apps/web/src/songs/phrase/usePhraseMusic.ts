import { startValueOf, type Phrase, type Transcription } from '@jam-ledger/contract';
import { keyTextAt, type TempoChange } from '@jam-ledger/core/form';
import { writeMeter } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { refDebounced } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import { readerProblems, useHands, useReading } from '../../tab/index.ts';
import { useSchools } from '../hands/useSchools.ts';
import { phrasesBefore, useAlike } from './useAlike.ts';

/** The margin goes on computing after a pause in typing, milliseconds. Our choice. */
export const PAUSE_MS = 400;

/** What a phrase on the desk belongs to. */
export interface PhraseSetting {
  readonly phrase: Phrase;
  readonly song: Transcription;
  /** The tempo and meter of its section. */
  readonly tempoChange: TempoChange;
  /** The meter a phrase of the song stands in, `4/4`. */
  readonly meterOf: (phrase: Phrase) => string;
}

/** All that is computed of a text while it is typed: how it reads at once; hands and likeness after a pause. */
export function usePhraseMusic(text: Ref<string>, setting: PhraseSetting) {
  const meterText = computed(() => writeMeter(setting.tempoChange.meter));
  const live = useReading(text, () => ({
    tuning: setting.song.tuning,
    meter: meterText.value,
    capo: setting.song.capo,
    rhythm: setting.song.rhythm,
  }));
  const { reading, tuning, meter, read } = live;
  const keyText = computed(() => {
    const { song, phrase } = setting;
    const section = song.sections.find(({ id }) => id === phrase.sectionId);
    return keyTextAt(section?.startSeconds ?? 0, song);
  });
  const key = computed(() => readKey(keyText.value) ?? OPEN_KEY);
  /** What notes are compared and named against; one object, so that nothing is computed anew with every key. */
  const against = computed(() => ({ tuning: tuning.value, capo: setting.song.capo, key: key.value }));
  const settledText = refDebounced(text, PAUSE_MS);
  const settledPhrase = computed(() => read(settledText.value).phrase);

  const schools = useSchools(() => setting.song.student.schools);
  /** What hands are computed for, with any text. */
  const handsFor = (asked: string) => ({
    text: asked,
    song: setting.song,
    tuning: tuning.value,
    meter: meter.value,
    bpm: setting.tempoChange.bpm,
    key: keyText.value,
    policy: schools.policy.value,
    isTrusted: setting.phrase.status !== 'draft' && asked === setting.phrase.text,
  });
  const hands = useHands(() => handsFor(settledText.value));
  const problems = computed(() => readerProblems(reading.value.problems, hands.value));

  /** What the phrase is like, of those before it in the song. */
  const alike = useAlike(
    () => ({
      phrase: { text: settledText.value, meter: meterText.value },
      earlier: phrasesBefore(setting.song, setting.phrase).map(({ name, phrase }) => ({
        id: phrase.id,
        name,
        text: phrase.text,
        meter: setting.meterOf(phrase),
      })),
      ...against.value,
      startValue: startValueOf(setting.song.rhythm),
    }),
    text,
  );
  return { ...live, key, against, settledText, settledPhrase, schools, handsFor, hands, problems, alike };
}
