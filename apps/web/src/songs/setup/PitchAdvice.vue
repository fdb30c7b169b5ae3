<script setup lang="ts">
import type { PitchWay } from '@jam-ledger/contract';
import {
  A4_MIDI,
  hzOf,
  playbackRatio,
  referenceTones,
  spell,
  writeSpelling,
  type Tuning,
} from '@jam-ledger/core/pitch';
import { computed } from 'vue';

const props = defineProps<{ tuning: Tuning; offsetCents: number; way: PitchWay }>();

const tones = computed(() =>
  referenceTones(props.tuning, props.offsetCents).map(({ string, midi, hz }) => ({
    string,
    name: writeSpelling(spell(midi)),
    hz: hz.toFixed(2),
  })),
);
const a4 = computed(() => hzOf(A4_MIDI, undefined, props.offsetCents).toFixed(1));
const ratio = computed(() => playbackRatio(props.offsetCents));
const percent = computed(() => ((ratio.value - 1) * 100).toFixed(2));
</script>

<template>
  <p class="advice soft">
    <template v-if="offsetCents === 0">The recording is at A4 = 440 Hz; there is nothing to do.</template>
    <template v-else-if="way === 'tune the guitar'"
      >Tune to A4 = {{ a4 }} Hz:
      <span v-for="tone in tones" :key="tone.string" class="tone">{{ tone.name }} {{ tone.hz }} Hz</span>
    </template>
    <template v-else
      >Play the recording {{ ratio.toFixed(4) }} times as fast ({{ percent }} %), and leave the guitar at A4 = 440 Hz.
    </template>
  </p>
</template>

<style scoped>
.advice {
  grid-column: 1 / -1;
  font-size: 0.9rem;
  font-variant-numeric: tabular-nums;
}
.tone {
  display: inline-block;
  margin-right: 0.8rem;
  white-space: nowrap;
}
</style>
