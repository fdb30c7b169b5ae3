<script setup lang="ts">
import { SONG_LIMITS, startValueOf, type BroughtBody, type Transcription } from '@jam-ledger/contract';
import { tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import type { BroughtSong, Cut } from '@jam-ledger/core/formats';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import { scoreOf } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import FileUpload, { type FileUploadSelectEvent } from 'primevue/fileupload';
import ProgressBar from 'primevue/progressbar';
import Select from 'primevue/select';
import { computed, ref, shallowRef, watch } from 'vue';
import { askFiles, endFiles, type ReadFile } from '../files/index.ts';
import { TabPage, tuningOf } from '../tab/index.ts';
import { chosenFile } from '../ui/index.ts';

const props = defineProps<{
  song: Transcription;
  file: File | undefined;
  keep: (body: BroughtBody) => Promise<void>;
}>();
const open = defineModel<boolean>('open', { required: true });

const CUTS: readonly { readonly label: string; readonly cut: Cut }[] = [
  { label: 'at its sections', cut: 'sections' },
  { label: 'where it rests', cut: 'rests' },
  { label: 'every four bars', cut: 'bars' },
];
/** Largest file that is taken, bytes. Our choice. */
const MAX_BYTES = 60_000_000;

const chosen = shallowRef<File>();
const read = shallowRef<ReadFile>();
const part = ref(0);
const cut = ref<Cut>('sections');
const brought = shallowRef<BroughtSong>();
const shown = ref(0);
const trouble = ref('');
const busy = ref(false);

const tempoChanges = computed(() => readTempoChanges(props.song));
const meter = computed(() => tempoAt(props.song.sections.at(-1)?.startSeconds ?? 0, tempoChanges.value).meter);
const parts = computed(() => (read.value?.kind === 'parts' ? read.value.brought.parts : []));
const problems = computed(() => {
  if (!read.value) return [];
  const own = read.value.kind === 'parts' ? read.value.brought.problems : read.value.problems;
  return [...own, ...(brought.value?.problems ?? [])];
});
const phrases = computed(() =>
  (brought.value?.sections ?? []).flatMap((section) =>
    section.phrases.map((one) => ({ ...one, section: section.label })),
  ),
);
const preview = computed(() => {
  const phrase = phrases.value[shown.value];
  if (!phrase) return [];
  const { song } = props;
  const options = {
    tuning: tuningOf(song),
    capo: song.capo,
    meter: meter.value,
    startValue: startValueOf(song.rhythm),
  };
  return scoreOf(readPlaced(phrase.text, options).phrase);
});

watch(
  () => props.file,
  (file) => file && void take(file),
  { immediate: true },
);
watch([part, cut], () => void cutAnew());

async function take(file: File): Promise<void> {
  chosen.value = file;
  read.value = brought.value = undefined;
  part.value = shown.value = 0;
  trouble.value = '';
  if (file.size > MAX_BYTES) {
    trouble.value = 'This file is too large to be read.';
    return;
  }
  await working(async () => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const found = await askFiles((worker): Promise<ReadFile> => worker.read(file.name, bytes));
    read.value = found;
    if (found.kind === 'parts') {
      const most = found.brought.parts.map(({ events }) => events.length);
      part.value = Math.max(0, most.indexOf(Math.max(...most)));
    }
    await cutAnew();
  });
}

async function cutAnew(): Promise<void> {
  const found = read.value;
  if (found?.kind === 'shorthand') {
    const counted = found.song.sections.map(({ label, role, bars, times, phrases: own }) => ({
      ...{ label: [label, role].filter(Boolean).join(' '), bars: bars ?? 4, times },
      phrases: own.map((one) => ({ ...one, notes: 0 })),
    }));
    brought.value = { sections: counted, problems: [] };
    return;
  }
  const { song } = props;
  const guitar = {
    ...{ tuning: tuningOf(song), capo: song.capo, frets: song.frets, scaleLengthMm: song.scaleLengthMm },
    reachMm: reachOfHand(song.student.guitar),
  };
  const options = { guitar, cut: cut.value, meter: meter.value };
  const one = found?.brought.parts[part.value];
  shown.value = 0;
  brought.value = one ? await askFiles((worker) => worker.sections(one, options)) : undefined;
}

async function working(work: () => Promise<void>): Promise<void> {
  busy.value = true;
  try {
    await work();
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'The file could not be read.';
  } finally {
    busy.value = false;
  }
}

/** A label and a role of a heading: “1A riff”. */
function headingOf(text: string, index: number): { readonly label: string; readonly role: string } {
  const [first = '', ...rest] = text.split(/\s+/).filter(Boolean);
  const max = SONG_LIMITS.label;
  return { label: (first || `In ${index + 1}`).slice(0, max), role: rest.join(' ').slice(0, max) || 'riff' };
}

function accept(): Promise<void> {
  return working(async () => {
    const sections = (brought.value?.sections ?? []).filter((section) => section.phrases.length > 0);
    await props.keep({
      from: `from ${(chosen.value?.name ?? 'a file').slice(0, 200)}`,
      layer: props.song.studentLayer,
      sections: sections.map(({ label, bars, times, phrases: own }, index) => ({
        ...headingOf(label, index),
        ...{ bars: Math.min(bars, SONG_LIMITS.bars.max), times: Math.min(times, SONG_LIMITS.times) },
        phrases: own.map(({ name, text }) => ({ name: name.slice(0, SONG_LIMITS.phraseName) || 'Phrase', text })),
      })),
    });
    open.value = false;
  });
}

function choose(event: FileUploadSelectEvent): void {
  const file = chosenFile(event);
  if (file) void take(file);
}
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="Import a file"
    :style="{ width: '54rem' }"
    :breakpoints="{ '900px': '96vw' }"
    @hide="busy && endFiles()"
  >
    <div class="bring">
      <p class="soft">
        MusicXML (.musicxml, .xml, .mxl), MIDI, text tab or shorthand. Nothing is saved before you say so.
      </p>
      <p class="file">
        <FileUpload
          mode="basic"
          custom-upload
          auto
          accept=".musicxml,.xml,.mxl,.mid,.midi,.txt,.tab"
          choose-label="Choose a file"
          @select="choose"
        />
        <span v-if="chosen">{{ chosen.name }}</span>
        <span v-else class="soft">or drop one on the page</span>
      </p>
      <div v-if="busy" role="status">
        Reading… <Button size="small" text label="Stop" @click="endFiles" />
        <ProgressBar mode="indeterminate" aria-label="The file is being read" :style="{ height: '4px' }" />
      </div>
      <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
      <div v-if="parts.length > 0" class="options">
        <label v-if="parts.length > 1"
          >Part
          <Select
            v-model="part"
            :options="parts.map(({ name, events }, value) => ({ label: `${name}, ${events.length} notes`, value }))"
            option-label="label"
            option-value="value"
            aria-label="Part"
          />
        </label>
        <label
          >Cut into phrases
          <Select
            v-model="cut"
            :options="[...CUTS]"
            option-label="label"
            option-value="cut"
            aria-label="Cut into phrases"
        /></label>
      </div>
      <section v-if="problems.length > 0" class="problems" aria-label="Problems">
        <p v-for="({ place, message }, index) in problems" :key="index">
          <strong v-if="place">{{ place }}:</strong> {{ message }}
        </p>
      </section>
      <template v-if="phrases.length > 0">
        <ul class="quiet-list phrases" aria-label="Phrases">
          <li v-for="(phrase, index) in phrases" :key="index">
            <Button
              size="small"
              text
              :class="{ chosen: index === shown }"
              :aria-pressed="index === shown"
              :label="phrase.name"
              @click="shown = index"
            />
            <span class="soft">{{ phrase.section }}</span>
            <code>{{ phrase.text }}</code>
          </li>
        </ul>
        <TabPage :bars="preview" :strings="tuningOf(song).openMidis.length" :scale="0.7">Empty.</TabPage>
      </template>
      <p v-else-if="read && !busy" class="soft">There is nothing to bring in.</p>
      <footer>
        <Button text label="Cancel" @click="open = false" />
        <Button
          icon="pi pi-check"
          :disabled="phrases.length === 0 || busy"
          :label="phrases.length === 1 ? 'Import one phrase' : `Import ${phrases.length} phrases`"
          @click="accept"
        />
      </footer>
    </div>
  </Dialog>
</template>

<style scoped>
.bring {
  display: grid;
  gap: 0.8rem;
}
.bring p {
  margin: 0;
}
.file,
.options,
.options label {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.7rem;
  align-items: center;
}
.problems {
  border-left: 3px solid var(--warm);
  padding-left: 0.7rem;
  max-height: 8rem;
  overflow: auto;
  font-size: 0.92rem;
}
.phrases {
  max-height: 11rem;
  overflow: auto;
  margin: 0;
}
.phrases li {
  display: grid;
  grid-template-columns: minmax(6rem, auto) 5rem minmax(0, 1fr);
  gap: 0.6rem;
  align-items: center;
}
.phrases code {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chosen {
  text-decoration: underline;
}
footer {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 0.6rem;
}
</style>
