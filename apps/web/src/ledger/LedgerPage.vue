<script setup lang="ts">
import type { LedgerPiece, OldEntry, Piece, Student } from '@jam-ledger/contract';
import { onKeyStroke } from '@vueuse/core';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, defineAsyncComponent, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ALL_ROWS, filterRows, type LedgerFilter } from './ledgerFilter.ts';
import { isForPage, useLook, useNotices, usePage, usePageAbout, useSession } from '../session/index.ts';
import { sayExpected } from './expected.ts';
import { MOVE_WORDS } from './moves.ts';
import { WaitingLine, sayPart } from '../playing/index.ts';
import { dayText, LineButton } from '../ui/index.ts';
import { StruckButton } from '../struck/index.ts';
import LedgerDownload from './LedgerDownload.vue';
import LedgerFilters from './LedgerFilters.vue';
import LedgerTable from './LedgerTable.vue';
import SinceLesson from './SinceLesson.vue';
import { followed, useLedger } from './ledger.ts';

const TempoChart = defineAsyncComponent(() => import('./TempoChart.vue'));

const page = usePage();
const session = useSession();
const store = useLedger();
const notices = useNotices();
const route = useRoute();
const router = useRouter();
/** Whose ledger can be opened, where it is not one’s own. */
const students = ref<readonly Pick<Student, 'id' | 'name'>[]>([]);
const open = ref<Piece>();
const until = ref<string>();
const filter = ref<LedgerFilter>(ALL_ROWS);
const { dark } = useLook();
const shown = computed(() => filterRows(store.ledger?.pieces ?? [], filter.value, store.ledger?.today ?? ''));
const studentId = computed(() =>
  typeof route.params['studentId'] === 'string' && route.params['studentId'] !== ''
    ? route.params['studentId']
    : undefined,
);

function load(): Promise<void> {
  return page.open(async () => {
    open.value = undefined;
    await store.count();
    if (session.isStudent) return store.load(undefined, until.value);
    if (students.value.length === 0)
      students.value = session.isTeacher ? await store.students() : (session.me?.wards ?? []);
    const id = studentId.value ?? students.value[0]?.id;
    if (id) await store.load(id, until.value);
  });
}
onMounted(load);
usePageAbout(() => (session.isStudent ? undefined : store.ledger?.student.name));
watch(studentId, () => {
  until.value = undefined;
  filter.value = ALL_ROWS;
  void load();
});

function choose(id: string): Promise<unknown> {
  return router.push({ name: 'ledger', params: { studentId: id } });
}

function turn(to: string | undefined): void {
  until.value = to;
  void load();
}

function show({ id }: LedgerPiece): Promise<void> {
  return notices.tell(async () => {
    open.value = open.value?.id === id ? undefined : await store.piece(id);
  });
}

function showEarlier(): Promise<void> {
  return notices.tell(async () => {
    if (open.value) open.value = await store.earlier(open.value);
  });
}

function strike(entry: Piece['entries'][number]): Promise<void> {
  return notices.tell(async () => void (await store.strike(entry, true)));
}
// The day’s cells follow what was struck out, and put back from the notice.
watch(
  () => store.changed,
  (changed) => {
    if (changed && changed.id === open.value?.id) open.value = followed(open.value, changed);
    void notices.tell(() => store.load(store.ledger?.student.id, until.value));
  },
);

/** Enters results of an older book, all or none; they can be taken out together. */
async function bring(entries: readonly OldEntry[]): Promise<void> {
  await notices.tell(async () => {
    const undo = await store.bring(entries);
    await load();
    notices.say(entries.length === 1 ? 'One result is added.' : `${entries.length} results are added.`, async () => {
      await undo();
      await load();
    });
  });
}

const print = () => window.print();
onKeyStroke(['p', '<', '>'], (event) => {
  if (!isForPage(event)) return;
  event.preventDefault();
  if (event.key === 'p') print();
  if (event.key === '<' && store.ledger?.earlier) turn(store.ledger.earlier);
  if (event.key === '>') turn(undefined);
});
</script>

<template>
  <header class="head">
    <h1>Ledger</h1>
    <label v-if="students.length > 0" class="of">
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
    <StruckButton
      v-if="store.ledger && session.me?.role !== 'guardian'"
      :query="{ studentId: store.ledger.student.id }"
      :kinds="['result', 'piece', 'note']"
      @back="load"
    />
  </header>
  <WaitingLine :waiting="store.waiting" @send="notices.tell(() => store.flush().then(load))" />
  <p v-if="session.isTeacher && students.length === 0" class="soft">There are no students yet.</p>
  <p v-else-if="store.ledger && store.pieces.length === 0" class="soft empty">
    {{
      session.isTeacher
        ? 'Nothing is assigned yet. Open a song, write a phrase and assign it.'
        : session.isStudent
          ? 'Nothing is assigned to you yet; your teacher does that from the song desk.'
          : 'Nothing is assigned yet; what the teacher assigns will appear here.'
    }}
  </p>
  <template v-else-if="store.ledger">
    <SinceLesson :ledger="store.ledger" />
    <div class="tools">
      <LedgerFilters
        v-model="filter"
        class="screen-only"
        :songs="store.ledger.songs"
        :shown="shown.length"
        :all="store.pieces.length"
      />
      <span class="turn">
        <Button
          v-if="store.ledger.earlier"
          size="small"
          text
          label="Earlier days"
          title="<"
          @click="turn(store.ledger.earlier)"
        />
        <Button v-if="until" size="small" text label="Newest days" title=">" @click="turn(undefined)" />
        <LedgerDownload
          :ledger="store.ledger"
          :shown="shown"
          :entries="store.entries"
          :bring="session.isTeacher ? bring : undefined"
        />
        <Button size="small" text label="Print" title="p" @click="print" />
      </span>
    </div>
    <p v-if="shown.length === 0" class="soft">
      No row matches. <Button size="small" text label="Show all" @click="filter = ALL_ROWS" />
    </p>
    <LedgerTable v-else :ledger="store.ledger" :pieces="shown" @open="show" />
  </template>
  <section v-if="open" class="detail" :aria-label="open.phrase.name">
    <div class="chart">
      <h2>{{ open.phrase.name }}</h2>
      <TempoChart :piece="open" :dark="dark" />
    </div>
    <div>
      <p class="why">
        <strong>{{ MOVE_WORDS[open.next.move] }}</strong> {{ open.next.reason }}
      </p>
      <p v-if="open.expected" class="soft">{{ sayExpected(open.expected) }}</p>
      <p v-else-if="open.due" class="soft">Again by {{ dayText(open.due.day) }}.</p>
      <h3>Lines posted</h3>
      <ul class="quiet-list lines">
        <li v-for="entry in [...open.entries].reverse()" :key="entry.id" :class="{ struck: entry.struck }">
          <span :class="['result', entry.medium]"
            >{{ entry.bpm }}{{ sayPart(entry) }}, {{ entry.outcome === 'clean' ? 'clean' : 'not yet' }}</span
          >
          <span class="soft who">{{ dayText(entry.day) }}, {{ entry.postedBy.name }}</span>
          <LineButton
            v-if="!entry.struck && entry.postedBy.id === session.me?.id"
            class="strike"
            @click="strike(entry)"
          >
            strike out
          </LineButton>
        </li>
      </ul>
      <Button v-if="open.hasEarlier" size="small" text label="Show earlier lines" @click="showEarlier" />
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
  min-width: 0;
  max-width: 100%;
}
.key {
  margin-left: auto;
  font-size: 0.92rem;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: start;
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
@media (max-width: 820px) {
  .detail {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .turn,
  .detail {
    display: none;
  }
}
</style>
