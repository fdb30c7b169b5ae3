<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import CentsScale from './CentsScale.vue';
import { useLivePitch } from './useLivePitch.ts';

/** Where a bend begins and where it is to end, MIDI with a fraction. */
const props = defineProps<{ from: number; to: number }>();

/** Within so many cents a bend has its pitch. Our choice, as in a take. */
const REACHED_CENTS = 25;
/** Heard so far from the bend is another note, semitones. */
const OTHER_NOTE = 1.2;

const now = ref<number>();
const furthest = ref<number>();
const { isOn, trouble, start, stop } = useLivePitch((midi) => {
  const low = Math.min(props.from, props.to) - OTHER_NOTE;
  const high = Math.max(props.from, props.to) + OTHER_NOTE;
  if (midi < low || midi > high) return;
  now.value = 100 * (midi - props.to);
  // A note at its fret begins a new try.
  const isBack = Math.abs(midi - props.from) < Math.abs(midi - props.to);
  const up = Math.sign(props.to - props.from);
  if (isBack && Math.abs(midi - props.from) < 0.3) furthest.value = undefined;
  else furthest.value = up * Math.max(up * now.value, up * (furthest.value ?? up * -Infinity));
});
/** Opens the microphone for a new try. */
function begin(): Promise<void> {
  [now.value, furthest.value] = [undefined, undefined];
  return start();
}
const says = computed(() => {
  if (furthest.value === undefined) return 'Strike the note and bend it.';
  const off = Math.round(furthest.value);
  if (Math.abs(off) <= REACHED_CENTS) return `Reached: ${off < 0 ? '−' : '+'}${Math.abs(off)} cents from its pitch.`;
  return off < 0 === props.to > props.from
    ? `${Math.abs(off)} cents short: further.`
    : `${Math.abs(off)} cents too far: less.`;
});
</script>

<template>
  <div class="try" role="group" aria-label="Try the bend">
    <Button v-if="isOn" size="small" label="Close the microphone" outlined @click="stop" />
    <Button v-else size="small" label="Bend it into the microphone" outlined @click="begin" />
    <template v-if="isOn">
      <span class="microphone-light" role="img" aria-label="The microphone is open"></span>
      <CentsScale :cents="now ?? -250" :reach="250" />
      <strong role="status">{{ says }}</strong>
    </template>
    <p v-if="trouble" class="problem" role="alert">{{ trouble }}</p>
  </div>
</template>

<style scoped>
.try {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.4rem;
}
.problem {
  color: var(--warm);
}
</style>
