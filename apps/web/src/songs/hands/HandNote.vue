<script setup lang="ts">
import { sayString, type StringNames } from '@jam-ledger/core/fretboard';
import type { Span } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, ref } from 'vue';
import type { HandPosition, PlaceWishes, WayReport } from '../../tab/index.ts';
import { TickBox, FoldPart } from '../../ui/index.ts';

const props = defineProps<{
  fretPositions: readonly HandPosition[];
  workMs: number;
  caret: Span | undefined;
  /** The same pitches in one box, where that is how this student plays; else null. */
  boxed: WayReport | null;
  inBox: boolean;
  /** How many strings there are. */
  strings: number;
  /** How they are named. */
  names: StringNames;
}>();
const emit = defineEmits<{
  writeFingers: [];
  cheapest: [wishes: PlaceWishes];
  over: [strings: 1 | -1];
  takeBox: [];
  toggleBox: [];
}>();

const keepOpen = ref(true);
/** 0 for none; a list cannot show null. */
const avoid = ref(0);
const avoidable = computed(() => [
  { id: 0, label: 'any string' },
  ...Array.from({ length: props.strings }, (_, index) => ({
    id: index + 1,
    label: `not ${sayString(index + 1, props.names)}`,
  })),
]);
const selected = computed(() => {
  const { from, to } = props.caret ?? { from: 0, to: 0 };
  // A plain object, since it goes to a worker.
  return to > from ? { from, to } : null;
});
const wishes = computed((): PlaceWishes => ({
  keepOpen: keepOpen.value,
  avoid: avoid.value === 0 ? null : avoid.value,
  keep: selected.value,
}));

const NAMES: Readonly<Record<string, string>> = { 1: 'first', 2: 'second', 3: 'third', 4: 'fourth', T: 'thumb' };
const nameOf = (finger: string | number | null): string => NAMES[String(finger)] ?? '';

const here = computed(() => {
  const at = props.caret?.to;
  return at === undefined
    ? undefined
    : (props.fretPositions.findLast(({ span }) => span.from <= at) ?? props.fretPositions[0]);
});

/** `Third finger, the hand at fret 5`, and why. */
const says = computed(() => {
  const place = here.value;
  if (!place) return 'Put the cursor on a note.';
  if (place.fingers.length === 0) return 'No finger of this hand.';
  const fingers = place.fingers.map(nameOf).join(', ');
  const because = place.because === '' ? '' : `: ${place.because}`;
  return `${fingers.charAt(0).toUpperCase()}${fingers.slice(1)}, the hand at fret ${place.position}${because}.`;
});
const others = computed(() =>
  (here.value?.others ?? []).map(
    ({ finger, position, moreMs }) =>
      `${nameOf(finger)}, if the hand is at fret ${position} (${moreMs < 1 ? 'no dearer' : `${Math.round(moreMs)} ms more`})`,
  ),
);
</script>

<template>
  <FoldPart name="hand" title="Fingers and places">
    <p class="switch">
      {{ inBox ? 'In one box' : 'As recorded' }}
      <Button size="small" text :label="inBox ? 'As recorded' : 'One box'" @click="emit('toggleBox')" />
      <kbd>Alt-o</kbd>
    </p>
    <p v-if="inBox && boxed">
      {{ boxed.says.charAt(0).toUpperCase() + boxed.says.slice(1) }}.
      <Button size="small" text label="Write it so" @click="emit('takeBox')" />
    </p>
    <div class="buttons">
      <Button size="small" text label="Write the fingers in" @click="emit('writeFingers')" />
      <Button size="small" text label="Cheapest places" @click="emit('cheapest', wishes)" />
      <Button size="small" text label="A string thinner" @click="emit('over', 1)" />
      <Button size="small" text label="A string thicker" @click="emit('over', -1)" />
    </div>
    <div class="wishes">
      <TickBox v-model="keepOpen">open stays open</TickBox>
      <Select
        v-model="avoid"
        size="small"
        :options="avoidable"
        option-label="label"
        option-value="id"
        aria-label="String to avoid"
      />
    </div>
    <p class="soft">{{ Math.round(workMs) }} ms of work for the hand as written.</p>
    <p class="here">{{ says }}</p>
    <p v-if="selected" class="soft">What is selected stays where it is.</p>
    <p v-if="others.length > 0" class="soft">Or {{ others.join('; ') }}.</p>
  </FoldPart>
</template>

<style scoped>
.switch {
  display: flex;
  align-items: center;
  gap: 0.3rem;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  margin-left: -0.5rem;
}
.wishes {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.6rem;
  margin-bottom: 0.3rem;
}
.wishes input {
  accent-color: var(--cool);
}
.here {
  margin-top: 0.2rem;
}
</style>
