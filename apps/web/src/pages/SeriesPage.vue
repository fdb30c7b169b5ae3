<script setup lang="ts">
import type { LessonChanges, LessonDate, Series, SeriesBody, Student } from '@jam-ledger/contract';
import { NO_CHANGES } from '@jam-ledger/core/series';
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { api } from '../api/index.ts';
import { dayText } from '../composables/useDays.ts';
import LessonDates from '../parts/LessonDates.vue';
import SeriesForm from '../parts/SeriesForm.vue';
import { useNotices, useSession } from '../stores/index.ts';

const notices = useNotices();
const session = useSession();
const series = ref<readonly Series[]>();
const students = ref<readonly Student[]>([]);
const chosenId = ref<string>();
const editing = ref<'new' | 'chosen'>();
const chosen = computed(() => series.value?.find(({ id }) => id === chosenId.value) ?? series.value?.[0]);
const today = computed(() => session.me?.studio.today ?? '');
const zone = computed(() => session.me?.studio.zone ?? 'utc');

async function load(): Promise<void> {
  [series.value, students.value] = await Promise.all([api.series(), api.students()]);
}
onMounted(() => notices.tell(load));

const blank = computed((): SeriesBody => ({
  studentId: students.value[0]?.id ?? '',
  title: 'Lessons',
  rule: { firstDay: today.value, time: '17:00', minutes: 45, everyWeeks: 1, weekdays: [], count: 10, until: null },
  changes: NO_CHANGES,
  goal: '',
  goalDay: null,
}));
function bodyOf({ studentId, title, rule, changes, goal, goalDay }: SeriesBody): SeriesBody {
  return { studentId, title, rule, changes, goal, goalDay };
}

async function begin(body: SeriesBody): Promise<void> {
  const begun = await api.beginSeries(body);
  await load();
  chosenId.value = begun.id;
  notices.say(
    `${begun.lessons.length} lessons of ${begun.student.name} are entered.`,
    async () => void (await put(begun, {}, true)),
  );
}

/** Changes a series; what it was before can be put back from the notice. */
async function put(one: Series, to: Partial<SeriesBody>, struck = false): Promise<Series> {
  const kept = await api.changeSeries(one.id, { ...bodyOf(one), ...to, version: one.version, struck });
  await load();
  return kept;
}
async function amend(one: Series, to: Partial<SeriesBody>, words: string, struck = false): Promise<void> {
  const kept = await put(one, to, struck);
  notices.say(words, async () => void (await put({ ...one, version: kept.version }, {})));
}
const change = (one: Series, to: Partial<LessonChanges>, words: string) =>
  notices.tell(() => amend(one, { changes: { ...one.changes, ...to } }, words));

function skip(one: Series, { day, why }: LessonDate): Promise<void> {
  const { skips, moves, extras } = one.changes;
  const words = `The lesson on ${dayText(day)} is left out.`;
  if (why === 'extra') return change(one, { extras: extras.filter((extra) => extra.day !== day) }, words);
  const moved = moves.find((move) => move.day === day && why === 'moved');
  const from = moved?.from ?? day;
  return change(one, { skips: [...skips, from], moves: moves.filter((move) => move !== moved) }, words);
}
function restore(one: Series, day: string): Promise<void> {
  const skips = one.changes.skips.filter((skipped) => skipped !== day);
  return change(one, { skips }, `The lesson on ${dayText(day)} is back.`);
}
function move(one: Series, lesson: LessonDate, to: { readonly day: string; readonly time: string }): Promise<void> {
  const { moves, extras } = one.changes;
  const words = `The lesson is moved to ${dayText(to.day)}, ${to.time}.`;
  if (lesson.why === 'extra')
    return change(one, { extras: extras.map((extra) => (extra.day === lesson.day ? to : extra)) }, words);
  const moved = moves.find(({ day }) => day === lesson.day && lesson.why === 'moved');
  const from = moved?.from ?? lesson.day;
  return change(one, { moves: [...moves.filter((other) => other !== moved), { from, ...to }] }, words);
}
function add(one: Series, to: { readonly day: string; readonly time: string }): Promise<void> {
  return change(one, { extras: [...one.changes.extras, to] }, `A lesson on ${dayText(to.day)}, ${to.time} is added.`);
}
const nextOf = ({ lessons }: Series) => lessons.find(({ day }) => day >= today.value);
</script>

<template>
  <header class="head">
    <h1>Series</h1>
    <Button v-if="series && editing !== 'new'" size="small" outlined label="Begin a series" @click="editing = 'new'" />
  </header>
  <SeriesForm
    v-if="editing === 'new'"
    :first="blank"
    :students="students"
    :zone="zone"
    :is-kept="false"
    :save="begin"
    @done="editing = undefined"
  />
  <p v-if="series?.length === 0 && editing !== 'new'" class="soft">
    No series is begun yet: a student, a day of the week, so many lessons.
  </p>
  <div v-if="series && series.length > 0" class="columns">
    <ul class="quiet-list list" aria-label="Series">
      <li v-for="one in series" :key="one.id" :class="{ chosen: one.id === chosen?.id }">
        <button type="button" :aria-pressed="one.id === chosen?.id" @click="chosenId = one.id">
          <strong>{{ one.student.name }}</strong>
          <span>{{ one.title }}</span>
          <span class="soft">{{
            nextOf(one) ? `next ${dayText(nextOf(one)?.day ?? '')}, ${nextOf(one)?.time}` : 'over'
          }}</span>
        </button>
      </li>
    </ul>
    <section v-if="chosen" :aria-label="chosen.title">
      <h2>
        {{ chosen.title }} <span class="soft small">with {{ chosen.teacher.name }}</span>
      </h2>
      <p v-if="chosen.goal !== '' || chosen.goalDay" class="soft">
        For {{ chosen.goal || 'a day' }}<template v-if="chosen.goalDay">, {{ dayText(chosen.goalDay) }}</template>
      </p>
      <SeriesForm
        v-if="editing === 'chosen'"
        :key="chosen.version"
        :first="bodyOf(chosen)"
        :students="students"
        :zone="zone"
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
      </p>
      <LessonDates
        :series="chosen"
        :today="today"
        @skip="skip(chosen!, $event)"
        @restore="restore(chosen!, $event)"
        @move="(lesson, to) => move(chosen!, lesson, to)"
        @add="add(chosen!, $event)"
      />
    </section>
  </div>
</template>

<style scoped>
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
  all: unset;
  box-sizing: border-box;
  width: 100%;
  cursor: pointer;
  padding: 0.5rem 0.6rem;
  display: flex;
  flex-direction: column;
}
.list button:focus-visible {
  outline: 2px solid var(--focus);
}
.chosen button {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
}
.small {
  font-size: 0.9rem;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
