<script setup lang="ts">
import type { Lesson, Outcome, Piece, Student } from '@jam-ledger/contract';
import { agendaFor } from '@jam-ledger/core/series';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/index.ts';
import { isForPage } from '../composables/pageKeys.ts';
import { agendaPieceOf } from '../composables/practicePiece.ts';
import { dayText } from '../composables/useDays.ts';
import { useLessonClock } from '../composables/useLessonClock.ts';
import { useReading } from '../composables/useReading.ts';
import AgendaList from '../parts/AgendaList.vue';
import PostResult from '../parts/PostResult.vue';
import TabPage from '../parts/TabPage.vue';
import { useLedger, useNotices } from '../stores/index.ts';

const store = useLedger();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const students = ref<readonly Student[]>();
const lessons = ref<readonly Lesson[]>([]);
const chosen = ref<string>();
const leftOut = ref<readonly string[]>([]);
const piece = ref<Piece>();
const bpm = ref<number | null>(null);
const minutes = useLocalStorage('jam-lesson-minutes', 45);
const clock = useLessonClock();
const CHOICES = [30, 45, 60] as const;
const studentId = computed(() =>
  typeof route.params['studentId'] === 'string' && route.params['studentId'] !== ''
    ? route.params['studentId']
    : undefined,
);
const today = computed(() => store.ledger?.today ?? '');
/** The next lesson of this student, which says how long it is. */
const lesson = computed(() => lessons.value.find(({ student }) => student.id === store.ledger?.student.id));
const long = computed(() => (lesson.value?.day === today.value ? lesson.value.minutes : minutes.value));
const agenda = computed(() => {
  const pieces = store.pieces.filter(({ id }) => !leftOut.value.includes(id));
  return agendaFor(pieces.map(agendaPieceOf), long.value, today.value);
});
/** In the order of the agenda, then everything else. */
const order = computed(() => {
  const planned = agenda.value.items.map(({ pieceId }) => pieceId);
  return [...planned, ...store.pieces.map(({ id }) => id).filter((id) => !planned.includes(id))];
});
const line = computed(() => {
  const id = chosen.value ?? order.value[0];
  return store.pieces.find((one) => one.id === id);
});

function load(): Promise<void> {
  return notices.tell(async () => {
    students.value ??= await api.students();
    const id = studentId.value ?? students.value[0]?.id;
    chosen.value = undefined;
    leftOut.value = [];
    if (id) await store.load(id);
    lessons.value = await api.lessons(LOOK_AHEAD_DAYS);
  });
}
/** So far ahead the next lesson is looked for, days. */
const LOOK_AHEAD_DAYS = 14;
onMounted(load);
watch(studentId, load);
watch(
  () => line.value?.id,
  (id) =>
    notices.tell(async () => {
      const opened = id === undefined ? undefined : await store.piece(id);
      // Another may have been chosen while this one was on its way.
      if (opened?.id !== line.value?.id) return;
      piece.value = opened;
      bpm.value = opened?.next.bpm ?? null;
    }),
  { immediate: true },
);

// What is taken back from the notice is taken back here.
watch(
  () => store.changed,
  (changed) => {
    if (changed?.id === piece.value?.id) piece.value = changed;
  },
);

const EMPTY = { tuning: 'standard', meter: '4/4' } as const;
const { bars, tuning } = useReading(
  () => piece.value?.phrase.text ?? '',
  () => piece.value?.song ?? EMPTY,
);

function post(at: number, outcome: Outcome): Promise<void> {
  const heard = piece.value;
  if (!heard) return Promise.resolve();
  return notices.tell(async () => {
    chosen.value = heard.id;
    piece.value = await store.post(heard, { bpm: at, outcome, percent: heard.next.percent });
    bpm.value = piece.value.next.bpm;
  });
}

function step(by: 1 | -1): void {
  const at = order.value.indexOf(line.value?.id ?? '');
  chosen.value = order.value[Math.min(order.value.length - 1, Math.max(0, at + by))];
}
/** One rung slower than the tempo that stands there. */
function lower(): void {
  const now = bpm.value ?? 0;
  const below = piece.value?.rungs.filter((rung) => rung.bpm < now).at(-1);
  if (below) bpm.value = below.bpm;
}
function leaveOut(): void {
  const id = line.value?.id;
  if (id === undefined) return;
  const name = line.value?.phrase.name ?? '';
  step(1);
  leftOut.value = [...leftOut.value, id];
  notices.say(`“${name}” is left out of this lesson.`, () => {
    leftOut.value = leftOut.value.filter((one) => one !== id);
  });
}

const KEYS: Readonly<Record<string, () => void>> = {
  ArrowDown: () => step(1),
  ArrowUp: () => step(-1),
  d: lower,
  x: leaveOut,
  s: clock.toggle,
};
useEventListener('keydown', (event) => {
  const act = KEYS[event.key];
  if (!act || !isForPage(event) || (event.target instanceof HTMLElement && event.target.closest('[role=combobox]')))
    return;
  act();
  event.preventDefault();
});
</script>

<template>
  <header class="head">
    <h1>Lesson</h1>
    <Select
      v-if="students && students.length > 0"
      :model-value="store.ledger?.student.id ?? null"
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
    <span v-if="lesson?.day !== today" class="minutes" role="radiogroup" aria-label="Minutes of the lesson">
      <label v-for="choice in CHOICES" :key="choice"
        ><input v-model.number="minutes" type="radio" name="lesson-minutes" :value="choice" /> {{ choice }} min</label
      >
    </span>
    <span class="clock">
      <span role="timer" :aria-label="`Lesson clock, ${clock.text.value}`">{{ clock.text.value }}</span> of
      {{ long }} min
      <Button size="small" text :label="clock.runs.value ? 'Halt' : 'Start'" title="s" @click="clock.toggle()" />
    </span>
  </header>
  <p v-if="students?.length === 0" class="soft">No student is entered yet.</p>
  <p v-else-if="store.ledger && store.pieces.length === 0" class="soft">
    Nothing is assigned to {{ store.ledger.student.name }} yet; there is nothing to hear.
  </p>
  <div v-else-if="line" class="lesson">
    <div>
      <p class="soft small">
        {{ agenda.minutes }} of {{ long }} minutes are planned. <kbd>↑</kbd> <kbd>↓</kbd> choose · <kbd>c</kbd> clean ·
        <kbd>n</kbd> not yet · <kbd>d</kbd> a rung down · <kbd>x</kbd> leave out · <kbd>s</kbd> clock
      </p>
      <AgendaList :agenda="agenda" :pieces="store.pieces" :chosen="line.id" @choose="chosen = $event" />
    </div>
    <section v-if="piece" class="hear" :aria-label="piece.phrase.name">
      <h2>
        {{ piece.phrase.name }} <span class="soft">target {{ piece.targetBpm }}</span>
      </h2>
      <p class="reason">{{ piece.next.reason }}</p>
      <TabPage :bars="bars" :strings="tuning.openMidis.length">This phrase is still empty.</TabPage>
      <PostResult v-model:bpm="bpm" medium="ink" :keys="true" :post="post" />
      <ul v-if="piece.pins.length > 0" class="quiet-list pins" aria-label="Pinned notes">
        <li v-for="pin in piece.pins" :key="pin.id">
          <strong>{{ pin.by.teaches ? 'Watch out' : pin.by.name }}</strong> {{ pin.text }}
        </li>
      </ul>
    </section>
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
.hear {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  min-width: 0;
}
.hear h2 span {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.95rem;
}
.reason {
  border-left: 2px solid var(--warm);
  padding-left: 0.7rem;
}
@media (max-width: 900px) {
  .lesson {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
