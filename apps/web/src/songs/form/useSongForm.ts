import {
  SONG_LIMITS,
  songAt,
  startValueOf,
  type Phrase,
  type Rhythm,
  type Section,
  type Transcription,
} from '@jam-ledger/contract';
import {
  barSeconds,
  checkForm,
  tempoAt,
  readTempoChanges,
  timeForm,
  type FormProblem,
  type FormSection,
  type PassNote,
  type TempoChange,
  type TempoChanges,
  type TimedRound,
} from '@jam-ledger/core/form';
import {
  barTicks,
  doubtsOf,
  hasRounds,
  inRound,
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
  /** The sections as they are laid out. */
  readonly sections: ComputedRef<readonly FormSection[]>;
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
    KnownReading & {
      readonly text: string;
      readonly tuning: Tuning;
      readonly capo: number;
      readonly meter: string;
      readonly rhythm: Rhythm;
    }
  >();

  const tempoOf = (sectionId: string): TempoChange => sectionTempos.value.get(sectionId) ?? tempoChanges.value[0];

  function readingOf({ id, text, sectionId }: Phrase): KnownReading {
    const { meter } = tempoOf(sectionId);
    const there = songAt(
      current(),
      current().sections.find((section) => section.id === sectionId),
    );
    const own = there.tuning === tuningName.value ? tuning.value : tuningOf(there);
    const { capo, rhythm } = there;
    const set = { text, tuning: own, capo, rhythm, meter: writeMeter(meter) };
    const before = known.get(id);
    const isSame =
      before?.tuning === own && before.capo === capo && before.meter === set.meter && before.rhythm === rhythm;
    if (before?.text === text && isSame) return before;
    const { phrase } = readPlaced(text, { tuning: own, meter, capo, startValue: startValueOf(rhythm) });
    const { length, events } = unroll(phrase);
    const ticks = events.every(({ timed }) => timed) ? length : null;
    const reading = { ...set, phrase, ticks, doubts: doubtsOf(phrase) };
    known.set(id, reading);
    return reading;
  }

  const written = computed(() => phraseBars(current(), readingOf, tempoOf));
  const sections = computed(() =>
    current().sections.map((section) => laidOut(section, { written: written.value, readingOf, tempoOf })),
  );
  const rounds = computed(() => timeForm(sections.value, tempoChanges.value));
  const problems = computed(() =>
    checkForm({
      sections: sections.value,
      tempoChanges: tempoChanges.value,
      songSeconds: current().songSeconds ?? undefined,
      phraseBars: written.value,
      tempoKnown: current().tempoKnown,
    }),
  );
  return { tuning, tempoChanges, sections, rounds, problems, tempoOf, readingOf };
}

/** What is laid out while there is no song yet. */
const NO_SONG = {
  tuning: 'standard',
  capo: 0,
  meter: '4/4',
  tempo: 100,
  tempoKnown: true,
  rhythm: 'counted',
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

/** What is known of the phrases of a song when its form is laid out. */
interface Laid {
  readonly written: ReadonlyMap<string, number | null>;
  readonly readingOf: SongForm['readingOf'];
  readonly tempoOf: SongForm['tempoOf'];
}

/**
 * A section as it is laid out: as long as its phrases where nobody said, from the stamp that stands in them where nobody knows when it
 * starts, and with the rounds that its phrases write out.
 */
function laidOut(section: Section, { written, readingOf, tempoOf }: Laid): FormSection {
  const { id, label, times, open, jump } = section;
  const filled = written.get(id);
  const bars = section.barsKnown || !filled ? section.bars : Math.ceil(filled);
  const own = section.phrases.filter(({ chosen }) => chosen).map((phrase) => readingOf(phrase).phrase);
  const { meter, bpm } = tempoOf(id);
  const ticksPerSecond = barTicks(meter) / barSeconds(meter, bpm);
  const stamp = section.startKnown ? undefined : firstStamp(own, ticksPerSecond);
  return {
    ...{ id, label, bars, times, open, barsKnown: section.barsKnown },
    startSeconds: stamp ?? section.startSeconds,
    startKnown: section.startKnown || stamp !== undefined,
    passes: [...section.passes, ...roundsOf(own, { times, bars, ticks: barTicks(meter) })],
    ...returnsOf(own, times, ticksPerSecond),
    ...(jump && { jump }),
  };
}

/** Where phrases one after the other begin in the recording, by the first stamp in one of them; seconds. */
function firstStamp(phrases: readonly ReadPhrase[], ticksPerSecond: number): number | undefined {
  let before = 0;
  for (const phrase of phrases) {
    const { stamps, length } = unroll(phrase);
    const [first] = stamps;
    if (first) return Math.max(0, first.seconds - (before + first.at) / ticksPerSecond);
    before += length;
  }
  return undefined;
}

/** Where a section is heard on its later rounds, by the stamps that its phrases have there; nothing where there are none. */
function returnsOf(
  phrases: readonly ReadPhrase[],
  times: number,
  ticksPerSecond: number,
): Pick<FormSection, 'returns'> {
  if (!phrases.some(({ items }) => hasRounds(items))) return {};
  const first = firstStamp(phrases, ticksPerSecond);
  const later = Array.from({ length: Math.min(times, MAX_TIMES) - 1 }, (_, index) => index + 2);
  const stamped = later.flatMap((round) => {
    const there = phrases.map((phrase) => inRound(phrase, { round, of: times }));
    const stamp = firstStamp(there, ticksPerSecond);
    // A stamp outside the rounds is that of the first one.
    return stamp === undefined || stamp === first ? [] : [[round, stamp] as const];
  });
  return stamped.length === 0 ? {} : { returns: new Map(stamped) };
}

/** Rounds of a section on which its phrases are longer or shorter than on the first. */
function roundsOf(
  phrases: readonly ReadPhrase[],
  { times, bars, ticks }: { readonly times: number; readonly bars: number; readonly ticks: number },
): readonly PassNote[] {
  if (!phrases.some(({ items }) => hasRounds(items))) return [];
  const lengthOn = (round: number) =>
    phrases.reduce((sum, phrase) => sum + unroll(inRound(phrase, { round, of: times })).length, 0) / ticks;
  const first = lengthOn(1);
  return Array.from({ length: Math.min(times, MAX_TIMES) }, (_, index) => index + 1).flatMap((pass) => {
    const differs = Math.round(lengthOn(pass) - first);
    return differs === 0 ? [] : [{ pass, change: 'as its phrases say', bars: Math.max(1, bars + differs) }];
  });
}

/** Rounds that are looked at; a section is played no oftener than may be typed. */
const MAX_TIMES = SONG_LIMITS.times;
