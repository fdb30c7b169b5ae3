<script setup lang="ts">
import type { SpokenChoice, SpokenDoubt } from '@jam-ledger/core/spoken';
import Button from 'primevue/button';

/** What is not sure of words that were read as notes, with what may be meant. */
defineProps<{
  doubts: readonly SpokenDoubt[];
  /** The words in which the doubts have their places. */
  words: string;
  /** So many are asked at once. */
  most: number;
}>();
const emit = defineEmits<{ choose: [doubt: SpokenDoubt, choice: SpokenChoice] }>();
</script>

<template>
  <ul v-if="doubts.length > 0" class="quiet-list" aria-label="What is not sure">
    <li v-for="(doubt, index) in doubts.slice(0, most)" :key="index">
      <q>{{ words.slice(doubt.span.from, doubt.span.to) }}</q> <span>{{ doubt.says }}</span>
      <Button
        v-for="choice in doubt.choices"
        :key="choice.label"
        size="small"
        outlined
        severity="secondary"
        :label="choice.label"
        @click="emit('choose', doubt, choice)"
      />
    </li>
  </ul>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.6rem;
  align-items: center;
  padding: 0.1rem 0;
}
q {
  font-style: italic;
}
</style>
