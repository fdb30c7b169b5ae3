<script setup lang="ts">
import type { Piece, Student } from '@jam-ledger/contract';
import Select from 'primevue/select';
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/index.ts';
import { dayText } from '../composables/useDays.ts';
import { useLook } from '../composables/useLook.ts';
import LedgerTable from '../parts/LedgerTable.vue';
import SinceLesson from '../parts/SinceLesson.vue';
import { useLedger, useNotices, useSession } from '../stores/index.ts';

const TempoChart = defineAsyncComponent(() => import('../parts/TempoChart.vue'));

const session = useSession();
const store = useLedger();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
const students = ref<readonly Student[]>([]);
const openId = ref<string>();
const { dark } = useLook();
const open = computed(() => store.pieces.find(({ id }) => id === openId.value));
const studentId = computed(() =>
  typeof route.params['studentId'] === 'string' && route.params['studentId'] !== ''
    ? route.params['studentId']
    : undefined,
);

function load(): Promise<void> {
  return notices.tell(async () => {
    openId.value = undefined;
    if (!session.isTeacher) return store.load();
    if (students.value.length === 0) students.value = await api.students();
    const id = studentId.value ?? students.value[0]?.id;
    if (id) await store.load(id);
  });
}
onMounted(load);
watch(studentId, load);

function choose(id: string): Promise<unknown> {
  return router.push({ name: 'ledger', params: { studentId: id } });
}

function show(piece: Piece): void {
  openId.value = openId.value === piece.id ? undefined : piece.id;
}
</script>

<template>
  <header class="head">
    <h1>Ledger</h1>
    <label v-if="session.isTeacher && students.length > 0" class="of">
      of
      <Select
        :model-value="store.ledger?.student.id ?? null"
        :options="[...students]"
        option-label="name"
        option-value="id"
        aria-label="Student"
        @update:model-value="choose"
      />
    </label>
    <p class="key">
      <span class="ink">84</span> ink: heard in a lesson · <span class="pencil">84</span> pencil: logged alone
    </p>
  </header>
  <p v-if="session.isTeacher && students.length === 0" class="soft">No student is entered yet.</p>
  <p v-else-if="store.ledger && store.pieces.length === 0" class="soft empty">
    {{
      session.isTeacher
        ? 'Nothing is assigned yet. Open a song, write a phrase and assign it.'
        : 'Nothing is assigned to you yet; your teacher does that from the song desk.'
    }}
  </p>
  <template v-else-if="store.ledger">
    <SinceLesson :pieces="store.pieces" />
    <LedgerTable :pieces="store.pieces" @open="show" />
  </template>
  <section v-if="open" class="detail" :aria-label="open.phrase.name">
    <div class="chart">
      <h2>{{ open.phrase.name }}</h2>
      <TempoChart :piece="open" :dark="dark" />
    </div>
    <div>
      <h3>Lines posted</h3>
      <ul class="quiet-list lines">
        <li v-for="entry in [...open.entries].reverse()" :key="entry.id" :class="{ struck: entry.struck }">
          <span :class="['result', entry.medium]"
            >{{ entry.bpm }}, {{ entry.outcome === 'clean' ? 'clean' : 'not yet' }}</span
          >
          <span class="soft who">{{ dayText(entry.day) }}, {{ entry.postedBy.name }}</span>
          <button
            v-if="!entry.struck && entry.postedBy.id === session.me?.id"
            type="button"
            class="strike"
            @click="notices.tell(() => store.strike(entry, true))"
          >
            strike out
          </button>
        </li>
      </ul>
      <RouterLink :to="{ name: 'piece', params: { id: open.id } }">Open it for practice</RouterLink>
    </div>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: center;
  margin-bottom: 0.8rem;
}
.of {
  display: inline-flex;
  gap: 0.5rem;
  align-items: center;
}
.key {
  margin-left: auto;
  font-size: 0.92rem;
}
.detail {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 19rem;
  gap: 1.5rem;
  margin-top: 1.2rem;
}
.lines {
  max-height: 15rem;
  overflow: auto;
  margin: 0.3rem 0;
}
.lines li {
  display: flex;
  gap: 0.6rem;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 0.2rem 0;
}
.lines .struck {
  text-decoration: line-through;
}
.strike {
  all: unset;
  cursor: pointer;
  color: var(--warm);
  white-space: nowrap;
  font-size: 0.85rem;
}
.result {
  white-space: nowrap;
}
.who {
  flex: 1;
  font-size: 0.9rem;
}
.strike:focus-visible {
  outline: 2px solid var(--focus);
}
@media (max-width: 820px) {
  .detail {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
