<script setup lang="ts">
import { changesWith, tempoAt } from '@jam-ledger/core/form';
import { writeMeter } from '@jam-ledger/core/notation';
import {
  songAt,
  type BroughtBody,
  type PieceBody,
  type Phrase,
  type SectionBody,
  type SetUpChange,
  type TempoMark,
} from '@jam-ledger/contract';
import { useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import { computed, defineAsyncComponent, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { pressOnDesk } from './deskKeys.ts';
import { listenAgain } from './listenAgain.ts';
import { useSetUp } from './setup/useSetUp.ts';
import { useFormDesk } from './form/useFormDesk.ts';
import { useSongForm } from './form/useSongForm.ts';
import FormMargin from './form/FormMargin.vue';
import FormStrip from './form/FormStrip.vue';
import PhraseList from './form/PhraseList.vue';
import RetuneNote from './setup/RetuneNote.vue';
import SecondListen from './SecondListen.vue';
import SongHead from './SongHead.vue';
import { useBringIn } from './useBringIn.ts';
import type { Copyable } from '../copies/index.ts';
import { takeablesOf } from './takeables.ts';
import { useLedger } from '../ledger/index.ts';
import { useNotices, usePage, usePageAbout } from '../session/index.ts';
import { setUpOf, useSong, withChange } from './song.ts';
import { useSongPhrases } from './songPhrases.ts';
import PhraseDesk from './phrase/PhraseDesk.vue';
import { RecordingBar, WaveStrip } from '../recordings/index.ts';
import RecordingMargin from './recording/RecordingMargin.vue';
import { useSongRecording } from './recording/useSongRecording.ts';
import { FoldPart } from '../ui/index.ts';

// What is asked for comes when it is.
const BringInDialog = defineAsyncComponent(() => import('./BringInDialog.vue'));
const SectionForm = defineAsyncComponent(() => import('./form/SectionForm.vue'));
const SetUpForm = defineAsyncComponent(() => import('./setup/SetUpForm.vue'));

const page = usePage();
const route = useRoute();
const router = useRouter();
const store = useSong();
const songPhrases = useSongPhrases();
const ledger = useLedger();
const notices = useNotices();
const chosenSection = ref<string>();
const chosenPhrase = ref<string>();
const editing = ref<'set-up' | 'new-section' | 'section' | undefined>();
const root = useTemplateRef<HTMLElement>('root');
/** Whether the phrase that is opened next gets the keyboard at once. */
const typing = ref(false);

const song = computed(() => store.song);
const form = useSongForm(() => store.song);
const desk = useFormDesk(form, (id) => (chosenSection.value = id));
const { retuned, keepSetUp, moveNotes } = useSetUp(form);
const section = computed(
  () => song.value?.sections.find(({ id }) => id === chosenSection.value) ?? song.value?.sections[0],
);
const phrase = computed(
  () => section.value?.phrases.find(({ id }) => id === chosenPhrase.value) ?? section.value?.phrases[0],
);
/** The song as its guitar is where the phrase stands. */
const songThere = computed(() => (song.value && section.value ? songAt(song.value, section.value) : song.value));
const piecesByPhrase = computed(
  () => new Map(ledger.pieces.filter(({ kind }) => kind === 'phrase').map((piece) => [piece.phrase.id, piece])),
);

/** Opens the song of the address. */
function open(): Promise<void> {
  return page.open(async () => {
    [chosenSection.value, chosenPhrase.value, editing.value] = [undefined, undefined, undefined];
    await store.load(String(route.params['id']));
    if (!song.value) return;
    if (song.value.sections.length === 0) editing.value = 'set-up';
    const { phrase: asked, section: inside } = route.query;
    if (typeof inside === 'string') chosenSection.value = inside;
    if (typeof asked === 'string') openPhrase(asked);
    if (song.value.student.isStudent) await ledger.load(song.value.student.id);
  });
}
onMounted(open);
// From one song to another, as to a copy of it, the page stays.
watch(
  () => route.params['id'],
  () => route.name === 'song' && open(),
);

usePageAbout(() => song.value?.title);
// What is on the desk stands in the address, so that it is there again when the page is loaded anew.
watch([chosenSection, chosenPhrase], () => {
  if (route.name !== 'song' || !song.value) return;
  const [inside, asked] = [section.value?.id, chosenPhrase.value];
  void router.replace({ query: { ...(inside && { section: inside }), ...(asked && { phrase: asked }) } });
});

/** Sections to which the form may jump back after the one that is being written or changed. */
const earlier = computed(() => {
  const all = song.value?.sections ?? [];
  const place = all.findIndex(({ id }) => id === section.value?.id);
  return editing.value === 'new-section' ? all : all.slice(0, place + 1);
});
/** What of the song can be taken along: all of it, the section and the phrase on the desk. */
const takeables = computed(() =>
  song.value ? takeablesOf(song.value, form, { section: section.value, phrase: phrase.value }) : [],
);
/** What of the song can be copied for another student: the song, the section and the phrase on the desk. */
const copyables = computed((): readonly Copyable[] => [
  ...(song.value ? [{ kind: 'song' as const, id: song.value.id, label: 'the song' }] : []),
  ...(section.value
    ? [{ kind: 'section' as const, id: section.value.id, label: `section ${section.value.label}` }]
    : []),
  ...(phrase.value ? [{ kind: 'phrase' as const, id: phrase.value.id, label: `“${phrase.value.name}”` }] : []),
]);
const doubts = computed(() => listenAgain(song.value?.sections ?? [], form.readingOf));
const recording = useSongRecording(
  () => store.song,
  form,
  () => Math.max(8, song.value?.songSeconds ?? (form.rounds.value.at(-1)?.toSeconds ?? 0) + 60),
);
const { clock, recorded } = recording;
const bringing = useBringIn(recording.bring);
const length = computed(() => recorded.recording.value?.seconds ?? song.value?.songSeconds ?? null);

/** On a small screen what is typed has the room; the form folds until it is asked for. */
const isSmall = window.matchMedia('(max-width: 900px), (max-height: 500px)').matches;
const phraseDesk = useTemplateRef('phraseDesk');

/** The form begins at a beat of the recording: its first section is moved there, or begins there. */
function beginAt(seconds: number): Promise<void> {
  const first = song.value?.sections[0];
  return first ? desk.move(first.id, seconds) : desk.drop(seconds);
}

async function keep(change: SetUpChange): Promise<void> {
  await keepSetUp(change);
  if (song.value?.sections.length === 0) editing.value = 'new-section';
}

async function addSection(body: SectionBody, change: TempoMark | undefined): Promise<void> {
  chosenSection.value = (await store.addSection(body))?.id;
  await keepChange(body.startSeconds, change);
  await nextTick();
  // Its first phrase comes next.
  root.value?.querySelector<HTMLElement>('.add-phrase')?.focus();
}

function repeatSection(): Promise<void> {
  return notices.tell(async () => {
    if (!section.value) return;
    const first = await desk.repeat(section.value);
    typing.value = true;
    chosenPhrase.value = first?.id;
  });
}

async function changeSection(body: SectionBody, change: TempoMark | undefined): Promise<void> {
  const id = section.value?.id;
  if (id === undefined) return;
  await store.amendSections([{ id, change: body }], `Section ${body.label} is changed.`);
  await keepChange(body.startSeconds, change);
}

/** Keeps what changes of tempo, meter and key where a section starts, if that is not what is kept already. */
async function keepChange(atSeconds: number, change: TempoMark | undefined): Promise<void> {
  const current = song.value;
  if (!current) return;
  const changes = changesWith(current.changes, atSeconds, change);
  if (JSON.stringify(changes) === JSON.stringify(current.changes)) return;
  await keepSetUp(withChange(current, { changes }));
}

const changeAt = (seconds: number) => song.value?.changes.find(({ atSeconds }) => atSeconds === seconds);
/** The tempo and meter that hold at a place of the song. */
function inForceAt(seconds: number): { readonly tempo: number; readonly meter: string } {
  const { bpm, meter } = tempoAt(seconds, form.tempoChanges.value);
  return { tempo: bpm, meter: writeMeter(meter) };
}

function addPhrase(): Promise<void> {
  return notices.tell(async () => {
    const current = section.value;
    if (!current) return;
    const added = await songPhrases.addPhrase(current, `Phrase ${current.phrases.length + 1}`);
    typing.value = true;
    chosenPhrase.value = added.id;
  });
}

useEventListener('keydown', (event) => {
  pressOnDesk(event, root.value, { addPhrase: () => void addPhrase(), repeatSection: () => void repeatSection() });
});

function closeSetUp(): void {
  if (editing.value === 'set-up') editing.value = undefined;
}

async function assign(body: PieceBody): Promise<void> {
  const piece = await songPhrases.assign(body);
  // Places that were open are written into the text as the piece is given.
  await store.reload();
  await ledger.load(piece.student.id);
  notices.say(`“${piece.phrase.name}” is assigned to ${piece.student.name}.`, async () => {
    await songPhrases.takeBack(piece);
    await ledger.load(piece.student.id);
  });
}

function showSection(id: string): void {
  chosenSection.value = id;
}

/** To the phrase after (or before) the one on the desk, over the borders of sections. */
function goPhrase(by: 1 | -1): void {
  const all = store.phrases;
  typing.value = true;
  openPhrase(all[all.findIndex(({ id }) => id === phrase.value?.id) + by]?.id);
}

/** What was brought in is opened at its first phrase. */
async function bringPhrases(body: BroughtBody): Promise<void> {
  openPhrase(await store.bringIn(body));
}

function openPhrase(id: string | undefined): void {
  const found = store.phrases.find((one) => one.id === id);
  if (!found) return;
  chosenSection.value = found.sectionId;
  chosenPhrase.value = found.id;
}

function rename(renamed: Phrase, name: string): Promise<void> {
  return songPhrases.changePhrase(renamed, { name });
}
</script>

<template>
  <div v-if="song" ref="root">
    <SongHead
      :song="song"
      :takeables="takeables"
      :copyables="copyables"
      :bring-phrases="bringPhrases"
      @set-up="editing = editing === 'set-up' ? undefined : 'set-up'"
      @bring-in="bringing.begin()"
      @back="notices.tell(store.reload)"
    />
    <SetUpForm
      v-if="editing === 'set-up'"
      :key="song.id"
      :set-up="setUpOf(song)"
      :version="song.version"
      :draft="`set-up ${song.id} ${song.version}`"
      :save="keep"
      @done="closeSetUp"
    />
    <RetuneNote
      v-if="retuned.length > 0"
      :retuned="retuned"
      @move="moveNotes"
      @leave="retuned = []"
      @open="openPhrase"
    />
    <FoldPart
      v-if="song.student.isStudent"
      name="form"
      title="Form and recording"
      :folded="isSmall"
      class="screen-part"
    >
      <FormStrip
        :sections="song.sections"
        :rounds="form.rounds.value"
        :tempo-changes="form.tempoChanges.value"
        :song-seconds="length"
        :student-layer="song.studentLayer"
        :rig="song.rig"
        :chosen="section?.id"
        :clock="clock"
        @choose="showSection"
        @move="desk.move"
        @drop="desk.drop"
        @stamp="phraseDesk?.stamp($event)"
        @beat="recording.tap"
      >
        <template v-if="recorded.recording.value" #wave="{ perSecond }">
          <WaveStrip
            :recording="recorded.recording.value"
            :per-second="perSecond"
            :loud="recorded.heard.value?.loud"
            :loop="recorded.loop.value"
          />
        </template>
      </FormStrip>
      <RecordingBar
        class="screen-only"
        :recorded="recorded"
        :held-names="recording.heldNames.value"
        :off-cents="recorded.heard.value?.off?.cents ?? 0"
        @bring="recording.bring"
        @band="recording.bringBand"
        @count-in="recording.countedIn"
      >
        <Button v-if="section" size="small" text label="Loop the section" @click="recording.loopOver({ section })" />
        <Button v-if="phrase" size="small" text label="Loop the phrase" @click="recording.loopOver({ phrase })" />
      </RecordingBar>
      <RecordingMargin
        :disagrees="recording.disagrees.value"
        @take="(change) => song && notices.tell(() => keep(withChange(song!, change)))"
        @begin="beginAt"
      />
    </FoldPart>
    <SectionForm
      v-if="editing === 'new-section'"
      :first="desk.nextSection.value"
      :earlier="earlier"
      :change="undefined"
      :in-force="inForceAt(desk.nextSection.value.startSeconds)"
      :save="addSection"
      :draft="`section of ${song.id}`"
      word="Add it"
      @done="editing = undefined"
    />
    <SectionForm
      v-else-if="editing === 'section' && section"
      :key="section.id"
      :first="section"
      :earlier="earlier"
      :change="changeAt(section.startSeconds)"
      :in-force="inForceAt(section.startSeconds)"
      :save="changeSection"
      :draft="`section ${section.id} ${section.version}`"
      word="Save"
      @done="editing = undefined"
    />
    <FormMargin
      :problems="form.problems.value"
      :labels="desk.proposed.value"
      @show="showSection"
      @fix="desk.fix"
      @label="desk.label"
    />
    <SecondListen :list="doubts" @open="openPhrase" />
    <BringInDialog
      v-if="bringing.isWanted.value"
      v-model:open="bringing.isOpen.value"
      :song="song"
      :file="bringing.file.value"
      :keep="bringPhrases"
    />
    <div class="desk">
      <aside class="left" aria-label="Phrases of the section">
        <PhraseList
          v-if="section"
          :section="section"
          :chosen="phrase?.id"
          :assigned="new Set(piecesByPhrase.keys())"
          @choose="chosenPhrase = $event"
          @add="addPhrase"
          @strike="notices.tell(() => songPhrases.strikePhrase($event, true))"
          @edit="editing = 'section'"
          @again="repeatSection"
          @strike-section="section && notices.tell(() => store.strikeSection(section!, true))"
        />
        <p v-else class="soft">Lay out the form first: where does the first section start?</p>
        <hr class="screen-only" />
        <Button size="small" outlined icon="pi pi-plus" label="Add a section" @click="editing = 'new-section'" />
      </aside>
      <PhraseDesk
        v-if="phrase && songThere"
        ref="phraseDesk"
        :key="phrase.id"
        :phrase="phrase"
        :song="songThere"
        :typing="typing"
        :times="section?.times ?? 1"
        :piece="piecesByPhrase.get(phrase.id)"
        :assign="assign"
        :rename="rename"
        :keep="store.keepPhrase"
        :meter-of="({ sectionId }) => writeMeter(form.tempoOf(sectionId).meter)"
        :tempo-change="form.tempoOf(phrase.sectionId)"
        :recording="recording"
        @go-phrase="goPhrase"
        @add-phrase="addPhrase"
        @open="openPhrase"
      />
      <p v-else class="soft start">
        {{
          section
            ? 'Add a phrase, then type it the way you say it: fret, then string.'
            : 'A section holds the phrases; add one on the left.'
        }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: 12.5rem minmax(0, 1fr);
  gap: 1.2rem;
  margin-top: 1rem;
}
hr {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0.8rem 0;
}
.start {
  padding: 3rem 1rem;
  text-align: center;
}
@media (max-width: 900px) {
  .desk {
    grid-template-columns: minmax(0, 1fr);
    margin-top: 0.4rem;
  }
  /* What is typed comes first; the list of phrases stands under it. */
  .left {
    order: 2;
  }
}
@media print {
  .desk {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
