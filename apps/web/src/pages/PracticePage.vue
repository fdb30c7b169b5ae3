<script setup lang="ts">
import type { Outcome, Piece } from '@jam-ledger/contract';
import { cautionsOf } from '@jam-ledger/core/difficulty';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import { eventsOf } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { useLocalStorage, useTimeoutFn } from '@vueuse/core';
import { computed, onMounted, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/index.ts';
import { dayText } from '../composables/useDays.ts';
import { soundOf, useListening } from '../composables/useListening.ts';
import { useReading } from '../composables/useReading.ts';
import CareNote from '../parts/CareNote.vue';
import NeckBoard from '../parts/NeckBoard.vue';
import PlayBar from '../parts/PlayBar.vue';
import PostResult from '../parts/PostResult.vue';
import ShareBar from '../parts/ShareBar.vue';
import TabPage from '../parts/TabPage.vue';
import TempoLadder from '../parts/TempoLadder.vue';
import { useLedger, useNotices, useSession } from '../stores/index.ts';

const route = useRoute();
const session = useSession();
const ledger = useLedger();
const notices = useNotices();
const piece = ref<Piece>();
const bpm = ref<number | null>(null);
const strip = useLocalStorage('jam-strip', true);
const neck = useLocalStorage('jam-practice-neck', false);

/** Unbroken practice after which a rest is due, minutes. Common practice. */
const REST_MINUTES = 10;
const restDue = ref(false);
useTimeoutFn(() => (restDue.value = true), REST_MINUTES * 60_000);

onMounted(() =>
  notices.tell(async () => {
    piece.value = await api.piece(String(route.params['id']));
    bpm.value = piece.value.next.bpm;
    if (!session.isTeacher) await ledger.load();
  }),
);
// A strike taken back from the notice changes the ledger; the page follows it.
watch(
  () => ledger.pieces.find(({ id }) => id === piece.value?.id),
  (newer) => {
    if (newer) piece.value = newer;
  },
);

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
const tempo = computed(() => bpm.value ?? piece.value?.next.bpm ?? 60);

const { player, loop, countIn, playing, hasChords, play } = useListening(
  () => ({
    phrase: reading.value.phrase,
    tuning: tuning.value,
    ...soundOf(piece.value?.song ?? EMPTY),
    bpm: tempo.value,
  }),
  true,
);

const key = computed(() => readKey(piece.value?.song.key ?? '') ?? OPEN_KEY);
/** Every place of the phrase on the neck; while it plays, those that sound. */
const places = computed(() => {
  if (!neck.value) return [];
  const sounding = playing.value;
  const events = eventsOf(reading.value.phrase).filter(({ item }) => !sounding || item.span.from === sounding.from);
  const all = events.flatMap(({ item }) =>
    item.notes.flatMap(({ string, fret }) => (fret === null ? [] : [{ string, fret }])),
  );
  return [...new Map(all.map((place) => [`${place.string}-${place.fret}`, place])).values()];
});
const cautions = computed(() => {
  if (!piece.value) return [];
  const { song, hand, targetBpm } = piece.value;
  const reachMm = reachOfHand(hand);
  const guitar = {
    tuning: tuning.value,
    capo: song.capo,
    frets: song.frets,
    scaleLengthMm: hand.scaleLengthMm,
    reachMm,
  };
  return cautionsOf(reading.value.phrase, { ...guitar, bpm: targetBpm });
});

function choose(rung: number): void {
  bpm.value = rung;
  if (player.playing.value) void notices.tell(play);
}

function post(at: number, outcome: Outcome): Promise<void> {
  const practised = piece.value;
  if (!practised) return Promise.resolve();
  return notices.tell(async () => {
    player.stop();
    piece.value = await ledger.post(practised, at, outcome);
  });
}
</script>

<template>
  <div v-if="piece" class="practice">
    <section class="main" :aria-label="piece.phrase.name">
      <header>
        <h1>{{ piece.phrase.name }}</h1>
        <p class="soft">
          {{ piece.section.label }}, {{ piece.song.title }} · {{ piece.song.tuning
          }}<template v-if="piece.song.capo > 0">, capo {{ piece.song.capo }}</template>
        </p>
      </header>
      <TabPage :bars="bars" :strings="tuning.openMidis.length" :playing="playing" :strip="strip"
        >Your teacher has not written this phrase yet.</TabPage
      >
      <NeckBoard
        v-if="neck"
        :tuning="tuning"
        :capo="piece.song.capo"
        :frets="piece.song.frets"
        :music-key="key"
        :mirrored="piece.hand.leftHanded"
        :shown="places"
        still
      />
      <PlayBar
        v-model:loop="loop"
        v-model:count-in="countIn"
        v-model:level="player.level.value"
        v-model:click-level="player.clickLevel.value"
        v-model:backing-level="player.backingLevel.value"
        :has-chords="hasChords"
        :playing="player.playing.value"
        :counting="player.counting.value"
        :bpm="tempo"
        :disabled="bars.length === 0"
        @play="notices.tell(play)"
        @stop="player.stop()"
        @update:level="player.setLevels()"
        @update:click-level="player.setLevels()"
        @update:backing-level="player.setLevels()"
      >
        <label class="strip"><input v-model="strip" type="checkbox" /> one line</label>
        <label class="strip"><input v-model="neck" type="checkbox" /> neck</label>
      </PlayBar>
      <PostResult v-model:bpm="bpm" :medium="session.isTeacher ? 'ink' : 'pencil'" :keys="true" :post="post" />
    </section>
    <aside class="margin">
      <h2>Next step</h2>
      <p>{{ piece.next.reason }}</p>
      <p class="soft">{{ piece.mastery.reason }}</p>
      <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
      <TempoLadder
        class="rungs"
        :rungs="piece.rungs"
        :now="piece.next.move === 'keep' ? undefined : piece.next.bpm"
        :chosen="bpm ?? undefined"
        @choose="choose"
      />
      <p v-if="restDue" class="rest" role="status">
        You have been at it for {{ REST_MINUTES }} minutes. Shake your hands out and rest a little.
      </p>
      <CareNote :cautions="cautions" :today="session.me?.studio.today ?? ''" />
      <p class="soft small">Warm up first. Stop at pain, numbness or tingling, and see a health professional.</p>
      <h3>Posted</h3>
      <ul class="quiet-list">
        <li
          v-for="entry in piece.entries
            .filter(({ struck }) => !struck)
            .slice(-6)
            .reverse()"
          :key="entry.id"
        >
          <span :class="entry.medium">{{ entry.bpm }}, {{ entry.outcome === 'clean' ? 'clean' : 'not yet' }}</span>
          <span class="soft day">{{ entry.day === session.me?.studio.today ? 'today' : dayText(entry.day) }}</span>
        </li>
      </ul>
    </aside>
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
  gap: 0.8rem;
  min-width: 0;
}
.margin {
  border-left: 2px solid var(--warm);
  padding-left: 1rem;
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.rungs {
  margin: 0.4rem 0;
  align-self: flex-start;
}
.day {
  margin-left: 0.5rem;
}
.strip input {
  accent-color: var(--cool);
}
.rest {
  color: var(--warm);
  font-weight: 600;
}
.small {
  font-size: 0.88rem;
}
@media (max-width: 820px) {
  .practice {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
