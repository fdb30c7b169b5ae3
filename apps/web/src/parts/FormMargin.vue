<script setup lang="ts">
import type { Section } from '@jam-ledger/contract';
import { checkForm, type FormFix } from '@jam-ledger/core/form';
import { barTicks, readShorthand, unroll, type Meter } from '@jam-ledger/core/notation';
import type { Tuning } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import { computed } from 'vue';

const props = defineProps<{ sections: readonly Section[]; tempo: number; meter: Meter; tuning: Tuning }>();
const emit = defineEmits<{ show: [sectionId: string]; fix: [fix: FormFix] }>();

/** Bars that the phrases of a section fill, played out; a section without phrases has none. */
function barsOf({ phrases }: Section): number {
  const { tuning, meter } = props;
  const ticks = phrases.map(({ text }) => unroll(readShorthand(text, { tuning, meter }).phrase).length);
  return ticks.reduce((sum, one) => sum + one, 0) / barTicks(meter);
}

const problems = computed(() =>
  checkForm({
    sections: props.sections.map(({ id, label, bars, startSeconds }) => ({
      id,
      label,
      bars,
      startSeconds,
      times: 1,
      passes: [],
    })),
    meter: props.meter,
    bpm: props.tempo,
    phraseBars: new Map(
      props.sections.flatMap((section) => (section.phrases.length > 0 ? [[section.id, barsOf(section)] as const] : [])),
    ),
  }),
);
</script>

<template>
  <ul v-if="problems.length > 0" class="quiet-list form-margin" aria-label="What does not agree in the form">
    <li v-for="(problem, index) in problems" :key="index">
      <button type="button" @click="emit('show', problem.sectionId)">{{ problem.message }}</button>
      <Button
        v-if="problem.fix"
        size="small"
        severity="secondary"
        outlined
        :label="problem.fix.title"
        @click="emit('fix', problem.fix)"
      />
    </li>
  </ul>
</template>

<style scoped>
.form-margin {
  border-left: 3px dashed var(--warm);
  padding-left: 0.7rem;
  margin-top: 0.5rem;
  font-size: 0.92rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
  padding: 0.1rem 0;
}
button:not(.p-button) {
  all: unset;
  cursor: pointer;
}
button:not(.p-button):focus-visible {
  outline: 2px solid var(--focus);
}
</style>
