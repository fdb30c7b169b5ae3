<script setup lang="ts">
import type { HeldBand, StudioReport, StudioWeek, WorkPast } from '@jam-ledger/contract';
import type { Data, Layout } from 'plotly.js-basic-dist-min';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { usePeople } from './people.ts';
import { PlainTable, PlotChart, ReportPage, dayText, token, type TableColumn } from '../ui/index.ts';
import { useLook, usePage } from '../session/index.ts';

const page = usePage();
const { dark } = useLook();
const report = ref<StudioReport>();
onMounted(() => page.open(async () => (report.value = await usePeople().report())));

const hours = (minutes: number) => Math.round(minutes / 6) / 10;

const WEEKS: readonly TableColumn<StudioWeek>[] = [
  { head: 'Week from', says: ({ from }) => dayText(from) },
  { head: 'Lessons', says: ({ lessons }) => lessons },
  { head: 'Hours of lessons', says: ({ lessonMinutes }) => hours(lessonMinutes) },
  { head: 'Hours on requests', says: ({ workMinutes }) => hours(workMinutes) },
];
const WORK: readonly TableColumn<WorkPast>[] = [
  { head: 'Request', says: ({ title }) => title, aside: ({ student }) => student },
  { head: 'Took, h', says: ({ minutes }) => hours(minutes) },
  { head: 'Estimated, h', says: ({ estimate }) => hours(estimate.minutes) },
  { head: 'Range, h', says: ({ estimate }) => `${hours(estimate.low)}–${hours(estimate.high)}` },
];
const HELD: readonly TableColumn<HeldBand>[] = [
  { head: 'Difficulty', says: ({ from, to }) => `${from} to ${to}` },
  { head: 'Pieces', says: ({ pieces }) => pieces },
  { head: 'Held', says: ({ held }) => held },
  {
    head: 'Half of those held, within',
    says: ({ medianDays }) => (medianDays === null ? 'none yet' : `${medianDays} ${medianDays === 1 ? 'day' : 'days'}`),
  },
];
const load = computed((): Data[] => {
  void dark.value;
  const weeks = report.value?.weeks ?? [];
  const bar = (name: string, of: 'lessonMinutes' | 'workMinutes', colour: string): Data => ({
    type: 'bar',
    name,
    x: weeks.map(({ from }) => dayText(from, 'short')),
    y: weeks.map((week) => hours(week[of])),
    marker: { color: token(colour) },
    hovertemplate: '%{y} h<extra></extra>',
  });
  return [bar('lessons', 'lessonMinutes', '--cool'), bar('transcribing', 'workMinutes', '--warm')];
});
const loadLayout: Partial<Layout> = {
  barmode: 'stack',
  xaxis: { type: 'category', automargin: true },
  yaxis: { title: { text: 'hours', font: { size: 13 } } },
};

/** How the hours that requests took stand to what was estimated for them. */
const judged = computed(() => {
  const work = report.value?.work ?? [];
  if (work.length === 0) return undefined;
  const inside = work.filter(({ minutes, estimate }) => minutes >= estimate.low && minutes <= estimate.high).length;
  return `${inside} of ${work.length} took as long as their range said; a range is made to hold 8 in 10.`;
});
</script>

<template>
  <ReportPage v-if="report" title="The studio’s report">
    <template #beside><RouterLink :to="{ name: 'studio' }">Back to the studio</RouterLink></template>
    <section aria-label="Load of the weeks">
      <h2>Load of the weeks</h2>
      <p class="soft">
        Lessons, and hours on requests: spent in weeks gone by, due in those to come. There are
        {{ hours(report.workMinutes) }} h a week for transcribing.
      </p>
      <PlotChart
        :data="load"
        :layout="loadLayout"
        :height="240"
        :dark="dark"
        label="Hours of lessons and of transcribing, week by week; the table below has the numbers"
      />
      <details>
        <summary>As a table</summary>
        <PlainTable label="Load of the weeks" :rows="report.weeks" :columns="WEEKS" />
      </details>
    </section>
    <section aria-label="Requests against their estimates">
      <h2>Requests against their estimates</h2>
      <p v-if="report.work.length === 0" class="soft">
        No delivered request has hours yet. Start the timer of a request when you sit down to it; it may be forgotten.
      </p>
      <template v-else>
        <p>{{ judged }}</p>
        <PlainTable label="Requests against their estimates" :rows="report.work" :columns="WORK" />
      </template>
      <p class="soft">
        A request of one part is estimated at {{ report.onePart.minutes }} min ({{ report.onePart.low }}–{{
          report.onePart.high
        }}), {{ report.onePart.from === 0 ? 'by plain defaults' : `from ${report.onePart.from} of your own` }}.
      </p>
    </section>
    <section aria-label="Time to held by difficulty">
      <h2>Time to held, by difficulty</h2>
      <p v-if="report.held.length === 0" class="soft">No piece of known difficulty is given yet.</p>
      <PlainTable v-else label="Time to held, by difficulty" :rows="report.held" :columns="HELD" />
    </section>
  </ReportPage>
</template>
