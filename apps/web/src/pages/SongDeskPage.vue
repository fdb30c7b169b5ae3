<script setup lang="ts">
import type { Piece, PieceBody, Phrase, SectionBody, SetUpChange } from '@jam-ledger/contract';
import type { FormFix } from '@jam-ledger/core/form';
import { COMMON_TIME, readMeter } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/index.ts';
import FormMargin from '../parts/FormMargin.vue';
import FormStrip from '../parts/FormStrip.vue';
import PhraseList from '../parts/PhraseList.vue';
import SectionForm from '../parts/SectionForm.vue';
import SetUpForm from '../parts/SetUpForm.vue';
import { useLedger, useNotices, useSong } from '../stores/index.ts';
import PhraseDesk from './PhraseDesk.vue';

const route = useRoute();
const store = useSong();
const ledger = useLedger();
const notices = useNotices();
const chosenSection = ref<string>();
const chosenPhrase = ref<string>();
const editing = ref<'set-up' | 'new-section' | 'section' | undefined>();

const song = computed(() => store.song);
const section = computed(
  () => song.value?.sections.find(({ id }) => id === chosenSection.value) ?? song.value?.sections[0],
);
const phrase = computed(
  () => section.value?.phrases.find(({ id }) => id === chosenPhrase.value) ?? section.value?.phrases[0],
);
const piecesByPhrase = computed(() => new Map(ledger.pieces.map((piece): [string, Piece] => [piece.phrase.id, piece])));

onMounted(() =>
  notices.tell(async () => {
    await store.load(String(route.params['id']));
    if (!song.value) return;
    await ledger.load(song.value.student.id);
    if (song.value.sections.length === 0) editing.value = 'set-up';
  }),
);

/** The label after the last one, `1A` then `1B`. */
const nextSection = computed((): SectionBody => {
  const last = song.value?.sections.at(-1);
  const label = last?.label.replace(/[A-Y]$/, (letter) => String.fromCharCode(letter.charCodeAt(0) + 1)) ?? '1A';
  return { label, role: last?.role ?? 'riff', startSeconds: last?.startSeconds ?? 0, bars: 4 };
});

async function keepSetUp(change: SetUpChange): Promise<void> {
  await store.changeSetUp(change);
  if (song.value?.sections.length === 0) editing.value = 'new-section';
}

async function addSection(body: SectionBody): Promise<void> {
  chosenSection.value = (await store.addSection(body))?.id;
}

async function changeSection(body: SectionBody): Promise<void> {
  if (section.value) await store.changeSection(section.value, body);
}

function addPhrase(): Promise<void> {
  return notices.tell(async () => {
    const current = section.value;
    if (!current) return;
    const added = await store.addPhrase(current, `Phrase ${current.phrases.length + 1}`);
    chosenPhrase.value = added.id;
  });
}

function closeSetUp(): void {
  if (editing.value === 'set-up') editing.value = undefined;
}

async function assign(body: PieceBody): Promise<void> {
  const piece = await api.assignPiece(body);
  await ledger.load(piece.student.id);
  notices.say(`“${piece.phrase.name}” is assigned to ${piece.student.name}.`, async () => {
    const { startBpm, targetBpm, version } = piece;
    await api.changePiece(piece.id, { startBpm, targetBpm, version, struck: true });
    await ledger.load(piece.student.id);
  });
}

function showSection(id: string): void {
  chosenSection.value = id;
}

/** Mends the form as the margin offers it; the change can be taken back. */
function mendForm({ sectionId, change }: FormFix): Promise<void> {
  return notices.tell(async () => {
    const mended = song.value?.sections.find(({ id }) => id === sectionId);
    if (!mended || change.bars === undefined) return;
    const { label, role, startSeconds, bars } = mended;
    await store.changeSection(mended, { label, role, startSeconds, bars: change.bars });
    notices.say(`${label} now has ${change.bars} bars.`, async () => {
      const now = song.value?.sections.find(({ id }) => id === sectionId);
      if (now) await store.changeSection(now, { label, role, startSeconds, bars });
    });
  });
}

/** To the phrase after (or before) the one on the desk, over the borders of sections. */
function goPhrase(by: 1 | -1): void {
  const all = store.phrases;
  openPhrase(all[all.findIndex(({ id }) => id === phrase.value?.id) + by]?.id);
}

function openPhrase(id: string | undefined): void {
  const found = store.phrases.find((one) => one.id === id);
  if (!found) return;
  chosenSection.value = found.sectionId;
  chosenPhrase.value = found.id;
}

async function rename(renamed: Phrase, name: string): Promise<void> {
  const { id, text, version } = renamed;
  store.keepPhrase(await api.changePhrase(id, { name, text, version, struck: false }));
}
</script>

<template>
  <div v-if="song">
    <header class="head">
      <div>
        <h1>{{ song.title }}</h1>
        <p class="soft">
          {{ song.whose }}<template v-if="song.whose"> · </template>for <strong>{{ song.student.name }}</strong>
        </p>
      </div>
      <p class="facts">
        {{ song.tuning }} · capo {{ song.capo === 0 ? 'none' : song.capo }} · {{ song.key || 'key open' }} ·
        {{ song.tempo }} bpm · {{ song.meter }} · {{ song.frets }} frets
        <Button size="small" text label="Set up" @click="editing = editing === 'set-up' ? undefined : 'set-up'" />
        <RouterLink :to="{ name: 'sheet', params: { id: song.id } }">Sheet</RouterLink>
      </p>
    </header>
    <SetUpForm
      v-if="editing === 'set-up'"
      :key="song.version"
      :set-up="song"
      :version="song.version"
      :save="keepSetUp"
      @done="closeSetUp"
    />
    <FormStrip
      :sections="song.sections"
      :tempo="song.tempo"
      :meter="song.meter"
      :chosen="section?.id"
      @choose="showSection"
    />
    <FormMargin
      :sections="song.sections"
      :tempo="song.tempo"
      :meter="readMeter(song.meter) ?? COMMON_TIME"
      :tuning="TUNINGS[song.tuning]"
      @show="showSection"
      @fix="mendForm"
    />
    <div class="desk">
      <aside class="left">
        <PhraseList
          v-if="section && editing !== 'section'"
          :section="section"
          :chosen="phrase?.id"
          :assigned="new Set(piecesByPhrase.keys())"
          @choose="chosenPhrase = $event"
          @add="addPhrase"
          @strike="notices.tell(() => store.strikePhrase($event, true))"
          @edit="editing = 'section'"
          @strike-section="section && notices.tell(() => store.strikeSection(section!, true))"
        />
        <SectionForm
          v-else-if="section"
          :first="section"
          :save="changeSection"
          word="Keep it"
          @done="editing = undefined"
        />
        <p v-else class="soft">Lay out the form first: where does the first section start?</p>
        <hr />
        <SectionForm
          v-if="editing === 'new-section'"
          :first="nextSection"
          :save="addSection"
          word="Add it"
          @done="editing = undefined"
        />
        <Button v-else size="small" outlined icon="pi pi-plus" label="Add a section" @click="editing = 'new-section'" />
      </aside>
      <PhraseDesk
        v-if="phrase"
        :key="phrase.id"
        :phrase="phrase"
        :song="song"
        :piece="piecesByPhrase.get(phrase.id)"
        :assign="assign"
        :rename="rename"
        :keep="store.keepPhrase"
        @go-phrase="goPhrase"
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
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: end;
  gap: 0.3rem 2rem;
  margin-bottom: 0.6rem;
}
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
</style>
