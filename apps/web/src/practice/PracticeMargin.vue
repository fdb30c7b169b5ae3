<script setup lang="ts">
import type { NextStep, Piece, Rung } from '@jam-ledger/contract';
import { cautionsOf } from '@jam-ledger/core/difficulty';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import type { Phrase } from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import { computed } from 'vue';
import { CareNote, PedalChoice, TempoLadder, sayLoop, sayPart, type Pedal } from '../playing/index.ts';
import { ShareBar, dayText } from '../ui/index.ts';

const props = defineProps<{
  piece: Piece;
  next: NextStep;
  chosen: Rung;
  phrase: Phrase;
  tuning: Tuning;
  today: string;
}>();
const pedal = defineModel<Pedal>('pedal', { required: true });
/** `half`: the hundredths from which half of the piece is to go round and round. */
const emit = defineEmits<{ choose: [rung: Rung]; rested: []; half: [from: 0 | 50] }>();

const cautions = computed(() => {
  const { song, hand, targetBpm } = props.piece;
  const { capo, frets } = song;
  const guitar = {
    tuning: props.tuning,
    capo,
    frets,
    scaleLengthMm: hand.scaleLengthMm,
    reachMm: reachOfHand(hand),
    names: props.piece.naming,
  };
  return cautionsOf(props.phrase, { ...guitar, bpm: targetBpm });
});
const newest = computed(() =>
  props.piece.entries
    .filter(({ struck }) => !struck)
    .slice(-6)
    .reverse(),
);
</script>

<template>
  <aside class="margin">
    <h2>Next step</h2>
    <p :class="{ rest: next.move === 'rest' }" role="status">{{ next.reason }}</p>
    <Button v-if="next.move === 'rest'" size="small" outlined label="I have rested" @click="emit('rested')" />
    <div v-if="next.move === 'split'" class="halves">
      <Button size="small" outlined label="First half" @click="emit('half', 0)" />
      <Button size="small" outlined label="Second half" @click="emit('half', 50)" />
    </div>
    <p class="soft">{{ piece.mastery.reason }}</p>
    <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
    <TempoLadder
      class="rungs"
      :rungs="piece.rungs"
      :now="next.move === 'keep' ? undefined : next"
      :chosen="chosen"
      @choose="emit('choose', $event)"
    />
    <p v-if="piece.floorBpm !== null" class="soft small">
      No slower than {{ piece.floorBpm }}: below that the phrase loses its sense.
    </p>
    <CareNote :cautions="cautions" :today="today" />
    <p class="soft small">Warm up first. Stop at pain, numbness or tingling, and see a health professional.</p>
    <h3>Posted</h3>
    <ul class="quiet-list">
      <li v-for="entry in newest" :key="entry.id">
        <span :class="entry.medium"
          >{{ entry.bpm }}{{ sayPart(entry) }}, {{ entry.outcome === 'clean' ? 'clean' : 'not yet' }}</span
        >
        <span class="soft day">{{
          entry.version === 0 ? 'waits here' : entry.day === today ? 'today' : dayText(entry.day)
        }}</span>
        <span v-if="entry.loop" class="soft loop">{{ sayLoop(entry.loop, phrase) }}; does not move the ladder</span>
      </li>
    </ul>
    <PedalChoice v-model="pedal" />
  </aside>
</template>

<style scoped>
.margin {
  border-left: 2px solid var(--warm);
  padding-left: 1rem;
  display: flex;
  flex-direction: column;
  gap: 0.5rem;
}
.halves {
  display: flex;
  gap: 0.4rem;
}
.rungs {
  margin: 0.4rem 0;
  align-self: flex-start;
}
.day {
  margin-left: 0.5rem;
}
.loop {
  display: block;
  font-size: 0.85rem;
}
.rest {
  color: var(--warm);
  font-weight: 600;
}
.small {
  font-size: 0.88rem;
}
</style>
