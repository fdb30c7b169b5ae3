<script setup lang="ts">
import type { RequestBody, RequestMove, SongRequest } from '@jam-ledger/contract';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/index.ts';
import { promisesOf } from '../composables/promises.ts';
import RequestLine from '../parts/RequestLine.vue';
import RequestSlip from '../parts/RequestSlip.vue';
import WeekLoads from '../parts/WeekLoads.vue';
import { useNotices, useRequests, useSession } from '../stores/index.ts';

const session = useSession();
const store = useRequests();
const notices = useNotices();
const router = useRouter();
const today = computed(() => session.me?.studio.today ?? '');
/** The request whose next part is being asked for. */
const more = ref<SongRequest>();

const workMinutes = ref<number>();
const promises = computed(() =>
  workMinutes.value === undefined
    ? undefined
    : promisesOf(store.requests ?? [], { today: today.value, workMinutes: workMinutes.value }),
);

onMounted(() =>
  notices.tell(async () => {
    await store.load();
    if (session.isTeacher) workMinutes.value = (await api.schools()).workMinutes;
  }),
);

async function ask(body: RequestBody): Promise<void> {
  await store.askFor(body);
  notices.say(`“${body.title}” is on your teacher’s desk.`);
}

async function move(request: SongRequest, to: Omit<RequestMove, 'version'>): Promise<void> {
  const moved = await store.move(request, to);
  if (to.state === 'in work' && request.state === 'agreed' && moved.transcriptionId)
    await router.push({ name: 'song', params: { id: moved.transcriptionId } });
}
</script>

<template>
  <div :class="['layout', { asking: !session.isTeacher }]">
    <RequestSlip
      v-if="!session.isTeacher"
      :key="more?.id ?? 'new'"
      :today="today"
      :more="more"
      :ask="ask"
      @done="more = undefined"
    />
    <section aria-label="Requests">
      <h1>{{ session.isTeacher ? 'Requests' : 'What you asked for' }}</h1>
      <p v-if="store.requests?.length === 0" class="soft empty">
        {{
          session.isTeacher
            ? 'Nothing is asked for. A student’s request will lie here.'
            : 'Nothing yet. Name a song on the slip and hand it in.'
        }}
      </p>
      <WeekLoads
        v-if="promises && workMinutes !== undefined && (store.requests?.length ?? 0) > 0"
        :weeks="promises.weeks"
        :work-minutes="workMinutes"
      />
      <ul class="quiet-list">
        <RequestLine
          v-for="request in store.requests ?? []"
          :key="request.id"
          :request="request"
          :teacher="session.isTeacher"
          :today="today"
          :zone="session.me?.studio.zone ?? 'utc'"
          :move="move"
          :promise="promises?.byId.get(request.id)"
          @more="more = $event"
        />
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
.empty {
  margin-top: 1rem;
}
@media (max-width: 900px) {
  .layout.asking {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
