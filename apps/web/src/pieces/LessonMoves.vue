<script setup lang="ts">
import type { LessonMove } from '@jam-ledger/core/series';
import Button from 'primevue/button';
import { computed } from 'vue';
import { dayText, LineButton } from '../ui/index.ts';

const props = defineProps<{ moves: readonly LessonMove[]; nameOf: (id: string) => string }>();
const emit = defineEmits<{ accept: []; choose: [id: string] }>();

/** The first plan of all is no list of changes. */
const isFirst = computed(() => props.moves.every(({ from }) => from === null));
</script>

<template>
  <section v-if="moves.length > 0" class="moves" aria-label="Lessons to accept">
    <p>
      <strong>{{
        isFirst
          ? `${moves.length === 1 ? 'One piece is' : `${moves.length} pieces are`} spread over the coming lessons.`
          : `${moves.length === 1 ? 'One piece moves' : `${moves.length} pieces move`} to another lesson.`
      }}</strong>
      <Button size="small" text label="Accept the lessons" @click="emit('accept')" />
    </p>
    <details v-if="!isFirst" open>
      <summary>What moved, and why</summary>
      <ul class="quiet-list">
        <li v-for="{ id, from, to, why } in moves" :key="id">
          <LineButton @click="emit('choose', id)">{{ nameOf(id) }}</LineButton>
          <span>{{ from === null ? 'to' : `${dayText(from, 'short')} to` }} {{ dayText(to, 'short') }}</span>
          <span class="soft">{{ why }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.moves {
  border-left: 2px solid var(--warm);
  padding-left: 0.7rem;
  margin: 0.3rem 0 0.6rem;
}
summary {
  cursor: pointer;
  color: var(--cool);
}
ul {
  max-height: 9rem;
  overflow-y: auto;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.7rem;
}
li button {
  font-weight: 600;
  text-decoration: underline;
}
</style>
