<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import { practiceDrills } from '@jam-ledger/core/difficulty';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import { readKey } from '@jam-ledger/core/pitch';
import { computed, onMounted, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { useReading } from '../tab/index.ts';
import { TunerPanel } from '../takes/index.ts';
import DrillSheet from './DrillSheet.vue';
import { soundOf } from '../sound/index.ts';
import { useLedger } from '../ledger/index.ts';
import { usePage, usePageAbout } from '../session/index.ts';

const page = usePage();
const route = useRoute();
const ledger = useLedger();
const piece = ref<Piece>();
usePageAbout(() => piece.value?.phrase.name);
onMounted(() =>
  page.open(async () => {
    piece.value = await ledger.piece(String(route.params['id']));
  }),
);

const EMPTY = { tuning: 'standard', meter: '4/4' } as const;
const { reading, tuning } = useReading(
  () => piece.value?.phrase.text ?? '',
  () => piece.value?.song ?? EMPTY,
);
const drills = computed(() => {
  if (!piece.value) return [];
  const { song, hand, naming } = piece.value;
  const { capo, frets } = song;
  const guitar = {
    tuning: tuning.value,
    capo,
    frets,
    scaleLengthMm: hand.scaleLengthMm,
    reachMm: reachOfHand(hand),
    names: naming,
    key: readKey(song.key),
  };
  return practiceDrills(reading.value.phrase, guitar);
});
</script>

<template>
  <template v-if="piece">
    <h1>Drills for {{ piece.phrase.name }}</h1>
    <p class="soft">
      Made from its own notes: for each bend its target first, for each bar its rhythm on one muted string.
      <RouterLink :to="{ name: 'piece', params: { id: piece.id } }">Back to the piece</RouterLink>
    </p>
    <TunerPanel :tuning="tuning" :offset-cents="soundOf(piece.song).offsetCents" :naming="piece.naming" />
    <p v-if="drills.length === 0">It has no bends, and its rhythm is even: there is nothing to drill.</p>
    <DrillSheet v-for="drill in drills" :key="drill.text" :drill="drill" :song="piece.song" :bpm="piece.next.bpm" />
  </template>
</template>
