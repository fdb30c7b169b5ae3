<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import { lastLesson, sinceLesson } from '@jam-ledger/core/progress';
import { computed } from 'vue';
import { dayText } from '../composables/useDays.ts';

const props = defineProps<{ pieces: readonly Piece[] }>();

const histories = computed(() =>
  props.pieces.map(({ phrase, entries }) => ({ name: phrase.name, history: entries.filter(({ struck }) => !struck) })),
);
const lesson = computed(() => lastLesson(histories.value.map(({ history }) => history)));
/** What was practised since, in words: the tempo it came from and went to, and the misses. */
const lines = computed(() => {
  const day = lesson.value;
  if (day === undefined) return [];
  return histories.value.flatMap(({ name, history }) => {
    const { before, since, takes, misses } = sinceLesson(history, day);
    if (takes === 0) return [];
    const missed = misses === 0 ? '' : `, ${misses} not yet`;
    if (since === null) return [`${name}: nothing clean in ${takes} ${takes === 1 ? 'take' : 'takes'}`];
    if (before !== null && since <= before) return [`${name}: ${since} again${missed}`];
    return [`${name}: ${before === null ? '' : `${before} → `}${since}${missed}`];
  });
});
</script>

<template>
  <section v-if="lesson" class="since" aria-label="Since the last lesson">
    <h2>Since the lesson of {{ dayText(lesson) }}</h2>
    <p v-if="lines.length === 0" class="soft">Nothing is posted since.</p>
    <ul v-else class="quiet-list">
      <li v-for="line in lines" :key="line">{{ line }}</li>
    </ul>
  </section>
</template>

<style scoped>
.since {
  margin: 0.2rem 0 0.9rem;
}
h2 {
  font-size: 1rem;
}
ul {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1.6rem;
}
</style>
