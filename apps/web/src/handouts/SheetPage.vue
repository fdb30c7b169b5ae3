<script setup lang="ts">
import { FIDELITY_SAYS, songAt, startValueOf, type Phrase, type Section, type SetUp } from '@jam-ledger/contract';
import { tempoAt, readTempoChanges } from '@jam-ledger/core/form';
import { scoreOf, type Meter } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { onKeyStroke } from '@vueuse/core';
import Button from 'primevue/button';
import { computed, onMounted } from 'vue';
import { useRoute } from 'vue-router';
import { sayPass, useSong } from '../songs/index.ts';
import { clockText } from '../ui/index.ts';
import { TabPage, legendOf, tuningOf } from '../tab/index.ts';
import { useNotices } from '../session/index.ts';

const route = useRoute();
const store = useSong();
const notices = useNotices();
onMounted(() => notices.tell(() => store.load(String(route.params['id']))));

/** How much smaller a phrase stands on the page than on the desk, so that a page holds twelve. */
const PAGE_SCALE = 0.62;

const song = computed(() => store.song);
const NO_SONG: Pick<SetUp, 'tuning' | 'capo' | 'rhythm'> = { tuning: 'standard', capo: 0, rhythm: 'counted' };
const tempoChanges = computed(() => readTempoChanges(song.value ?? { tempo: 100, meter: '4/4', changes: [] }));
const barsOf = ({ text }: Phrase, meter: Meter, section: Section) => {
  const { capo, rhythm, ...there } = songAt(song.value ?? NO_SONG, section);
  const startValue = startValueOf(rhythm);
  return scoreOf(readPlaced(text, { tuning: tuningOf(there), meter, capo, startValue }).phrase);
};
const sections = computed(() =>
  (song.value?.sections ?? []).map((section) => ({
    section,
    phrases: section.phrases
      .filter(({ chosen }) => chosen)
      .map((phrase) => ({
        phrase,
        bars: barsOf(phrase, tempoAt(section.startSeconds, tempoChanges.value).meter, section),
      })),
  })),
);
const legend = computed(() => legendOf(sections.value.flatMap(({ phrases }) => phrases.flatMap(({ bars }) => bars))));

function often({ times, open }: Section): string {
  return times > 1 || open ? ` · ${open ? 'about ' : ''}${times}×` : '';
}

function print(): void {
  window.print();
}
onKeyStroke('p', (event) => {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  print();
});
</script>

<template>
  <article v-if="song" class="sheet">
    <header>
      <div>
        <h1>{{ song.title }}</h1>
        <p class="soft">
          {{ song.whose }}<template v-if="song.whose"> · </template>for <strong>{{ song.student.name }}</strong>
        </p>
      </div>
      <p>
        {{ song.tuning }} · capo {{ song.capo === 0 ? 'none' : song.capo }} · {{ song.key || 'key open' }} ·
        {{ song.tempo }} bpm · {{ song.meter }}
        <span class="promise">{{ FIDELITY_SAYS[song.student.schools.fidelity] }}</span>
      </p>
      <p class="tools">
        <RouterLink :to="{ name: 'song', params: { id: song.id } }">Back to the desk</RouterLink>
        <Button size="small" outlined label="Print (p)" icon="pi pi-print" @click="print" />
      </p>
    </header>
    <p v-if="store.phrases.length === 0" class="soft">No phrase is written yet; the sheet fills as you type.</p>
    <div class="columns">
      <template v-for="{ section, phrases } in sections" :key="section.id">
        <section v-for="({ phrase, bars }, index) in phrases" :key="phrase.id" class="phrase" :aria-label="phrase.name">
          <h2>
            <span v-if="index === 0" class="label"
              >{{ section.label }} {{ section.role }} {{ clockText(section.startSeconds) }}{{ often(section) }}</span
            >
            {{ phrase.name }}
          </h2>
          <p v-if="index === 0 && section.passes.length > 0" class="soft passes">
            {{ section.passes.map(sayPass).join('; ') }}
          </p>
          <TabPage :bars="bars" :strings="tuningOf(songAt(song, section)).openMidis.length" :scale="PAGE_SCALE"
            >Empty.</TabPage
          >
        </section>
      </template>
    </div>
    <footer>
      <dl v-if="legend.length > 0" aria-label="Legend">
        <div v-for="[sign, meaning] in legend" :key="sign">
          <dt>{{ sign }}</dt>
          <dd>{{ meaning }}</dd>
        </div>
      </dl>
      <p class="soft">
        Made for a private lesson. The song belongs to those who made it; ask the rights holder, and follow local law,
        before it goes any further.
      </p>
    </footer>
  </article>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 2rem;
  align-items: end;
  justify-content: space-between;
  border-bottom: 2px solid var(--ink);
  padding-bottom: 0.4rem;
}
.tools {
  display: flex;
  gap: 1rem;
  align-items: center;
}
.passes {
  font-size: 0.85rem;
  font-style: italic;
}
.columns {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.4rem 1.2rem;
  margin-top: 0.6rem;
}
.phrase {
  break-inside: avoid;
}
.phrase h2 {
  font-size: 0.95rem;
}
.label {
  font-family: var(--type-plain);
  font-size: 0.82rem;
  border: 1px solid var(--rule-strong);
  padding: 0 0.35rem;
  margin-right: 0.3rem;
}
footer {
  margin-top: 1rem;
  border-top: 1px solid var(--rule);
  padding-top: 0.5rem;
  font-size: 0.82rem;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 0.1rem 1.4rem;
  margin: 0 0 0.5rem;
}
dl div {
  display: flex;
  gap: 0.4rem;
}
dt {
  font-weight: 650;
}
dd {
  margin: 0;
}
.promise {
  display: block;
  font-style: italic;
}
@media (max-width: 720px) {
  .passes {
    font-size: 0.85rem;
    font-style: italic;
  }
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .tools {
    display: none;
  }
}
</style>
