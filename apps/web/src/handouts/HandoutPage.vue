<script setup lang="ts">
import { onKeyStroke, useElementSize, useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import MultiSelect from 'primevue/multiselect';
import ProgressBar from 'primevue/progressbar';
import Select from 'primevue/select';
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { DownloadButton, fileName, saveFile } from '../files/index.ts';
import { useLedger } from '../ledger/index.ts';
import { useRequests } from '../requests/index.ts';
import { isForPage, useNotices, usePage, useSession } from '../session/index.ts';
import { takeablesOf, useSong, useSongForm } from '../songs/index.ts';
import { loadMusicFont, loadNotation, notation } from '../tab/index.ts';
import { useGoals } from './goals.ts';
import { handoutBlocks, printable } from './handout.ts';
import { planPages, type PageLine } from './pagePlan.ts';
import { paperPixels, PAPERS, type PaperName } from './paper.ts';
import PaperPage from './PaperPage.vue';

const opened = usePage();
const route = useRoute();
const store = useSong();
const session = useSession();
const ledger = useLedger();
const requests = useRequests();
const goalsOf = useGoals();
const notices = useNotices();
const form = useSongForm(() => store.song);
const isReady = ref(false);
/** Phrases that are put on it. */
const chosen = ref<readonly string[]>([]);
const paper = useLocalStorage<PaperName>('jam-paper', 'A4');
const shown = useLocalStorage(
  'jam-handout',
  {
    staff: false,
    fingers: true,
    strokes: true,
    degrees: false,
    sentences: false,
    words: true,
    chords: true,
    goals: false,
  },
  { mergeDefaults: true },
);
const share = ref<number>();
let stopping: AbortController | undefined;

const song = computed(() => store.song);
onMounted(() =>
  opened.open(async () => {
    const id = String(route.params['id']);
    await Promise.all([store.loadSheet(id), loadMusicFont()]);
    chosen.value = song.value ? printable(song.value).map((phrase) => phrase.id) : [];
    isReady.value = true;
    await requests.load();
    await ledger.load(session.isStudent ? undefined : song.value?.student.id);
  }),
);

/** Where each piece of this song that was given stands, its rungs, and the next lesson; asked for when it is wanted. */
const goals = ref<readonly string[]>([]);
const givenIds = computed(() =>
  ledger.pieces.filter((piece) => piece.song.id === song.value?.id && piece.assignedOn !== null).map(({ id }) => id),
);
watch(
  [() => shown.value.goals, givenIds],
  ([wanted, ids]) => {
    const studentId = song.value?.student.id;
    if (!wanted || studentId === undefined) return;
    return notices.tell(async () => void (goals.value = await goalsOf.linesFor(studentId, ids)));
  },
  { immediate: true },
);
/** Sections with their phrases, to choose from. */
const choices = computed(() =>
  (song.value ? printable(song.value) : []).reduce<{ label: string; items: { id: string; label: string }[] }[]>(
    (groups, { id, name }) => {
      const section = song.value?.sections.find(({ phrases }) => phrases.some((one) => one.id === id));
      const label = [section?.label, section?.role].filter(Boolean).join(' ');
      const group = groups.at(-1);
      if (group?.label === label) group.items.push({ id, label: name });
      else groups.push({ label, items: [{ id, label: name }] });
      return groups;
    },
    [],
  ),
);
/** What was agreed for this song, and what was not asked for. */
const scope = computed(() => {
  const asked = (requests.requests ?? []).filter(({ transcriptionId }) => transcriptionId === song.value?.id);
  return asked.flatMap(({ scope: agreed, notWanted }) => [
    ...(agreed === '' ? [] : [`Agreed: ${agreed}`]),
    ...(notWanted.length === 0 ? [] : [`Left out, since it was not asked for: ${notWanted.join(', ')}.`]),
  ]);
});
/** What draws notation comes when it is wanted. */
watch(
  () => shown.value.staff,
  (wanted) => wanted && notices.tell(loadNotation),
  { immediate: true },
);
const plan = computed(() => {
  if (!song.value || !isReady.value) return undefined;
  const { inner, innerHeight } = paperPixels(paper.value);
  const { goals: withGoals, ...only } = shown.value;
  const options = {
    ...only,
    staff: only.staff && notation() !== undefined,
    phrases: new Set(chosen.value),
    goals: withGoals ? goals.value : [],
    scope: scope.value,
  };
  return planPages(handoutBlocks(song.value, form, { options, width: inner }), innerHeight);
});
const placeOf = (phraseId: string): PageLine | undefined => plan.value?.places.get(phraseId);
/** On a narrow screen a page stands as wide as that. */
const frame = useTemplateRef('frame');
const { width: room } = useElementSize(frame);
const zoom = computed(() => (room.value > 0 ? Math.min(1, room.value / paperPixels(paper.value).width) : 1));
const takeables = computed(() => (song.value ? takeablesOf(song.value, form, {}) : []));

watch(
  () => song.value?.title,
  (title) => {
    if (title !== undefined) document.title = `Handout · ${title}`;
  },
  { immediate: true },
);

function print(): void {
  window.print();
}
onKeyStroke('p', (event) => {
  if (isForPage(event)) print();
});

async function savePdf(): Promise<void> {
  const { value: pages } = plan;
  if (!pages || !song.value) return;
  const { title } = song.value;
  stopping = new AbortController();
  const { signal } = stopping;
  share.value = 0;
  await notices.tell(async () => {
    try {
      const { makePdf } = await import('./pdf.ts');
      const bytes = await makePdf({
        plan: pages,
        paper: paper.value,
        title,
        signal,
        tell: (done) => (share.value = done),
      });
      saveFile(fileName(title, 'pdf'), bytes, 'application/pdf');
    } catch (error) {
      if (!signal.aborted) throw error;
    }
  });
  share.value = undefined;
}

const CHOICES = [
  { name: 'staff', label: 'notation' },
  { name: 'fingers', label: 'fingers' },
  { name: 'strokes', label: 'strokes' },
  { name: 'degrees', label: 'degrees' },
  { name: 'words', label: 'words' },
  { name: 'sentences', label: 'the tab in words' },
  { name: 'chords', label: 'chords' },
  { name: 'goals', label: 'what to practise' },
] as const;
</script>

<template>
  <div v-if="song" ref="frame" class="handout">
    <header class="tools">
      <h1>Handout</h1>
      <p class="what">
        {{ song.title }} for <strong>{{ song.student.name }}</strong>
      </p>
      <MultiSelect
        v-model="chosen"
        :options="choices"
        option-label="label"
        option-value="id"
        option-group-label="label"
        option-group-children="items"
        aria-label="Phrases"
        :max-selected-labels="2"
        :selected-items-label="chosen.length === store.phrases.length ? 'All phrases' : '{0} phrases'"
        placeholder="No phrase"
      />
      <Select
        v-model="paper"
        :options="Object.entries(PAPERS).map(([value, { label }]) => ({ value, label }))"
        option-label="label"
        option-value="value"
        aria-label="Paper"
      />
      <span v-for="{ name, label } in CHOICES" :key="name" class="check">
        <Checkbox v-model="shown[name]" binary :input-id="`show-${name}`" /><label :for="`show-${name}`">{{
          label
        }}</label>
      </span>
      <span class="acts">
        <Button v-if="share === undefined" icon="pi pi-file-pdf" label="Save as PDF" @click="savePdf" />
        <Button v-else outlined label="Stop" @click="stopping?.abort()" />
        <Button outlined icon="pi pi-print" label="Print" title="p" @click="print" />
        <DownloadButton :choices="takeables" />
        <RouterLink v-if="session.isTeacher" :to="{ name: 'song', params: { id: song.id } }"
          >Back to the desk</RouterLink
        >
      </span>
      <ProgressBar
        v-if="share !== undefined"
        class="bar"
        :value="Math.round(share * 100)"
        aria-label="How much of the PDF is made"
      />
    </header>
    <p v-if="plan && store.phrases.length === 0" class="soft">No phrase is written yet; the pages fill as it is.</p>
    <div v-if="plan" class="pages" :style="{ zoom }">
      <PaperPage
        v-for="(page, index) in plan.pages"
        :key="`${paper} ${index}`"
        :page="page"
        :number="index + 1"
        :of="plan.pages.length"
        :title="song.title"
        :paper="paper"
        :place-of="placeOf"
      />
    </div>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
  margin-bottom: 1rem;
}
.what {
  margin: 0 auto 0 0;
}
.check {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}
.acts {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
}
.bar {
  width: 100%;
}
.pages {
  display: grid;
  gap: 1.2rem;
  justify-content: start;
  padding-bottom: 0.5rem;
}
@media print {
  .tools {
    display: none;
  }
  .pages {
    display: block;
    padding: 0;
    zoom: 1 !important;
    overflow: visible;
  }
}
</style>
