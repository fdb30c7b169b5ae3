<script setup lang="ts">
import type { Outcome, Pin } from '@jam-ledger/contract';
import { hasRhythm } from '@jam-ledger/core/notation';
import { useEventListener, useLocalStorage } from '@vueuse/core';
import Button from 'primevue/button';
import { computed, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { PinList, PostResult, StepBar, USUAL_PEDAL, WaitingLine, usePinning, useStepping } from '../playing/index.ts';
import { isForPage, useNotices, usePageAbout, useSession } from '../session/index.ts';
import { PlayBar, soundOf, useListening } from '../sound/index.ts';
import { usePracticeClock } from './usePracticeClock.ts';
import { usePracticeRun } from './usePracticeRun.ts';
import { InWords, TabPage, useReading } from '../tab/index.ts';
import { DownloadButton } from '../files/index.ts';
import { useLedger } from '../ledger/index.ts';
import { flagsOf, TakePanel, useTake } from '../takes/index.ts';
import { takeableOf } from './takeableOf.ts';
import PracticeMargin from './PracticeMargin.vue';
import PracticeNeck from './PracticeNeck.vue';
import { TickBox } from '../ui/index.ts';

const route = useRoute();
const session = useSession();
const ledger = useLedger();
const notices = useNotices();
const strip = useLocalStorage('jam-strip', true);
const neck = useLocalStorage('jam-practice-neck', false);
const pedal = useLocalStorage('jam-pedal', USUAL_PEDAL, { mergeDefaults: true });
const clock = usePracticeClock();
/** A guardian looks and listens. */
const isGuardian = computed(() => !session.isTeacher && !session.isStudent);
const run = usePracticeRun(String(route.params['id']), { minutes: () => clock.minutes.value, chosen });
const { piece, bpm, percent, tempo, rung, next, both, refresh, flush, choose } = run;

usePageAbout(() => piece.value?.phrase.name);

/** The piece, to be taken along. */
const takeables = computed(() => (piece.value ? [takeableOf(piece.value, reading.value.phrase)] : []));

const EMPTY = {
  tuning: 'standard',
  meter: '4/4',
  capo: 0,
  offsetCents: 0,
  pitchWay: 'tune the guitar',
  feel: 'straight',
} as const;
const { reading, bars, tuning } = useReading(
  () => piece.value?.phrase.text ?? '',
  () => piece.value?.song ?? EMPTY,
);
const { step, index, steps, move, pick, loopFrom, loopTo, keepPart, playedOf, clear, looped, loopedSpans, loopSays } =
  useStepping(
    () => reading.value.phrase,
    tuning,
    () => piece.value?.naming ?? 'letters',
  );
const listening = useListening(
  () => ({
    phrase: reading.value.phrase,
    tuning: tuning.value,
    ...soundOf(piece.value?.song ?? EMPTY),
    bpm: tempo.value,
  }),
  true,
);
const { player, playing, start, hearBoth, hearOne } = listening;
const { placed, pin, strike, here } = usePinning(piece, { step, steps, playing, refresh, keep: ledger.pin });

/** What is to be recorded: what goes round just now, at the tempo of the rung. */
const take = useTake(() =>
  piece.value && session.me
    ? {
        pieceId: piece.value.id,
        personId: session.me.id,
        clean: piece.value.clean,
        plan: {
          ...{ phrase: reading.value.phrase, tuning: tuning.value, ...soundOf(piece.value.song), bpm: tempo.value },
          ...{ loop: false, countIn: true, ...looped.value },
        },
      }
    : undefined,
);
const takeFlags = computed(() => (take.shown.value?.judged ? flagsOf(take.shown.value.judged, take.rule.value) : []));

const rhythmKnown = computed(() => hasRhythm(reading.value.phrase));
const flags = computed(() => [
  ...loopedSpans.value.map((span) => ({ span, look: 'loop' as const })),
  ...placed.value.flatMap(({ span }) => (span ? [{ span, look: 'pin' as const }] : [])),
  ...takeFlags.value,
]);
/** The loop follows the share of the piece that is chosen, and the sound its tempo. */
function chosen(isOtherShare: boolean): void {
  if (isOtherShare) keepPart(0, percent.value);
  if (player.playing.value) void hear();
}
watch(steps, () => keepPart(0, percent.value));

function hear(): Promise<void> {
  clock.mark();
  return notices.tell(() => start(looped.value));
}
function hearTwice(): Promise<void> {
  clock.mark();
  return notices.tell(() => (both.value ? hearBoth(both.value, looped.value) : start(looped.value)));
}

function post(at: number, outcome: Outcome): Promise<void> {
  return notices.tell(async () => {
    player.stop();
    clock.mark();
    await run.post(at, outcome, playedOf(percent.value));
  });
}

/** A weak spot of a take goes round and round. */
function loopSpot(from: number, to: number): void {
  const length = steps.value.at(-1);
  if (length) keepPart((100 * from) / (length.at + length.length), (100 * to) / (length.at + length.length));
}

function go(by: 1 | -1): void {
  move(by);
  const now = step.value;
  if (now) void notices.tell(() => hearOne({ from: now.at, to: now.at + now.length }));
}
function goTo({ phraseId, at }: Pin): void {
  const found = placed.value.find((one) => one.pin.phraseId === phraseId && one.pin.at === at);
  if (found?.span) pick(found.span);
}

const KEYS: Readonly<Record<string, () => void>> = {
  ArrowLeft: () => go(-1),
  ArrowRight: () => go(1),
  '[': loopFrom,
  ']': loopTo,
  '0': clear,
  h: () => void (player.playing.value ? player.stop() : hearTwice()),
};
useEventListener('keydown', (event) => {
  const act = event.key === pedal.value.play ? KEYS['h'] : KEYS[event.key];
  // The arrows move a slide or a group of choices that has the focus.
  const isTaken = event.target instanceof HTMLElement && event.target.closest('[role=slider], [role=tablist]');
  if (!act || isTaken || !isForPage(event)) return;
  act();
  event.preventDefault();
});
useEventListener(window, 'online', () => void flush());
</script>

<template>
  <div v-if="piece && next" class="practice">
    <section class="main" :aria-label="piece.phrase.name">
      <header>
        <h1>{{ piece.phrase.name }}</h1>
        <p class="soft">
          {{ piece.section.label }}, {{ piece.song.title }} · {{ piece.song.tuning
          }}<template v-if="piece.song.capo > 0">, capo {{ piece.song.capo }}</template> ·
          <RouterLink :to="{ name: 'drills', params: { id: piece.id } }">bend and timing drills</RouterLink> ·
          <RouterLink :to="{ name: 'sheet', params: { id: piece.song.id } }">handout of the song</RouterLink>
          <DownloadButton :choices="takeables" />
        </p>
        <p v-if="!rhythmKnown" class="soft">
          Only the order of its notes is known: a tempo is a pace of notes here, two to the beat.
        </p>
      </header>
      <WaitingLine :waiting="ledger.waiting" @send="notices.tell(flush)" />
      <TabPage
        :bars="bars"
        :strings="tuning.openMidis.length"
        :playing="playing"
        :caret="step?.span"
        :flags="flags"
        :strip="strip"
        @pick="pick"
        >Your teacher has not written this phrase yet.</TabPage
      >
      <InWords v-if="bars.length > 0" :phrase="reading.phrase" :names="piece.naming" />
      <PracticeNeck v-if="neck" :piece="piece" :phrase="reading.phrase" :tuning="tuning" :playing="playing" />
      <StepBar
        :step="step"
        :number="index"
        :count="steps.length"
        :loop="loopSays"
        @move="go"
        @from="loopFrom"
        @to="loopTo"
        @clear="clear"
      />
      <PlayBar :listening="listening" :bpm="tempo" :disabled="bars.length === 0" @play="hear">
        <Button v-if="both" outlined :label="`Hear ${both[0]}, then ${both[1]}`" title="h" @click="hearTwice" />
        <TickBox v-model="strip">one line</TickBox>
        <TickBox v-model="neck">neck</TickBox>
      </PlayBar>
      <PostResult
        v-if="!isGuardian"
        v-model:bpm="bpm"
        :medium="session.isTeacher ? 'ink' : 'pencil'"
        :keys="true"
        :pedal="pedal"
        :post="post"
      />
      <TakePanel
        v-if="!isGuardian && rhythmKnown && bars.length > 0"
        :take="take"
        :phrase="reading.phrase"
        :zone="session.me?.studio.zone ?? 'UTC'"
        :post="post"
        @loop="loopSpot"
      />
      <PinList
        :pins="placed"
        :me="session.me?.id ?? ''"
        :teaches="session.isTeacher"
        :still="isGuardian"
        :here="here"
        :pin="pin"
        @go="goTo"
        @strike="(one) => notices.tell(() => strike(one))"
      />
    </section>
    <PracticeMargin
      v-model:pedal="pedal"
      :piece="piece"
      :next="next"
      :chosen="rung"
      :phrase="reading.phrase"
      :tuning="tuning"
      :today="session.me?.studio.today ?? ''"
      @choose="choose"
      @rested="clock.rest"
      @half="(from) => keepPart(from, from + 50)"
    />
  </div>
</template>

<style scoped>
.practice {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 16rem;
  gap: 1.5rem;
}
.main {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  min-width: 0;
}
.strip input {
  accent-color: var(--cool);
}
@media (max-width: 820px) {
  .practice {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
