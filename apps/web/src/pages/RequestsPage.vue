<script setup lang="ts">
import type { RequestBody, SongRequest } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { computed, onMounted } from 'vue';
import { useRouter } from 'vue-router';
import { dayText, daysBetween } from '../composables/useDays.ts';
import RequestSlip from '../parts/RequestSlip.vue';
import { useNotices, useRequests, useSession } from '../stores/index.ts';

const session = useSession();
const store = useRequests();
const notices = useNotices();
const router = useRouter();
const today = computed(() => session.me?.studio.today ?? '');

onMounted(() => notices.tell(store.load));

const STATES = { asked: 'waiting', accepted: 'accepted', declined: 'declined', withdrawn: 'withdrawn' } as const;

function wanted({ wantedBy }: SongRequest): string {
  if (wantedBy === null) return 'no day named';
  const days = daysBetween(today.value, wantedBy);
  const left = days < 0 ? 'the day has passed' : days === 0 ? 'today' : days === 1 ? 'tomorrow' : `${days} days left`;
  return `${dayText(wantedBy)} · ${left}`;
}

async function ask(body: RequestBody): Promise<void> {
  await store.askFor(body);
  notices.say(`“${body.title}” is on your teacher’s desk.`);
}

function accept(request: SongRequest): Promise<void> {
  return notices.tell(async () => {
    const moved = await store.move(request, 'accepted');
    if (moved.transcriptionId) await router.push({ name: 'song', params: { id: moved.transcriptionId } });
  });
}

function move(request: SongRequest, state: 'declined' | 'withdrawn'): Promise<void> {
  return notices.tell(async () => void (await store.move(request, state)));
}
</script>

<template>
  <div :class="['layout', { asking: !session.isTeacher }]">
    <RequestSlip v-if="!session.isTeacher" :today="today" :ask="ask" />
    <section aria-label="Requests">
      <h1>{{ session.isTeacher ? 'Requests' : 'What you asked for' }}</h1>
      <p v-if="store.requests?.length === 0" class="soft empty">
        {{
          session.isTeacher
            ? 'Nothing is asked for. A student’s request will lie here.'
            : 'Nothing yet. Name a song on the slip and hand it in.'
        }}
      </p>
      <ul class="quiet-list">
        <li v-for="request in store.requests ?? []" :key="request.id" :class="['line', request.state]">
          <div>
            <h2>
              {{ request.title }} <span v-if="request.whose" class="soft whose">{{ request.whose }}</span>
            </h2>
            <p><strong>In:</strong> {{ request.partsWanted }}</p>
            <p v-if="request.partsNotWanted"><strong>Not in:</strong> {{ request.partsNotWanted }}</p>
            <p v-if="request.remarks" class="pencil">“{{ request.remarks }}”</p>
          </div>
          <div class="side">
            <p v-if="session.isTeacher">
              <strong>{{ request.student.name }}</strong>
            </p>
            <p>{{ wanted(request) }}</p>
            <p class="state">{{ STATES[request.state] }}</p>
            <div class="buttons">
              <template v-if="session.isTeacher">
                <Button
                  v-if="request.state === 'asked' || request.state === 'declined'"
                  size="small"
                  label="Accept"
                  @click="accept(request)"
                />
                <Button
                  v-if="request.state === 'asked'"
                  size="small"
                  outlined
                  severity="secondary"
                  label="Decline"
                  @click="move(request, 'declined')"
                />
                <RouterLink
                  v-if="request.transcriptionId"
                  :to="{ name: 'song', params: { id: request.transcriptionId } }"
                  >Open the song desk</RouterLink
                >
              </template>
              <Button
                v-else-if="request.state === 'asked'"
                size="small"
                outlined
                severity="secondary"
                label="Withdraw"
                @click="move(request, 'withdrawn')"
              />
            </div>
          </div>
        </li>
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
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 14rem;
  gap: 1.5rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.9rem 0;
}
.line.declined h2,
.line.withdrawn h2 {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.whose {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.95rem;
}
.side {
  border-left: 2px solid var(--warm);
  padding-left: 0.9rem;
}
.state {
  font-style: italic;
  color: var(--ink-soft);
}
.buttons {
  display: flex;
  gap: 0.5rem;
  margin-top: 0.3rem;
}
.empty {
  margin-top: 1rem;
}
@media (max-width: 900px) {
  .layout.asking,
  .line {
    grid-template-columns: minmax(0, 1fr);
  }
  .line {
    gap: 0.5rem;
  }
}
</style>
