<script setup lang="ts">
import type { Phrase, Transcription } from '@jam-ledger/contract';
import { draftText } from '@jam-ledger/core/formats';
import type { Guitar } from '@jam-ledger/core/fretboard';
import type { WeighedEvent } from '@jam-ledger/core/listen';
import { perform, type Phrase as ReadPhrase, type Span } from '@jam-ledger/core/notation';
import { spell, writeSpelling, type Key } from '@jam-ledger/core/pitch';
import type { TempoChange } from '@jam-ledger/core/form';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, ref, shallowRef, watch } from 'vue';
import { feelOf } from '../../sound/index.ts';
import type { SongRecording } from './useSongRecording.ts';

const props = defineProps<{
  recording: SongRecording;
  song: Transcription;
  phrase: Phrase;
  text: string;
  read: ReadPhrase;
  guitar: Guitar;
  musicKey: Key;
  tempoChange: TempoChange;
  /** Puts another text in the place of all of it. */
  replace: (text: string) => void;
  /** Notes that the phrase was checked against the recording. */
  checked: () => Promise<void>;
}>();
const emit = defineEmits<{ show: [span: Span] }>();

const { recorded } = props.recording;
const way = ref<(typeof WAYS)[number]>('the recording');
const busy = ref('');
const trouble = ref('');
const weighed = shallowRef<readonly WeighedEvent[]>();
const time = computed(() => props.recording.times.value.get(props.phrase.id));
const offCents = computed(() => recorded.heard.value?.off?.cents ?? props.song.offsetCents);
watch([() => props.text, () => recorded.recording.value], () => (weighed.value = undefined));

const played = computed(() => {
  const { guitar, song, tempoChange } = props;
  const setUp = { tuning: guitar.tuning, capo: guitar.capo, feel: feelOf(song.feel), bpm: tempoChange.bpm };
  return perform(props.read, { ...setUp, offsetCents: offCents.value });
});
const doubts = computed(() => (weighed.value ?? []).filter(({ says }) => says === 'contradicts'));
const verdict = computed(() => {
  const all = weighed.value;
  if (!all) return undefined;
  const agree = all.filter(({ says }) => says === 'agrees').length;
  const untold = all.length - agree - doubts.value.length;
  const parts = [`${agree} of ${all.length} notes agree with the recording`];
  if (untold > 0) parts.push(`${untold} cannot be told`);
  if (doubts.value.length > 0)
    parts.push(`${doubts.value.length} ${doubts.value.length === 1 ? 'sounds' : 'sound'} otherwise`);
  return {
    says: `${parts.join(', ')}.`,
    isEvidence: doubts.value.length === 0 && agree >= ENOUGH * all.length && agree > 0,
  };
});

function nameOf(midi: number): string {
  return writeSpelling(spell(midi, props.musicKey));
}

async function attempt(what: string, work: () => Promise<void>): Promise<void> {
  if (busy.value !== '') return;
  [busy.value, trouble.value] = [what, ''];
  try {
    await work();
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be done.';
  } finally {
    busy.value = '';
  }
}

/** The phrase round and round: as recorded, as written, both at once, or one in each ear. */
function hear(): Promise<void> {
  return attempt('Playing …', async () => {
    const at = time.value;
    const open = recorded.recording.value;
    if (!at || !open) return;
    recorded.loop.value = at;
    if (way.value === 'the recording') return recorded.play({ ...at, loop: true });
    const seconds = at.to - at.from;
    const written = await recorded.ask((worker) => worker.render(played.value, open.sampleRate, seconds));
    const channels = mixedWith(open.channels, written, { from: Math.round(at.from * open.sampleRate), way: way.value });
    await recorded.play({ ...at, loop: true }, undefined, { channels, from: at.from });
  });
}

function listen(): Promise<void> {
  return attempt('Listening to each note …', async () => {
    const at = time.value;
    if (!at) return;
    const options = { atSeconds: at.from, offCents: offCents.value };
    weighed.value = await recorded.ask((worker) => worker.weigh(played.value, options));
  });
}

/** Drafts the stretch that goes round and round, else from the start of the phrase to the end of its section. */
function draft(): Promise<void> {
  return attempt('Drafting …', async () => {
    const { phrase, song, guitar, tempoChange } = props;
    const section = song.sections.find(({ id }) => id === phrase.sectionId);
    const whole = section && props.recording.timeOf(section);
    const from = recorded.loop.value?.from ?? time.value?.from ?? whole?.from ?? 0;
    const to = recorded.loop.value?.to ?? whole?.to ?? from + USUAL_DRAFT_SECONDS;
    if (to - from > LONGEST_DRAFT_SECONDS) throw new Error('A draft is made of at most a minute: set a loop first.');
    const { notes } = await recorded.ask((worker) => worker.draft(from, to, offCents.value));
    if (notes.length === 0)
      throw new Error('No one line is in front here, so nothing can be drafted. Try a stretch where it plays alone.');
    const bars = { meter: tempoChange.meter, bpm: tempoChange.bpm, barSeconds: barNear(from) };
    props.replace(draftText(notes, { guitar, ...bars }));
  });
}

/** Where the bar begins that a draft from here is counted from, seconds behind it. */
function barNear(from: number): number {
  return (time.value?.from ?? from) - from;
}
</script>

<script lang="ts">
const WAYS = ['the recording', 'both at once', 'the tab alone', 'tab left, recording right'] as const;
/** A phrase is checked where at least this share of it agrees and nothing contradicts. Our choice. */
const ENOUGH = 0.6;
const LONGEST_DRAFT_SECONDS = 60;
const USUAL_DRAFT_SECONDS = 8;
/** The tab beside the recording, so that neither hides the other. Our choice. */
const BESIDE = 0.8;

/** The recording with the tab as it is written, from a sample of it on; two channels. */
function mixedWith(
  channels: readonly Float32Array[],
  written: Float32Array,
  { from, way }: { readonly from: number; readonly way: (typeof WAYS)[number] },
): readonly Float32Array<ArrayBuffer>[] {
  const [left = new Float32Array(0), right = left] = channels;
  const side = (channel: Float32Array, isLeft: boolean) =>
    Float32Array.from(written, (sample, n) => {
      const recordedSample = channel[from + n] ?? 0;
      if (way === 'the tab alone') return sample;
      if (way === 'both at once') return BESIDE * (recordedSample + sample);
      return isLeft ? sample : ((left[from + n] ?? 0) + (right[from + n] ?? 0)) / 2;
    });
  return [side(left, true), side(right, false)];
}
</script>

<template>
  <section v-if="recording.has.value" class="agree" aria-label="The phrase against the recording">
    <div class="tools">
      <Button size="small" outlined label="Play it from the recording" :disabled="!time" @click="hear" />
      <Select v-model="way" size="small" :options="[...WAYS]" aria-label="What is heard" />
      <Button
        size="small"
        outlined
        label="Ask the recording"
        :disabled="!time || played.length === 0"
        @click="listen"
      />
      <Button size="small" text label="Draft it" title="Writes what one line plays, as a guess" @click="draft" />
      <span v-if="busy" role="status">{{ busy }}</span>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
    <div v-if="verdict" class="verdict" role="status">
      <p>
        {{ verdict.says }}
        <Button v-if="verdict.isEvidence" size="small" text label="Take it as evidence" @click="checked" />
      </p>
      <ul class="quiet-list">
        <li v-for="doubt in doubts" :key="doubt.seconds">
          <Button
            size="small"
            text
            :label="`${nameOf(doubt.expected)} is written, ${nameOf(doubt.heard ?? doubt.expected)} was heard`"
            @click="emit('show', doubt.span)"
          />
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
}
.verdict {
  border-left: 3px solid var(--cool);
  padding-left: 0.6rem;
  margin-top: 0.4rem;
}
.verdict p {
  margin: 0;
}
</style>
