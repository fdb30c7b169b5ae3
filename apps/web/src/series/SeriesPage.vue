<script setup lang="ts">
import type { Lesson, LessonChanges, LessonDate, Readiness, Series, SeriesBody } from '@jam-ledger/contract';
import { writeCsv } from '@jam-ledger/core/formats';
import { leaveOut, moveLesson, NO_CHANGES } from '@jam-ledger/core/series';
import Button from 'primevue/button';
import { storeToRefs } from 'pinia';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { DownloadMenu, fileName, saveFile } from '../files/index.ts';
import { dayText, LineButton } from '../ui/index.ts';
import { calendarOf } from './calendarOf.ts';
import { sayChance } from './reportWords.ts';
import { bodyOf, useSeries } from './series.ts';
import InstalmentList from './InstalmentList.vue';
import LessonDates from './LessonDates.vue';
import SeriesForm from './SeriesForm.vue';
import { StruckButton } from '../struck/index.ts';
import { useRequests } from '../requests/index.ts';
import { useNotices, usePage, useSession } from '../session/index.ts';

const page = usePage();
const notices = useNotices();
const session = useSession();
const store = useSeries();
const { lines: series, total, students, chosen, coming } = storeToRefs(store);
const { more, choose, put } = store;
const route = useRoute();
const editing = ref<'new' | 'chosen'>();
const today = computed(() => session.me?.studio.today ?? '');
const zone = computed(() => session.me?.studio.zone ?? 'utc');

onMounted(() =>
  page.open(async () => {
    const asked = route.query['id'];
    await Promise.all([store.open(typeof asked === 'string' ? asked : undefined), requests.load()]);
  }),
);

const blank = computed((): SeriesBody => ({
  studentId: students.value[0]?.id ?? '',
  title: 'Lessons',
  rule: { firstDay: today.value, time: '17:00', minutes: 45, everyWeeks: 1, weekdays: [], count: 10, until: null },
  changes: NO_CHANGES,
  goal: '',
  goalDay: null,
  instalments: [],
}));

async function begin(body: SeriesBody): Promise<void> {
  const begun = await store.begin(body);
  notices.say(
    `${begun.lessons.length} lessons of ${begun.student.name} are entered.`,
    async () => void (await put(begun, {}, true)),
  );
}

/** Changes a series; what it was before can be put back from the notice. */
async function amend(one: Series, to: Partial<SeriesBody>, words: string, struck = false): Promise<void> {
  const kept = await put(one, to, struck);
  notices.say(words, async () => void (await put({ ...one, version: kept.version }, {})));
}
const change = (one: Series, to: Partial<LessonChanges>, words: string) =>
  notices.tell(() => amend(one, { changes: { ...one.changes, ...to } }, words));

function skip(one: Series, lesson: LessonDate): Promise<void> {
  return change(one, leaveOut(one.changes, lesson), `The lesson on ${dayText(lesson.day)} is left out.`);
}
function restore(one: Series, day: string): Promise<void> {
  const skips = one.changes.skips.filter((skipped) => skipped !== day);
  return change(one, { skips }, `The lesson on ${dayText(day)} is back.`);
}
function move(one: Series, lesson: LessonDate, to: { readonly day: string; readonly time: string }): Promise<void> {
  return change(one, moveLesson(one.changes, lesson, to), `The lesson is moved to ${dayText(to.day)}, ${to.time}.`);
}
function swap(one: Series, lesson: LessonDate, other: Lesson): Promise<void> {
  return notices.tell(async () => {
    const undo = await store.swap(one, lesson, other);
    notices.say(`${one.student.name} and ${other.student.name} have changed places.`, undo);
  });
}
/** Coming lessons of the other series, which one could change places with. */
const others = computed(() => coming.value.filter((lesson) => lesson.series.id !== chosen.value?.id));

function saveCalendar(one: Series): void {
  const { studio } = session.me ?? {};
  if (studio)
    saveFile(
      fileName(`Lessons of ${one.student.name}`, 'ics'),
      calendarOf(one, studio, new Date()),
      'text/calendar;charset=utf-8',
    );
}

/** The lessons of a series as a table. */
function saveTable(one: Series): void {
  const rows = one.lessons.map(({ day, time, why }) => [day, time, String(one.rule.minutes), why]);
  const csv = writeCsv(['day', 'time', 'minutes', 'why'], rows);
  saveFile(fileName(`Lessons of ${one.student.name}`, 'csv'), csv, 'text/csv;charset=utf-8');
}
const downloads = computed(() => {
  const { value: one } = chosen;
  if (!one) return [];
  return [
    { label: 'Calendar file (iCalendar)', icon: 'pi pi-calendar', command: () => saveCalendar(one) },
    { label: 'Lessons as a table (CSV)', icon: 'pi pi-table', command: () => saveTable(one) },
  ];
});

const requests = useRequests();
/** What this student asked for, which can be handed out in parts. */
const askedFor = computed(() =>
  (requests.requests ?? []).filter(({ student }) => student.id === chosen.value?.student.id),
);
const readiness = ref<Readiness | null>(null);
watch(
  () => [chosen.value?.id, chosen.value?.version] as const,
  ([id]) =>
    notices.tell(async () => {
      readiness.value = null;
      const ready = chosen.value ? await store.readinessOf(chosen.value) : null;
      // Another may have been chosen meanwhile.
      if (chosen.value?.id === id) readiness.value = ready;
    }),
  { immediate: true },
);
function add(one: Series, to: { readonly day: string; readonly time: string }): Promise<void> {
  return change(one, { extras: [...one.changes.extras, to] }, `A lesson on ${dayText(to.day)}, ${to.time} is added.`);
}
</script>

<template>
  <header class="head">
    <h1>Series</h1>
    <Button v-if="series && editing !== 'new'" size="small" outlined label="Begin a series" @click="editing = 'new'" />
    <StruckButton :query="{}" :kinds="['series']" @back="notices.tell(() => store.open(chosen?.id))" />
  </header>
  <SeriesForm
    v-if="editing === 'new'"
    :first="blank"
    :students="students"
    :zone="zone"
    :holidays="session.me?.studio.holidays ?? []"
    :is-kept="false"
    :save="begin"
    @done="editing = undefined"
  />
  <p v-if="series?.length === 0 && editing !== 'new'" class="soft">
    No series is begun yet: a student, a day of the week, so many lessons.
  </p>
  <div v-if="series && series.length > 0" class="columns">
    <ul class="quiet-list list screen-only" aria-label="Series">
      <li v-for="one in series" :key="one.id" :class="{ chosen: one.id === chosen?.id }">
        <LineButton :aria-pressed="one.id === chosen?.id" @click="notices.tell(() => choose(one.id))">
          <strong>{{ one.student.name }}</strong>
          <span>{{ one.title }}</span>
          <span class="soft">{{ one.next ? `next ${dayText(one.next.day)}, ${one.next.time}` : 'over' }}</span>
        </LineButton>
      </li>
      <li v-if="series.length < total">
        <Button size="small" text :label="`${total - series.length} more`" @click="notices.tell(more)" />
      </li>
    </ul>
    <section v-if="chosen" :aria-label="chosen.title">
      <h2>
        {{ chosen.title }} <span class="soft small">with {{ chosen.teacher.name }}</span>
      </h2>
      <p v-if="chosen.goal !== '' || chosen.goalDay" :class="['soft', { chance: chosen.goalDay }]">
        For {{ chosen.goal || 'a day' }}<template v-if="chosen.goalDay">, {{ dayText(chosen.goalDay) }}</template
        ><template v-if="readiness"
          >:
          <strong v-if="readiness.chance !== null">{{ sayChance(readiness.chance) }}</strong>
          <template v-else>nothing is cut into pieces yet</template>
          <template v-if="readiness.chance !== null && readiness.holdingBack.length > 0">
            · {{ readiness.ready }} of {{ readiness.pieces }} pieces are there; held back by
            {{
              readiness.holdingBack.map(({ name, chance }) => `“${name}” (${Math.round(chance * 100)} %)`).join(', ')
            }}</template
          ></template
        >
      </p>
      <SeriesForm
        v-if="editing === 'chosen'"
        :key="chosen.version"
        :first="bodyOf(chosen)"
        :students="students"
        :zone="zone"
        :holidays="session.me?.studio.holidays ?? []"
        is-kept
        :save="(body) => amend(chosen!, body, 'The series is changed.')"
        @done="editing = undefined"
      />
      <p v-else>
        <Button size="small" text label="Change the rule" @click="editing = 'chosen'" />
        <Button
          size="small"
          text
          severity="secondary"
          label="End the series"
          @click="notices.tell(() => amend(chosen!, {}, 'The series is ended.', true))"
        />
        <DownloadMenu :items="downloads" />
        <RouterLink class="screen-only link" :to="{ name: 'series-report', params: { id: chosen.id } }"
          >Report for home</RouterLink
        >
      </p>
      <LessonDates
        :series="chosen"
        :today="today"
        :others="others"
        @skip="skip(chosen!, $event)"
        @restore="restore(chosen!, $event)"
        @move="(lesson, to) => move(chosen!, lesson, to)"
        @add="add(chosen!, $event)"
        @swap="(lesson, other) => swap(chosen!, lesson, other)"
      />
      <InstalmentList
        :key="chosen.id"
        :instalments="chosen.instalments"
        :requests="askedFor"
        :lessons="chosen.lessons.filter(({ day }) => day >= today)"
        @change="(list, words) => notices.tell(() => amend(chosen!, { instalments: list }, words))"
      />
    </section>
  </div>
</template>

<style scoped>
/* How likely it is comes later than the lessons; the buttons under it stay where they are. */
.chance {
  min-height: 2lh;
}
@media (max-width: 1100px) {
  .chance {
    min-height: 3lh;
  }
}
@media (max-width: 720px) {
  .chance {
    min-height: 5lh;
  }
}
.head {
  display: flex;
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.6rem;
}
.columns {
  display: grid;
  grid-template-columns: 16rem minmax(0, 1fr);
  gap: 1.5rem;
  margin-top: 0.6rem;
}
.list li {
  border-bottom: 1px solid var(--rule);
}
.list button {
  width: 100%;
  padding: 0.5rem 0.6rem;
  display: flex;
  flex-direction: column;
}
.chosen button {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
}
.small {
  font-size: 0.9rem;
}
@media (max-width: 900px), print {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
.link {
  display: inline-block;
  padding: 0.3rem 0;
}
</style>
