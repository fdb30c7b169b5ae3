<script setup lang="ts">
import type { RequestBody, RequestMove, SongRequest, Student } from '@jam-ledger/contract';
import { promisesOf } from '@jam-ledger/core/desk';
import { writeCsv } from '@jam-ledger/core/formats';
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { DownloadMenu, saveFile } from '../files/index.ts';
import { dayText } from '../ui/index.ts';
import { REQUEST_HEADINGS, requestRows } from './requestsTable.ts';
import { useWorkTimer } from './useWorkTimer.ts';
import RequestLine from './RequestLine.vue';
import RequestSlip from './RequestSlip.vue';
import RequestWork from './RequestWork.vue';
import WeekLoads from './WeekLoads.vue';
import { useRequests } from './requests.ts';
import { useNotices, usePage, useSession } from '../session/index.ts';

const page = usePage();
const session = useSession();
const store = useRequests();
const notices = useNotices();
const router = useRouter();
const today = computed(() => session.me?.studio.today ?? '');
/** The request whose next part is being asked for. */
const more = ref<SongRequest>();

const timer = useWorkTimer();
const { hours } = timer;
const promises = computed(() => hours.value && promisesOf(hours.value.works, { ...hours.value, today: today.value }));
const workOf = (id: string) => hours.value?.works.find((work) => work.id === id);

async function load(): Promise<void> {
  await store.load();
  if (session.isTeacher) await timer.load();
}
onMounted(() => page.open(load));

/** Whom a teacher writes a request down for; undefined while nobody does. */
const students = ref<readonly Student[]>();

function writeDown(): Promise<void> {
  return notices.tell(async () => {
    const all = await store.students();
    if (all.length === 0) notices.say('Add a student first, on Studio; every request is somebody’s.');
    else students.value = all;
  });
}

async function ask(body: RequestBody): Promise<void> {
  await store.askFor(body);
  if (session.isTeacher) await timer.load();
  notices.say(session.isTeacher ? `“${body.title}” is written down.` : `“${body.title}” is on your teacher’s desk.`);
}

async function move(request: SongRequest, to: Omit<RequestMove, 'version'>): Promise<void> {
  const moved = await store.move(request, to);
  if (session.isTeacher) await timer.load();
  if (to.state === 'in work' && request.state === 'agreed' && moved.transcriptionId)
    await router.push({ name: 'song', params: { id: moved.transcriptionId } });
}

function saveTable(): void {
  const csv = writeCsv(REQUEST_HEADINGS, requestRows(store.requests ?? [], hours.value));
  saveFile('Requests.csv', csv, 'text/csv;charset=utf-8');
}

function promise(request: SongRequest, day: string | null): Promise<void> {
  return notices.tell(async () => {
    const kept = await store.promise(request, day);
    await timer.load();
    const words = day === null ? 'The promise is taken back.' : `“${request.title}” is promised for ${dayText(day)}.`;
    notices.say(words, async () => {
      await store.promise(kept, request.promisedFor);
      await timer.load();
    });
  });
}
</script>

<template>
  <div :class="['layout', { asking: session.isStudent || students }]">
    <RequestSlip
      v-if="session.isStudent"
      :key="more?.id ?? 'new'"
      :today="today"
      :fidelity="session.me?.taught?.fidelity ?? 'note for note'"
      :more="more"
      :ask="ask"
      :earliest="store.earliest"
      @done="more = undefined"
    />
    <RequestSlip
      v-else-if="students"
      :today="today"
      fidelity="note for note"
      :more="undefined"
      :students="students"
      :ask="ask"
      :earliest="store.earliest"
      @done="students = undefined"
    />
    <section class="requests" aria-label="Requests">
      <h1>{{ session.isStudent ? 'What you asked for' : 'Requests' }}</h1>
      <p class="table">
        <Button v-if="session.isTeacher && !students" size="small" outlined label="Add a request" @click="writeDown" />
        <DownloadMenu
          v-if="(store.requests?.length ?? 0) > 0"
          :items="[{ label: 'Requests and hours as a table (CSV)', icon: 'pi pi-table', command: saveTable }]"
        />
      </p>
      <p v-if="store.requests?.length === 0" class="soft empty">
        {{
          session.isStudent
            ? 'Nothing yet. Name a song on the slip and send it.'
            : 'No requests yet. What students ask for will appear here.'
        }}
      </p>
      <WeekLoads
        v-if="promises && hours && (store.requests?.length ?? 0) > 0"
        :weeks="promises.weeks"
        :work-minutes="hours.workMinutes"
      />
      <ul class="quiet-list">
        <RequestLine
          v-for="request in store.requests ?? []"
          :key="request.id"
          :request="request"
          :teacher="session.isTeacher"
          :still="!session.isTeacher && !session.isStudent"
          :today="today"
          :zone="session.me?.studio.zone ?? 'utc'"
          :move="move"
          :fidelity="workOf(request.id)?.fidelity"
          @more="more = $event"
        >
          <RequestWork
            v-if="workOf(request.id) && promises?.byId.get(request.id)"
            :request="request"
            :work="workOf(request.id)!"
            :promise="promises.byId.get(request.id)!"
            :today="today"
            :running="timer.runsFor(request.id) ? timer.minutes.value : undefined"
            @time="timer.toggle(request.id)"
            @promise="promise(request, $event)"
          />
        </RequestLine>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.layout.asking {
  display: grid;
  grid-template-columns: minmax(18rem, 24rem) minmax(0, 1fr);
  gap: 2rem;
  align-items: start;
}
.requests {
  container-type: inline-size;
}
.empty {
  margin-top: 1rem;
}
@media (max-width: 900px) {
  .layout.asking {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
