<script setup lang="ts">
import type { Outcome } from '@jam-ledger/contract';
import { PRACTICE_TEMPO_RANGE } from '@jam-ledger/core/pieces';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { useEventListener } from '@vueuse/core';
import { computed, useId } from 'vue';
import { isForPage } from '../session/index.ts';
import type { Pedal } from './pedal.ts';

const props = defineProps<{
  medium: 'pencil' | 'ink';
  keys: boolean;
  pedal?: Pedal;
  post: (bpm: number, outcome: Outcome) => Promise<void>;
}>();
const bpm = defineModel<number | null>('bpm', { required: true });
const id = useId();

const problem = computed(() => {
  const { min, max } = PRACTICE_TEMPO_RANGE;
  if (bpm.value === null) return 'At which tempo?';
  if (!Number.isInteger(bpm.value)) return 'A whole number of beats a minute.';
  return bpm.value < min || bpm.value > max ? `Between ${min} and ${max}.` : undefined;
});

async function send(outcome: Outcome): Promise<void> {
  if (problem.value === undefined && bpm.value !== null) await props.post(bpm.value, outcome);
}

useEventListener('keydown', (event) => {
  if (!props.keys || event.repeat || event.defaultPrevented || !isForPage(event)) return;
  const { clean, notYet } = props.pedal ?? {};
  if (event.key === 'c' || event.key === clean) void send('clean');
  else if (event.key === 'n' || event.key === notYet) void send('not-yet');
  else return;
  event.preventDefault();
});
</script>

<template>
  <div class="post" role="group" :aria-label="`Post a result in ${medium}`">
    <label :for="id">Played at</label>
    <InputNumber
      v-model="bpm"
      :input-id="id"
      :use-grouping="false"
      :min="0"
      :max="999"
      :invalid="problem !== undefined"
      suffix=" bpm"
    />
    <Button
      :label="medium === 'ink' ? 'Clean, in ink' : 'Clean'"
      :class="medium"
      :disabled="problem !== undefined"
      @click="send('clean')"
    />
    <Button label="Not yet" outlined severity="secondary" :disabled="problem !== undefined" @click="send('not-yet')" />
    <span v-if="keys" class="soft keys"><kbd>c</kbd> clean <kbd>n</kbd> not yet</span>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.post {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
}
.post :deep(input) {
  width: 6.5rem;
}
.problem {
  color: var(--warm);
}
.keys {
  font-size: 0.85rem;
}
@media (max-width: 720px) {
  .post :deep(button) {
    min-height: 2.9rem;
    flex: 1;
  }
  .keys {
    display: none;
  }
}
</style>
