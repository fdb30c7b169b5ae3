<script setup lang="ts">
import { sayString, type StringNames } from '@jam-ledger/core/fretboard';
import { nearestString, type TunedString } from '@jam-ledger/core/listen';
import type { Tuning } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import { computed, shallowRef, useId } from 'vue';
import CentsScale from './CentsScale.vue';
import { useLivePitch } from './useLivePitch.ts';

const props = defineProps<{ tuning: Tuning; offsetCents: number; naming: StringNames }>();
const id = useId();

/** Within so many cents a string is in tune. Source: just noticeable differences of pitch, 3-6 cents (from memory). */
const IN_TUNE_CENTS = 4;

const now = shallowRef<TunedString>();
const { isOn, trouble, start, stop } = useLivePitch(
  (midi) => (now.value = nearestString(midi, props.tuning, props.offsetCents)),
);
const says = computed(() => {
  if (!now.value) return 'Pick one string.';
  const { string, cents } = now.value;
  const off = Math.round(cents);
  const name = sayString(string, props.naming);
  if (Math.abs(cents) <= IN_TUNE_CENTS) return `${name}: in tune.`;
  return off < 0 ? `${name}: ${-off} cents flat, tighten it.` : `${name}: ${off} cents sharp, loosen it.`;
});
</script>

<template>
  <section class="tuner" :aria-labelledby="`${id}-title`">
    <h2 :id="`${id}-title`">Tune the guitar</h2>
    <p v-if="offsetCents !== 0" class="soft">
      To the recording, which stands {{ Math.abs(offsetCents) }} cents {{ offsetCents < 0 ? 'below' : 'above' }} concert
      pitch.
    </p>
    <div class="row">
      <Button v-if="isOn" label="Close the microphone" outlined @click="stop" />
      <Button v-else label="Tune by the microphone" outlined @click="start" />
      <template v-if="isOn">
        <span class="microphone-light" role="img" aria-label="The microphone is open"></span>
        <CentsScale :cents="now?.cents ?? 0" :reach="50" />
        <strong role="status">{{ says }}</strong>
      </template>
    </div>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.tuner {
  margin-top: 0.8rem;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
}
.problem {
  color: var(--warm);
}
</style>
