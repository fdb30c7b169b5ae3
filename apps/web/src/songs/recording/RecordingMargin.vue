<script setup lang="ts">
import type { SetUpChange } from '@jam-ledger/contract';
import Button from 'primevue/button';
import type { TakenOver } from './setUpSaid.ts';

defineProps<{ disagrees: readonly TakenOver[] }>();
const emit = defineEmits<{ take: [change: Partial<SetUpChange>]; begin: [seconds: number] }>();
</script>

<template>
  <ul
    v-if="disagrees.length > 0"
    class="quiet-list recording-margin"
    aria-label="What the recording says of the set-up"
  >
    <li v-for="one in disagrees" :key="one.says">
      <span>{{ one.says }}</span>
      <Button
        v-for="choice in one.choices"
        :key="choice.label"
        size="small"
        severity="secondary"
        outlined
        :label="choice.label"
        @click="'change' in choice ? emit('take', choice.change) : emit('begin', choice.beginSeconds)"
      />
    </li>
  </ul>
</template>

<style scoped>
.recording-margin {
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
}
</style>
