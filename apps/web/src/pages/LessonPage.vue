<script setup lang="ts">
import type { LedgerPiece, Outcome, Piece, Student } from '@jam-ledger/contract';
import Select from 'primevue/select';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/index.ts';
import { useReading } from '../composables/useReading.ts';
import PostResult from '../parts/PostResult.vue';
import ShareBar from '../parts/ShareBar.vue';
import TabPage from '../parts/TabPage.vue';
import { useLedger, useNotices } from '../stores/index.ts';

const store = useLedger();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const students = ref<readonly Student[]>();
const chosen = ref<string>();
const bpm = ref<number | null>(null);
const studentId = computed(() =>
  typeof route.params['studentId'] === 'string' && route.params['studentId'] !== ''
    ? route.params['studentId']
    : undefined,
);
const line = computed(() => store.pieces.find(({ id }) => id === chosen.value) ?? agenda.value[0]);
const piece = ref<Piece>();

/** What is heard first: what waits to be shown or came down, then what is on its way, then what is to be kept. */
const ORDER = ['show', 'call', 'split', 'down', 'rest', 'stay', 'up', 'join', 'begin', 'keep'] as const;
const agenda = computed(() =>
  [...store.pieces].sort((a, b) => ORDER.indexOf(a.next.move) - ORDER.indexOf(b.next.move)),
);

function load(): Promise<void> {
  return notices.tell(async () => {
    students.value ??= await api.students();
    const id = studentId.value ?? students.value[0]?.id;
    chosen.value = undefined;
    if (id) await store.load(id);
  });
}
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

function lastLine({ cells }: LedgerPiece): string {
  const last = cells.at(-1);
  return last
    ? `last ${last.bpm} ${last.outcome === 'clean' ? 'clean' : 'not yet'}, ${last.medium}`
    : 'nothing posted yet';
}
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
  </header>
  <p v-if="students?.length === 0" class="soft">No student is entered yet.</p>
  <p v-else-if="store.ledger && store.pieces.length === 0" class="soft">
    Nothing is assigned to {{ store.ledger.student.name }} yet; there is nothing to hear.
  </p>
  <div v-else-if="line" class="lesson">
    <ol class="agenda quiet-list" aria-label="To hear">
      <li v-for="one in agenda" :key="one.id" :class="{ chosen: one.id === line.id }">
        <button type="button" :aria-pressed="one.id === line.id" @click="chosen = one.id">
          <strong>{{ one.phrase.name }}</strong>
          <span class="soft">{{ one.section.label }}, {{ one.song.title }}</span>
          <span>{{ lastLine(one) }}</span>
          <ShareBar :standing="one.standing" :target="one.targetBpm" />
        </button>
      </li>
    </ol>
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
  gap: 1rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.lesson {
  display: grid;
  grid-template-columns: 17rem minmax(0, 1fr);
  gap: 1.5rem;
}
.agenda li {
  border-bottom: 1px solid var(--rule);
}
.agenda button {
  all: unset;
  box-sizing: border-box;
  width: 100%;
  cursor: pointer;
  padding: 0.5rem 0.6rem;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
.agenda button:focus-visible {
  outline: 2px solid var(--focus);
}
.agenda .chosen {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
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
