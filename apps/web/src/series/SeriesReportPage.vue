<script setup lang="ts">
import type { ReportPiece, SeriesReport, ReportDay } from '@jam-ledger/contract';
import { onKeyStroke } from '@vueuse/core';
import Button from 'primevue/button';
import type { Data, Layout } from 'plotly.js-basic-dist-min';
import { computed, onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';
import { useSeries } from './series.ts';
import { sayStanding } from './reportWords.ts';
import { PlainTable, PlotChart, ReportPage, dayText, token, chartDay, type TableColumn } from '../ui/index.ts';
import { isForPage, useLook, usePage, usePageAbout } from '../session/index.ts';

const page = usePage();
const route = useRoute();
const { dark } = useLook();
const report = ref<SeriesReport>();
onMounted(() => page.open(async () => (report.value = await useSeries().report(String(route.params['id'])))));
usePageAbout(() => report.value?.series.title);

/** Most pieces that one page shows; what is held already gives way first. Our choice. */
const MAX_SHOWN = 14;
const shown = computed(() => {
  const all = given.value;
  return all.length <= MAX_SHOWN ? all : all.filter(({ state }) => state !== 'held').slice(0, MAX_SHOWN);
});
const given = computed(() => (report.value?.pieces ?? []).filter(({ assignedOn }) => assignedOn !== null));
const coming = computed(() =>
  (report.value?.series.lessons ?? []).filter(({ day }) => day >= (report.value?.today ?? '')),
);
const percent = (share: number) => Math.round(share * 100);

const growth = computed(() => {
  void dark.value;
  const days = report.value?.days ?? [];
  const line = (name: string, of: 'ink' | 'all', colour: string, dash: 'solid' | 'dot'): Data => ({
    type: 'scatter',
    mode: 'lines+markers',
    name,
    x: days.map(({ day }) => day),
    y: days.map((one) => percent(one[of])),
    line: { color: token(colour), width: 2, dash },
    marker: { size: 6 },
    hovertemplate: '%{y} %<extra></extra>',
  });
  return [line('heard in lessons', 'ink', '--cool', 'solid'), line('with practice at home', 'all', '--pencil', 'dot')];
});
const growthLayout: Partial<Layout> = {
  xaxis: { type: 'date', tickformat: chartDay() },
  yaxis: { title: { text: 'of full speed, %', font: { size: 13 } }, range: [0, 105] },
};
const bars = computed((): Data[] => {
  void dark.value;
  const pieces = shown.value.toReversed();
  const bar = (name: string, of: (piece: ReportPiece) => number, colour: string): Data => ({
    type: 'bar',
    orientation: 'h',
    name,
    y: pieces.map((piece) => shortName(piece)),
    x: pieces.map(of),
    marker: { color: token(colour) },
    hovertemplate: '%{x} %<extra></extra>',
  });
  const ink = ({ inkBpm, targetBpm }: ReportPiece) => Math.min(100, percent((inkBpm ?? 0) / targetBpm));
  const home = (piece: ReportPiece) =>
    Math.max(0, Math.min(100, percent((piece.pencilBpm ?? 0) / piece.targetBpm)) - ink(piece));
  return [bar('heard in lessons', ink, '--cool'), bar('more at home', home, '--pencil')];
});
const barsLayout: Partial<Layout> = {
  barmode: 'stack',
  margin: { l: 170, r: 12, t: 30, b: 40 },
  xaxis: { title: { text: 'of full speed, %', font: { size: 13 } }, range: [0, 102] },
  yaxis: { automargin: true },
};
const shortName = ({ name }: ReportPiece) => (name.length > 26 ? `${name.slice(0, 25)}…` : name);

function sayState({ state, expected }: ReportPiece): string {
  const when = expected ? `, expected ${dayText(expected.early, 'short')} to ${dayText(expected.late, 'short')}` : '';
  return state === 'building' ? `growing${when}` : state;
}
const DAYS: readonly TableColumn<ReportDay>[] = [
  { head: 'Day', says: ({ day }) => dayText(day, 'short') },
  { head: 'In lessons', says: ({ ink }) => `${percent(ink)} %` },
  { head: 'With home', says: ({ all }) => `${percent(all)} %` },
];
const PIECES: readonly TableColumn<ReportPiece>[] = [
  { head: 'Piece', says: ({ name }) => name, aside: ({ song }) => song },
  { head: 'In lessons', says: ({ inkBpm }) => inkBpm ?? '–', look: 'ink' },
  { head: 'At home', says: ({ pencilBpm }) => pencilBpm ?? '–', look: 'pencil' },
  { head: 'Full speed', says: ({ targetBpm }) => targetBpm },
  { head: 'How it stands', says: sayState },
];
function print(): void {
  window.print();
}
onKeyStroke('p', (event) => {
  if (isForPage(event)) print();
});
</script>

<template>
  <ReportPage v-if="report" :title="report.series.title">
    <template #beside>
      <p class="soft">
        {{ report.series.student.name }} with {{ report.series.teacher.name }}, {{ dayText(report.today) }}
      </p>
      <Button class="tools" size="small" outlined label="Print (p)" icon="pi pi-print" @click="print" />
    </template>
    <section aria-label="In words">
      <p v-for="sentence in sayStanding(report)" :key="sentence">{{ sentence }}</p>
      <p v-for="song in report.songs" :key="song.id">
        “{{ song.title }}”: {{ percent(song.held) }} % of its {{ song.bars }} bars held, {{ percent(song.full) }} %
        playable at full speed.
      </p>
    </section>
    <p v-if="given.length === 0" class="soft">The charts begin with the first piece that is given.</p>
    <div v-else class="charts">
      <section aria-label="How it grew">
        <h2>How it grew</h2>
        <PlotChart
          :data="growth"
          :layout="growthLayout"
          :height="210"
          :dark="dark"
          label="How much of all pieces stood at full speed, day by day"
        />
        <p class="soft">
          Every piece of the plan counts, the {{ report.pieces.length - given.length }} still to come as none.
        </p>
        <details class="behind">
          <summary>As a table</summary>
          <PlainTable label="How it grew" :rows="report.days" :columns="DAYS" />
        </details>
      </section>
      <section aria-label="Where each piece stands">
        <h2>Where each piece stands</h2>
        <PlotChart
          :data="bars"
          :layout="barsLayout"
          :height="90 + 26 * shown.length"
          :dark="dark"
          label="Each piece as a share of its full speed; the ledger below has the numbers"
        />
      </section>
    </div>
    <section v-if="given.length > 0" aria-label="The ledger">
      <h2>The ledger</h2>
      <PlainTable label="The ledger" :rows="shown" :columns="PIECES" />
      <p v-if="given.length > shown.length" class="soft">
        {{ given.length - shown.length }} more are not on this page; the ledger has them all.
      </p>
    </section>
    <section aria-label="What is next">
      <h2>What is next</h2>
      <ul class="quiet-list">
        <li v-for="piece in given.filter(({ state }) => state !== 'held').slice(0, 5)" :key="piece.id">
          <strong>{{ piece.name }}:</strong> {{ piece.next }}
        </li>
      </ul>
      <p v-if="report.instalments.length > 0">
        <template v-for="(one, index) in report.instalments" :key="index"
          >{{ index > 0 ? '; ' : 'Handed out: ' }}{{ one.part || one.title }}
          {{ one.delivered ? '(done)' : one.day ? `on ${dayText(one.day, 'short')}` : '(open)' }}</template
        >.
      </p>
      <p v-if="coming.length > 0">
        Next lessons:
        {{
          coming
            .slice(0, 4)
            .map(({ day, time }) => `${dayText(day)}, ${time}`)
            .join('; ')
        }}.
      </p>
      <p v-for="note in report.notes.slice(0, 1)" :key="note.day">
        Last taken home, {{ dayText(note.day) }}:
        {{ note.home || note.assigned.map(({ name, bpm }) => `${name} at ${bpm}`).join(', ') }}
      </p>
    </section>
  </ReportPage>
</template>

<style scoped>
.tools {
  margin-left: auto;
}
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(20rem, 1fr));
  gap: 1rem 2rem;
}
@media (max-width: 720px) {
  .charts {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .tools,
  .behind {
    display: none;
  }
}
</style>
