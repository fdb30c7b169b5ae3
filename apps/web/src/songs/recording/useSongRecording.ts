import type { Phrase, Section, Transcription } from '@jam-ledger/contract';
import { barSeconds, tempoFromTaps } from '@jam-ledger/core/form';
import { OPEN_KEY, readKey, spell, writeSpelling } from '@jam-ledger/core/pitch';
import { computed, ref, watch } from 'vue';
import { useRecording } from '../../recordings/index.ts';
import type { SongForm } from '../form/useSongForm.ts';
import { useSongClock, type SongClock } from '../form/useSongClock.ts';
import { saidOfSetUp, type TakenOver } from './setUpSaid.ts';
import { bandPartOf, phraseTimesOf } from './songBand.ts';

/** The recording of the song on the desk: its clock, where phrases lie on it, what it says of the set-up. */
export function useSongRecording(song: () => Transcription | null, form: SongForm, end: () => number) {
  const recorded = useRecording();
  const silent = useSongClock(end);
  const has = computed(() => recorded.recording.value !== undefined);
  /** The clock runs on the recording where there is one. */
  const clock: SongClock = {
    seconds: computed(() => (has.value ? recorded.seconds.value : silent.seconds.value)),
    running: computed(() => (has.value ? recorded.running.value : silent.running.value)),
    toggle: () => (has.value ? recorded.toggle() : silent.toggle()),
    goTo: (seconds) => (has.value ? recorded.goTo(seconds) : silent.goTo(seconds)),
  };
  watch(
    () => song()?.id,
    (id) => void (id === undefined ? undefined : recorded.open(id)),
    { immediate: true },
  );

  const times = computed(() => {
    const current = song();
    return current ? phraseTimesOf(current, form) : new Map<string, never>();
  });
  const beatsInBar = () => form.tempoChanges.value[0].meter.beats;

  function bring(file: File): Promise<void> {
    return recorded.bring(file, file.name, { beatsInBar: beatsInBar() });
  }

  /** The simulated band plays the song off pitch and a little unevenly, as recordings are. */
  async function bringBand(): Promise<void> {
    const current = song();
    if (!current) return;
    const part = bandPartOf(current, form);
    const { offsetCents, title } = current;
    const options = { seed: 7, tuningCents: offsetCents, drift: 0.006, backingDb: -3, drumsDb: -5, noiseDb: 45 };
    await recorded.bringBand(part, options, `${title}, simulated band.wav`);
  }

  const tapped = ref<readonly number[]>([]);
  /** A beat that is tapped along with the clock. */
  function tap(seconds: number): void {
    const last = tapped.value.at(-1);
    tapped.value =
      last !== undefined && seconds > last && seconds - last < PAUSE ? [...tapped.value, seconds] : [seconds];
  }
  const tappedTempo = computed(() => tempoFromTaps(tapped.value));

  const disagrees = computed((): readonly TakenOver[] => {
    const current = song();
    return current ? saidOfSetUp(current, recorded.heard.value, tappedTempo.value?.bpm) : [];
  });

  function countedIn(): Promise<void> {
    const round = recorded.loop.value;
    const { meter, bpm } = form.tempoChanges.value[0];
    const seconds = barSeconds(meter, bpm) / meter.beats / recorded.speed.value;
    return recorded.play({ ...round, loop: round !== undefined }, { beats: meter.beats, seconds });
  }

  /** Plays a phrase or a section round and round from its stamp. */
  function loopOver(what: { readonly phrase: Phrase } | { readonly section: Section }): Promise<void> {
    const round = 'phrase' in what ? times.value.get(what.phrase.id) : timeOf(what.section);
    if (!round || !has.value) return Promise.resolve();
    recorded.loop.value = round;
    return recorded.play({ ...round, loop: true });
  }

  function timeOf({ id }: Section) {
    const round = form.rounds.value.find((one) => one.id === id);
    return round && { from: round.fromSeconds, to: round.toSeconds };
  }

  const key = computed(() => readKey(song()?.key ?? '') ?? OPEN_KEY);
  const heldNames = computed(() => (recorded.held.value ?? []).map((midi) => writeSpelling(spell(midi, key.value))));
  return {
    recorded,
    has,
    clock,
    times,
    timeOf,
    bring,
    bringBand,
    tap,
    tapped,
    tappedTempo,
    disagrees,
    countedIn,
    loopOver,
    heldNames,
  };
}

/** A pause after which tapping begins anew, seconds. */
const PAUSE = 3;

/** The recording of a song as its desk has it. */
export type SongRecording = ReturnType<typeof useSongRecording>;
