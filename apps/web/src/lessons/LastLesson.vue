<script setup lang="ts">
import type { LessonNote } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { dayText } from '../ui/index.ts';

defineProps<{ note: LessonNote }>();
const emit = defineEmits<{ reopen: [] }>();
</script>

<template>
  <details class="last">
    <summary>Last time, {{ dayText(note.day, 'short') }}</summary>
    <p v-if="note.words">{{ note.words }}</p>
    <p v-if="note.home" class="soft">{{ note.home }}</p>
    <ul class="quiet-list">
      <li v-for="{ pieceId, name, bpm } in note.assigned" :key="pieceId">{{ name }} at {{ bpm }}</li>
    </ul>
    <Button v-if="note.isOpen" size="small" text label="Go on writing it" @click="emit('reopen')" />
  </details>
</template>

<style scoped>
.last {
  border-left: 2px solid var(--warm);
  padding-left: 0.6rem;
  margin-bottom: 0.5rem;
  font-size: 0.93rem;
}
summary {
  cursor: pointer;
  color: var(--cool);
}
</style>
