<script setup lang="ts">
import RadioButton from 'primevue/radiobutton';
import type { Hearing, InkedLine, LessonDay, LessonNote, Outcome, Piece } from '@jam-ledger/contract';
import { StruckButton } from '../struck/index.ts';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { storeToRefs } from 'pinia';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { isForPage, useNotices, usePage, usePageAbout, useSession } from '../session/index.ts';
import { dayText } from '../ui/index.ts';
import { useLessons } from './lessons.ts';
import { useLessonAgenda } from './useLessonAgenda.ts';
import { useLessonClock } from './useLessonClock.ts';
import { useLessonNote } from './useLessonNote.ts';
import AgendaList from './AgendaList.vue';
import LastLesson from './LastLesson.vue';
import LessonSummary from './LessonSummary.vue';
import { followed, useLedger } from '../ledger/index.ts';
import { isCounting } from '../playing/index.ts';
import LessonPiece from './LessonPiece.vue';

const page = usePage();
const store = useLedger();
const notices = useNotices();
const session = useSession();
const route = useRoute();
const router = useRouter();
const lessons = useLessons();
const { students } = storeToRefs(lessons);
lessons.open();
const held = ref<LessonDay>();
const inked = ref<readonly InkedLine[]>([]);
const hearings = ref<readonly Hearing[]>([]);
const summing = ref(false);
const piece = ref<Piece>();
const minutes = useLocalStorage('jam-lesson-minutes', 45);
const summary = useLessonNote();
const CHOICES = [30, 45, 60] as const;
const studentId = computed(() =>
  typeof route.params['studentId'] === 'string' && route.params['studentId'] !== ''
    ? route.params['studentId']
    : undefined,
);
const clock = useLessonClock(() => (held.value ? `${held.value.student.id} ${held.value.day}` : ''));
usePageAbout(() => held.value?.student.name);
const today = computed(() => held.value?.day ?? '');
const lesson = computed(() => held.value?.lesson ?? undefined);
const long = computed(() => (lesson.value?.day === today.value ? lesson.value.minutes : minutes.value));
const { chosen, agenda, line, step, leaveOut, reset } = useLessonAgenda(long, today);

function load(): Promise<void> {
  return page.open(async () => {
    await summary.settle();
    // Nothing of another student stays while theirs is on its way.
    [held.value, piece.value] = [undefined, undefined];
    const [first] = await lessons.loadStudents();
    const next = studentId.value === undefined ? await lessons.next(session.me?.studio.zone ?? 'utc') : undefined;
    const id = studentId.value ?? next?.student.id ?? first?.id;
    reset();
    summing.value = false;
    if (id === undefined) return;
    const day = await lessons.dayOf(id);
    held.value = day;
    [inked.value, hearings.value] = [day.inked, day.hearings];
    store.show(day);
    summary.take(day);
    if (typeof route.query['piece'] === 'string') chosen.value = route.query['piece'];
    // The keys are for the lesson again once the student is chosen.
    if (document.activeElement instanceof HTMLElement && document.activeElement.closest('[role=combobox]'))
      document.activeElement.blur();
  });
}
onMounted(load);
onBeforeUnmount(() => void summary.settle());
watch(studentId, load);
watch(
  // The same line of a lesson that was loaded anew is opened anew, too.
  () => [line.value?.id, held.value] as const,
  ([id, lessonDay]) =>
    notices.tell(async () => {
      const opened = id === undefined || !lessonDay ? undefined : await store.piece(id);
      // Another may have been chosen while this one was on its way.
      if (opened?.id === line.value?.id) piece.value = opened;
    }),
  { immediate: true },
);

// What is taken back from the notice is taken back here.
watch(
  () => store.changed,
  (changed) => {
    if (!changed) return;
    const now = piece.value?.id === changed.id ? followed(piece.value, changed) : changed;
    if ('entry' in now) {
      const others = inked.value.filter(({ entryId }) => entryId !== now.entry.id);
      inked.value = [...others, ...inkedOf({ id: now.id, entries: [now.entry] })];
      return;
    }
    if (now.id === piece.value?.id) piece.value = now;
    inked.value = [...inked.value.filter(({ pieceId }) => pieceId !== now.id), ...inkedOf(now)];
  },
);
/** What was inked today of a piece. */
function inkedOf({ id, entries }: Pick<Piece, 'id' | 'entries'>): readonly InkedLine[] {
  return entries
    .filter(isCounting)
    .filter(({ medium, day }) => medium === 'ink' && day === today.value)
    .map(({ id: entryId, bpm, outcome, percent }) => ({ entryId, pieceId: id, bpm, outcome, percent }));
}

function post(at: number, outcome: Outcome): Promise<void> {
  const heard = piece.value;
  if (!heard) return Promise.resolve();
  return notices.tell(async () => {
    chosen.value = heard.id;
    const posted = await store.post(heard, { bpm: at, outcome, percent: heard.next.percent });
    piece.value = posted;
    // What was heard is assigned at its next tempo, as long as nobody chose another.
    if (summary.isOpen.value && summary.day.value === today.value)
      summary.assign({ pieceId: posted.id, name: posted.phrase.name, bpm: posted.next.bpm });
  });
}

/** Goes on writing the summary of the lesson before, which is open until the next has begun. */
async function reopen(earlier: LessonNote): Promise<void> {
  await summary.reopen(earlier);
  summing.value = true;
}

/** To the summary and back; from that of an earlier lesson back to today’s. */
function toggleSummary(): Promise<void> {
  return notices.tell(async () => {
    const whose = held.value?.student.id;
    if (summing.value && summary.day.value !== today.value && whose !== undefined) {
      await summary.settle();
      held.value = await lessons.dayOf(whose);
      summary.take(held.value);
    }
    summing.value = !summing.value;
  });
}

const KEYS: Readonly<Record<string, () => void>> = {
  ArrowDown: () => step(1),
  ArrowUp: () => step(-1),
  x: leaveOut,
  s: clock.toggle,
  e: () => void toggleSummary(),
};
useEventListener('keydown', (event) => {
  const act = KEYS[event.key];
  if (!act || !isForPage(event)) return;
  act();
  event.preventDefault();
});
</script>

<template>
  <header class="head">
    <h1>Lesson</h1>
    <Select
      v-if="students && students.length > 0"
      :model-value="held?.student.id ?? null"
      :options="[...students]"
      option-label="name"
      option-value="id"
      aria-label="Student"
      @update:model-value="router.push({ name: 'lesson', params: { studentId: $event } })"
    />
    <span v-if="lesson" class="soft"
      >{{ lesson.day === today ? 'today' : dayText(lesson.day) }}, {{ lesson.time }} · {{ lesson.series.title }},
      {{ lesson.number }} of {{ lesson.of }}</span
    >
    <span v-if="lesson?.day !== today" class="minutes screen-only" role="radiogroup" aria-label="Minutes of the lesson">
      <label v-for="choice in CHOICES" :key="choice"
        ><RadioButton v-model="minutes" name="lesson-minutes" :value="choice" /> {{ choice }} min</label
      >
    </span>
    <StruckButton
      v-if="held"
      class="screen-only"
      :query="{ studentId: held.student.id }"
      :kinds="['point', 'note', 'result']"
      @back="load"
    />
    <span class="clock screen-only">
      <span role="timer" :aria-label="`Lesson clock, ${clock.text.value}`">{{ clock.text.value }}</span> of
      {{ long }} min
      <Button
        size="small"
        text
        :label="clock.runs.value ? 'Pause' : 'Start'"
        title="s"
        :disabled="!held"
        @click="clock.toggle()"
      />
      <Button
        v-if="held"
        size="small"
        outlined
        :label="summing ? 'Back to the pieces' : 'Lesson summary'"
        title="e"
        @click="toggleSummary"
      />
    </span>
  </header>
  <p v-if="students?.length === 0" class="soft">There are no students yet.</p>
  <LessonSummary
    v-else-if="summing && held"
    :inked="summary.day.value === today ? inked : undefined"
    :day="summary.day.value"
    :pieces="store.pieces"
    :note="summary.note.value"
    :draft="summary.draft.value"
    :saving="summary.saving.value"
    :problem="summary.problem.value"
    :open="summary.isOpen.value"
    :zone="session.me?.studio.zone ?? 'utc'"
    :student="held.student.name"
    @words="summary.change({ words: $event })"
    @home="summary.change({ home: $event })"
    @assign="summary.assign"
    @unassign="summary.unassign"
    @send="summary.send"
  />
  <p v-else-if="held && store.pieces.length === 0" class="soft">
    Nothing is assigned to {{ held.student.name }} yet; there is nothing to hear.
  </p>
  <div v-else-if="line" class="lesson">
    <div>
      <LastLesson v-if="held?.last" :note="held.last" @reopen="reopen(held.last)" />
      <p class="soft small">
        {{ agenda.minutes }} of {{ long }} minutes are planned.
        <span class="screen-only"
          ><kbd>↑</kbd> <kbd>↓</kbd> choose · <kbd>c</kbd> clean · <kbd>n</kbd> not yet · <kbd>d</kbd> a rung down ·
          <kbd>x</kbd> leave out · <kbd>h</kbd> hear it · <kbd>←</kbd> <kbd>→</kbd> step · <kbd>s</kbd> clock ·
          <kbd>e</kbd> summary</span
        >
      </p>
      <AgendaList :agenda="agenda" :pieces="store.pieces" :chosen="line.id" @choose="chosen = $event" />
    </div>
    <LessonPiece v-if="piece" v-model:piece="piece" v-model:hearings="hearings" :post="post" />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.lesson {
  display: grid;
  grid-template-columns: 17rem minmax(0, 1fr);
  gap: 1.5rem;
}
.clock {
  margin-left: auto;
  font-variant-numeric: tabular-nums;
}
.clock [role='timer'] {
  font-size: 1.3rem;
  font-weight: 650;
}
.minutes {
  display: flex;
  gap: 0.8rem;
}
.minutes input {
  accent-color: var(--cool);
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 900px), print {
  .lesson {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
