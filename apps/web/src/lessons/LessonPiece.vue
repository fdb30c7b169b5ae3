<script setup lang="ts">
import type { Hearing, Outcome, Piece, Pin } from '@jam-ledger/contract';
import { useEventListener } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { isForPage, useNotices, useSession } from '../session/index.ts';
import { useHearing } from './useHearing.ts';
import { PlayBar, soundOf, useListening } from '../sound/index.ts';
import { PinList, PostResult, usePinning, useStepping } from '../playing/index.ts';
import { SentTakes, useSentTakes } from '../takes/index.ts';
import { InWords, TabPage, useReading } from '../tab/index.ts';
import HearingPoints from './HearingPoints.vue';
import { useLedger } from '../ledger/index.ts';

const piece = defineModel<Piece>('piece', { required: true });
const hearings = defineModel<readonly Hearing[]>('hearings', { required: true });
const props = defineProps<{ post: (bpm: number, outcome: Outcome) => Promise<void> }>();

const store = useLedger();
const notices = useNotices();
const session = useSession();
const sentTakes = useSentTakes();
watch(
  () => piece.value.id,
  (id) => void notices.tell(() => sentTakes.load(id)),
  { immediate: true },
);
const bpm = ref<number | null>(piece.value.next.bpm);
watch(piece, (now, before) => {
  if (now.id !== before.id || now.next.bpm !== before.next.bpm) bpm.value = now.next.bpm;
});

const { reading, bars, tuning } = useReading(
  () => piece.value.phrase.text,
  () => piece.value.song,
);
const listening = useListening(
  () => ({
    phrase: reading.value.phrase,
    tuning: tuning.value,
    ...soundOf(piece.value.song),
    bpm: bpm.value ?? piece.value.next.bpm,
  }),
  false,
);
const { player, playing, start } = listening;
const { step, steps, index, move, pick } = useStepping(
  () => reading.value.phrase,
  tuning,
  () => piece.value.naming,
);
const shown = computed((): Piece | undefined => piece.value);
const settable = computed({
  get: () => shown.value,
  set: (to) => {
    if (to) piece.value = to;
  },
});
const { placed, pin, strike, here } = usePinning(settable, { step, steps, playing, refresh, keep: store.pin });
const phrase = computed(() => reading.value.phrase);
const hearing = useHearing({ piece: shown, phrase, tuning, hearings });
const list = useTemplateRef<{ readonly write: () => void }>('list');
const flags = computed(() => placed.value.flatMap(({ span }) => (span ? [{ span, look: 'pin' as const }] : [])));

async function refresh(): Promise<void> {
  piece.value = await store.piece(piece.value.id);
}
/** Shows where a point stands. */
function showPoint(at: number): void {
  hearing.chosen.value = at;
  const point = hearing.points.value[at]?.point;
  const found = steps.value.findIndex((one) => point !== undefined && one.at >= point.at);
  if (found >= 0) index.value = found;
}
async function hear(isRight: boolean, remark = ''): Promise<void> {
  await hearing.hear(isRight, remark);
  if (remark !== '') await notices.tell(refresh);
  showPoint(hearing.chosen.value);
}
function goTo({ phraseId, at }: Pin): void {
  const found = placed.value.find((one) => one.pin.phraseId === phraseId && one.pin.at === at);
  if (found?.span) pick(found.span);
}
/** One rung slower than the tempo that stands there. */
function lower(): void {
  const now = bpm.value ?? 0;
  const below = piece.value.rungs.filter((rung) => rung.bpm < now).at(-1);
  if (below) bpm.value = below.bpm;
}
function toggle(): void {
  if (player.playing.value) player.stop();
  else void notices.tell(() => start({}));
}
function send(at: number, outcome: Outcome): Promise<void> {
  player.stop();
  return props.post(at, outcome);
}

const KEYS: Readonly<Record<string, () => void>> = {
  ArrowLeft: () => move(-1),
  ArrowRight: () => move(1),
  d: lower,
  h: toggle,
  j: () => showPoint(Math.min(hearing.points.value.length - 1, hearing.chosen.value + 1)),
  k: () => showPoint(Math.max(0, hearing.chosen.value - 1)),
  t: () => void hear(true),
  r: () => list.value?.write(),
};
useEventListener('keydown', (event) => {
  const act = KEYS[event.key];
  const isTaken = event.target instanceof HTMLElement && event.target.closest('[role=slider]');
  if (!act || isTaken || !isForPage(event)) return;
  act();
  event.preventDefault();
});
</script>

<template>
  <section class="hear" :aria-label="piece.phrase.name">
    <h2>
      {{ piece.phrase.name }} <span class="soft">target {{ piece.targetBpm }}</span>
    </h2>
    <p class="reason">{{ piece.next.reason }}</p>
    <TabPage
      :bars="bars"
      :strings="tuning.openMidis.length"
      :playing="playing"
      :caret="step?.span"
      :flags="flags"
      @pick="pick"
      >This phrase is still empty.</TabPage
    >
    <InWords v-if="bars.length > 0" :phrase="reading.phrase" :names="piece.naming" />
    <p v-if="step" class="soft step" role="status">
      <strong>{{ step.place }}</strong> {{ step.says }}
    </p>
    <PostResult v-model:bpm="bpm" medium="ink" :keys="true" :post="send" />
    <SentTakes :zone="session.me?.studio.zone ?? 'UTC'" :ink="post" />
    <div class="columns">
      <HearingPoints
        ref="list"
        :points="hearing.points.value"
        :chosen="hearing.chosen.value"
        @choose="showPoint"
        @right="hear(true)"
        @remark="hear(false, $event)"
      />
      <PinList
        :pins="placed"
        :me="session.me?.id ?? ''"
        :teaches="true"
        :here="here"
        :pin="pin"
        @go="goTo"
        @strike="(one) => notices.tell(() => strike(one))"
      />
    </div>
    <PlayBar :listening="listening" :bpm="bpm ?? piece.next.bpm" :disabled="bars.length === 0" @play="toggle" />
  </section>
</template>

<style scoped>
.hear {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
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
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
  gap: 0.8rem 1.5rem;
}
</style>
