import type { Phrase, Section, Transcription } from '@jam-ledger/contract';
import {
  checkForm,
  tempoAt,
  readTempoChanges,
  timeForm,
  type FormProblem,
  type FormSection,
  type TempoChange,
  type TempoChanges,
  type TimedRound,
} from '@jam-ledger/core/form';
import {
  barTicks,
  doubtsOf,
  unroll,
  writeMeter,
  type Doubt,
  type Phrase as ReadPhrase,
} from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import type { Tuning } from '@jam-ledger/core/pitch';
import { computed, type ComputedRef } from 'vue';
import { tuningOf } from '../../tab/index.ts';

/** A phrase of the song as it reads: kept until its text or the set-up changes. */
export interface KnownReading {
  readonly phrase: ReadPhrase;
  /** How long it is as played; null where only the order of its notes is known. */
  readonly ticks: number | null;
  readonly doubts: readonly Doubt[];
}

/** The form of a song: its clock, its playing order, what does not agree, and its phrases as they read. */
export interface SongForm {
  readonly tuning: ComputedRef<Tuning>;
  readonly tempoChanges: ComputedRef<TempoChanges>;
  readonly rounds: ComputedRef<readonly TimedRound[]>;
  readonly problems: ComputedRef<readonly FormProblem[]>;
  readonly tempoOf: (sectionId: string) => TempoChange;
  readonly readingOf: (phrase: Phrase) => KnownReading;
}

/** Lays out the form of a song whenever it changes; phrases that did not change are not read again. */
export function useSongForm(song: () => Transcription | null): SongForm {
  const current = () => song() ?? NO_SONG;
  const tuningName = computed(() => current().tuning);
  const tuning = computed(() => tuningOf({ tuning: tuningName.value }));
  const tempoChanges = computed(() => readTempoChanges(current()));
  /** The tempo at the start of each section, by its id. */
  const sectionTempos = computed(
    () => new Map(current().sections.map(({ id, startSeconds }) => [id, tempoAt(startSeconds, tempoChanges.value)])),
  );
  const known = new Map<
    string,
    KnownReading & { readonly text: string; readonly tuning: Tuning; readonly capo: number; readonly meter: string }
  >();

  const tempoOf = (sectionId: string): TempoChange => sectionTempos.value.get(sectionId) ?? tempoChanges.value[0];

  function readingOf({ id, text, sectionId }: Phrase): KnownReading {
    const { meter } = tempoOf(sectionId);
    const set = { text, tuning: tuning.value, capo: current().capo, meter: writeMeter(meter) };
    const before = known.get(id);
    const isSame = before?.tuning === set.tuning && before.capo === set.capo && before.meter === set.meter;
    if (before?.text === text && isSame) return before;
    const { phrase } = readPlaced(text, { tuning: tuning.value, meter, capo: set.capo });
    const { length, events } = unroll(phrase);
    const ticks = events.every(({ timed }) => timed) ? length : null;
    const reading = { ...set, phrase, ticks, doubts: doubtsOf(phrase) };
    known.set(id, reading);
    return reading;
  }

  const sections = computed(() => current().sections.map(formSection));
  const rounds = computed(() => timeForm(sections.value, tempoChanges.value));
  const problems = computed(() =>
    checkForm({
      sections: sections.value,
      tempoChanges: tempoChanges.value,
      songSeconds: current().songSeconds ?? undefined,
      phraseBars: phraseBars(current(), readingOf, tempoOf),
    }),
  );
  return { tuning, tempoChanges, rounds, problems, tempoOf, readingOf };
}

/** What is laid out while there is no song yet. */
const NO_SONG = {
  tuning: 'standard',
  capo: 0,
  meter: '4/4',
  tempo: 100,
  changes: [],
  sections: [],
  songSeconds: null,
  studentLayer: 'lead',
} as const;

/** Bars that the student’s phrases of each section fill; of another layer where the student has none there. */
function phraseBars(
  { sections, studentLayer }: Pick<Transcription, 'sections' | 'studentLayer'>,
  readingOf: SongForm['readingOf'],
  tempoOf: SongForm['tempoOf'],
): ReadonlyMap<string, number | null> {
  const filled = sections.flatMap(({ id, phrases }): readonly (readonly [string, number | null])[] => {
    const played = phrases.filter(({ chosen }) => chosen);
    const layer = played.some((one) => one.layer === studentLayer) ? studentLayer : played[0]?.layer;
    const own = played.filter((one) => one.layer === layer);
    if (own.length === 0) return [];
    const ticks = own.map((phrase) => readingOf(phrase).ticks);
    const known = ticks.filter((one) => one !== null);
    const bars = known.reduce((sum, one) => sum + one, 0) / barTicks(tempoOf(id).meter);
    return [[id, known.length < ticks.length ? null : bars]];
  });
  return new Map(filled);
}

function formSection({ id, label, bars, times, open, startSeconds, passes, jump }: Section): FormSection {
  return { id, label, bars, times, open, startSeconds, passes, ...(jump && { jump }) };
}
