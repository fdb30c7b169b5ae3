<script setup lang="ts">
import type { Ledger, LedgerPiece, Lesson, RequestState } from '@jam-ledger/contract';
import { isStuck } from '@jam-ledger/core/pieces';
import { agendaFor } from '@jam-ledger/core/series';
import { computed, onMounted, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/index.ts';
import { dayText, daysBetween } from '../composables/useDays.ts';
import { agendaPieceOf } from '../composables/practicePiece.ts';
import { useNotices, useRequests, useSession } from '../stores/index.ts';

const session = useSession();
const requests = useRequests();
const notices = useNotices();
const ledgers = ref<readonly Ledger[]>();
const lessons = ref<readonly Lesson[]>();
const today = computed(() => session.me?.studio.today ?? '');

onMounted(() =>
  notices.tell(async () => {
    await requests.load();
    lessons.value = await api.lessons(DAYS_SHOWN);
    const students = await api.students();
    ledgers.value = await Promise.all(students.map(({ id }) => api.ledger({ studentId: id })));
  }),
);

/** Lessons of so many days stand on the desk. */
const DAYS_SHOWN = 7;
/** What a lesson opens with, as its agenda has it. */
function opensWith({ student, minutes }: Lesson): string {
  const ledger = ledgers.value?.find((one) => one.student.id === student.id);
  if (!ledger || ledger.pieces.length === 0) return 'nothing is given yet';
  const [first] = agendaFor(ledger.pieces.map(agendaPieceOf), minutes, today.value).items;
  const piece = ledger.pieces.find(({ id }) => id === first?.pieceId);
  return first && piece ? `${first.kind}: ${piece.phrase.name}` : 'nothing is due';
}

/** What still waits for the teacher. */
const OPEN_STATES: readonly RequestState[] = ['asked', 'agreed', 'in work', 'to be checked'];
const waiting = computed(() => (requests.requests ?? []).filter(({ state }) => OPEN_STATES.includes(state)));

/** Pieces that came down, wait to be heard, or have not been touched for long. */
const STALE_DAYS = 8;
interface Call {
  readonly piece: LedgerPiece;
  readonly student: Ledger['student'];
  readonly why: string;
}
const calls = computed(() =>
  (ledgers.value ?? []).flatMap(({ pieces, student }) =>
    pieces.flatMap((piece): readonly Call[] => {
      const call = (why: string): readonly Call[] => [{ piece, student, why }];
      const idle = piece.lastDay === null ? undefined : daysBetween(piece.lastDay, today.value);
      if (isStuck(piece.next)) return call(`stuck: ${piece.next.reason}`);
      if (piece.mastery.state === 'slipping') return call(`slipping: ${piece.mastery.reason}`);
      if (piece.next.move === 'show') return call(`wants to be heard: ${piece.next.reason}`);
      if (piece.next.move === 'down') return call(`came down: ${piece.next.reason}`);
      if (idle === undefined) return call('nothing posted yet');
      if (idle >= STALE_DAYS && piece.mastery.state !== 'held') return call(`not touched for ${idle} days`);
      return [];
    }),
  ),
);
</script>

<template>
  <h1>Desk</h1>
  <p class="soft day">{{ today ? dayText(today) : '' }}</p>
  <div class="columns">
    <section aria-label="Lessons">
      <h2>Lessons</h2>
      <p v-if="lessons?.length === 0" class="soft">
        No lesson in the next {{ DAYS_SHOWN }} days. <RouterLink :to="{ name: 'series' }">Begin a series</RouterLink>
      </p>
      <ul class="quiet-list ruled">
        <li v-for="lesson in lessons ?? []" :key="lesson.id">
          <RouterLink :to="{ name: 'lesson', params: { studentId: lesson.student.id } }">{{
            lesson.student.name
          }}</RouterLink>
          <span class="right"
            >{{ lesson.day === today ? 'today' : dayText(lesson.day, 'short') }}, {{ lesson.time }}</span
          >
          <span class="why"
            >{{ lesson.number }} of {{ lesson.of }}, {{ lesson.minutes }} min · {{ opensWith(lesson) }}</span
          >
        </li>
      </ul>
    </section>
    <section aria-label="Requests waiting">
      <h2>Requests on the desk</h2>
      <p v-if="requests.requests && waiting.length === 0" class="soft">Every request is answered and delivered.</p>
      <ul class="quiet-list ruled">
        <li v-for="request in waiting" :key="request.id">
          <RouterLink :to="{ name: 'requests' }">{{ request.title }}</RouterLink>
          <span class="soft"> for {{ request.student.name }}, {{ request.state }}</span>
          <span class="right">{{
            request.wantedBy ? `${daysBetween(today, request.wantedBy)} days left` : 'no day named'
          }}</span>
        </li>
      </ul>
    </section>
    <section aria-label="Phrases that need you">
      <h2>Phrases that need you</h2>
      <p v-if="ledgers && calls.length === 0" class="soft">Nothing is stuck, and nothing waits to be heard.</p>
      <ul class="quiet-list ruled">
        <li v-for="{ piece, student, why } in calls" :key="piece.id">
          <RouterLink :to="{ name: 'lesson', params: { studentId: student.id } }">{{ piece.phrase.name }}</RouterLink>
          <span class="soft"> {{ piece.section.label }}, {{ piece.song.title }} · {{ student.name }}</span>
          <span class="why">{{ why }}</span>
        </li>
      </ul>
    </section>
    <section aria-label="Students">
      <h2>Students</h2>
      <p v-if="ledgers?.length === 0" class="soft">No student is entered yet.</p>
      <ul class="quiet-list ruled">
        <li v-for="ledger in ledgers ?? []" :key="ledger.student.id">
          <RouterLink :to="{ name: 'ledger', params: { studentId: ledger.student.id } }">{{
            ledger.student.name
          }}</RouterLink>
          <span class="right">
            {{ ledger.pieces.length === 1 ? '1 piece' : `${ledger.pieces.length} pieces` }},
            {{ ledger.pieces.filter(({ mastery }) => mastery.state === 'held').length }} held
          </span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.day {
  margin-bottom: 1rem;
}
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
  gap: 2rem;
}
.ruled li {
  border-bottom: 1px solid var(--rule);
  padding: 0.5rem 0;
  overflow: hidden;
}
.ruled a {
  margin-right: 0.4rem;
}
.right {
  float: right;
}
.why {
  display: block;
  border-left: 2px solid var(--warm);
  padding-left: 0.6rem;
  margin-top: 0.15rem;
}
</style>
