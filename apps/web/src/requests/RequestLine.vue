<script setup lang="ts">
import {
  proposeScope,
  REQUEST_LIMITS,
  REQUEST_MOVES,
  type FidelitySchool,
  type RequestMove,
  type RequestState,
  type SongRequest,
} from '@jam-ledger/contract';
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, ref } from 'vue';
import { dayText, daysBetween, momentText } from '../ui/index.ts';

type Move = Omit<RequestMove, 'version'>;
const props = defineProps<{
  request: SongRequest;
  teacher: boolean;
  /** Whether it is only read, as a guardian does. */
  still?: boolean;
  today: string;
  zone: string;
  /** How close to the record the scope is proposed to be. */
  fidelity?: FidelitySchool | undefined;
  move: (request: SongRequest, move: Move) => Promise<void>;
}>();
const emit = defineEmits<{ more: [request: SongRequest] }>();

/** What the button of each move says. */
const SAYS: Readonly<Record<RequestState, string>> = {
  asked: 'Back to asked',
  agreed: 'Agree on the scope',
  'in work': 'Begin the work',
  'to be checked': 'Written, to be checked',
  delivered: 'Delivered',
  'in practice': 'In practice',
  closed: 'Close it',
  declined: 'Decline',
  withdrawn: 'Withdraw',
};
const PARTS = ['', '', 'part two', 'part three', 'part four'] as const;

const asking = ref<'agreed' | 'declined'>();
const words = ref('');
const trouble = ref('');
const moves = computed(() =>
  props.still ? [] : (REQUEST_MOVES[props.teacher ? 'teacher' : 'student'][props.request.state] ?? []),
);
const isOver = computed(() => ['declined', 'withdrawn'].includes(props.request.state));
const mayAskForMore = computed(
  () => !props.still && !props.teacher && !isOver.value && props.request.state !== 'asked',
);
const part = computed(() => PARTS[props.request.part] ?? `part ${props.request.part}`);
const asked = computed(() => {
  const { rendition, guitarMeant, guitar } = props.request;
  const version = rendition === 'either' ? 'any version' : `as ${rendition === 'live' ? 'played live' : 'recorded'}`;
  return [
    version,
    guitarMeant === 'blended into one' ? 'both guitars blended into one' : guitarMeant,
    guitar && `on a guitar with ${guitar}`,
  ]
    .filter(Boolean)
    .join(' · ');
});

const wanted = computed(() => {
  const { wantedBy } = props.request;
  if (wantedBy === null) return 'no day named';
  const days = daysBetween(props.today, wantedBy);
  const left = days < 0 ? 'the day has passed' : days === 0 ? 'today' : days === 1 ? 'tomorrow' : `${days} days left`;
  return `${dayText(wantedBy)} · ${left}`;
});

function begin(state: RequestState): void {
  if (state !== 'agreed' && state !== 'declined') return void go({ state, reason: '', scope: null });
  asking.value = state;
  words.value = state === 'agreed' ? props.request.scope || proposeScope(props.request, props.fidelity) : '';
}

function settle(): void {
  const said = words.value.trim();
  if (said === '') {
    trouble.value = asking.value === 'agreed' ? 'Say in one sentence what is in.' : 'Say why, so that both know.';
    return;
  }
  const scope = asking.value === 'agreed' ? said : null;
  if (asking.value) void go({ state: asking.value, reason: scope === null ? said : '', scope });
}

async function go(move: Move): Promise<void> {
  trouble.value = '';
  try {
    await props.move(props.request, move);
    asking.value = undefined;
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be sent.';
  }
}
</script>

<template>
  <li :class="['line', { over: isOver }]">
    <div>
      <h2>
        {{ request.title }} <span v-if="part" class="part">{{ part }}</span>
        <span v-if="request.whose" class="soft whose">{{ request.whose }}</span>
      </h2>
      <p v-if="request.scope" class="scope"><strong>Agreed:</strong> {{ request.scope }}</p>
      <p><strong>In:</strong> {{ request.wanted.join(', ') }}</p>
      <p v-if="request.notWanted.length > 0"><strong>Not in:</strong> {{ request.notWanted.join(', ') }}</p>
      <p class="soft">{{ asked }}</p>
      <p v-if="request.remarks" class="pencil">“{{ request.remarks }}”</p>
      <details>
        <summary>History</summary>
        <ol class="quiet-list history">
          <li v-for="(event, index) in request.history" :key="index">
            <span class="soft">{{ momentText(event.at, zone) }}</span> {{ event.state }}, {{ event.by
            }}<template v-if="event.note">: {{ event.note }}</template>
          </li>
        </ol>
      </details>
    </div>
    <div class="side">
      <p v-if="teacher || still">
        <strong>{{ request.student.name }}</strong>
      </p>
      <p>{{ wanted }}</p>
      <p v-if="!teacher && request.promisedFor">Promised for {{ dayText(request.promisedFor) }}</p>
      <slot />
      <p class="state">{{ request.state }}</p>
      <form v-if="asking" class="asking" novalidate @submit.prevent="settle">
        <label
          >{{ asking === 'agreed' ? 'The scope, in one sentence' : 'Why not' }}
          <Textarea
            v-model="words"
            rows="3"
            autofocus
            :maxlength="asking === 'agreed' ? REQUEST_LIMITS.scope : REQUEST_LIMITS.reason"
          />
        </label>
        <Button type="submit" size="small" :label="asking === 'agreed' ? 'Agreed' : 'Decline'" />
        <Button size="small" text severity="secondary" label="Cancel" @click="asking = undefined" />
      </form>
      <div v-else class="buttons">
        <Button
          v-for="(state, index) in moves"
          :key="state"
          size="small"
          :outlined="index > 0 || !teacher"
          :severity="index > 0 || !teacher ? 'secondary' : 'primary'"
          :label="SAYS[state]"
          @click="begin(state)"
        />
        <Button v-if="mayAskForMore" size="small" text label="Ask for more of it" @click="emit('more', request)" />
        <RouterLink
          v-if="teacher && request.transcriptionId"
          :to="{ name: 'song', params: { id: request.transcriptionId } }"
          >Open the song desk</RouterLink
        >
      </div>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    </div>
  </li>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 20rem;
  gap: 1.5rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.9rem 0;
}
.line.over h2 {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.part {
  color: var(--warm);
  font-size: 0.95rem;
}
.whose {
  font-family: var(--type-plain);
  font-weight: 400;
  font-size: 0.95rem;
}
.scope {
  font-family: var(--type-book);
}
.side {
  border-left: 2px solid var(--warm);
  padding-left: 0.9rem;
}
.state {
  font-style: italic;
  color: var(--ink-soft);
}
.buttons,
.asking {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.3rem;
}
.asking label {
  width: 100%;
  font-weight: 600;
  font-size: 0.92rem;
}
.asking :deep(textarea) {
  width: 100%;
  font-weight: 400;
}
summary {
  cursor: pointer;
  color: var(--cool);
  font-size: 0.92rem;
}
.history {
  font-size: 0.92rem;
  padding-left: 0.6rem;
  border-left: 1px solid var(--rule-strong);
}
.trouble {
  color: var(--warm);
}
@container (max-width: 46rem) {
  .line {
    grid-template-columns: minmax(0, 1fr);
    gap: 0.5rem;
  }
}
</style>
