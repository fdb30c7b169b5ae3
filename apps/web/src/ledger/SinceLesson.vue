<script setup lang="ts">
import type { Ledger } from '@jam-ledger/contract';
import { computed } from 'vue';
import { dayText } from '../ui/index.ts';

const props = defineProps<{ ledger: Ledger }>();

/** What was practised since, in words: the tempo it came from and went to, and the misses. */
const lines = computed(() =>
  props.ledger.pieces.flatMap(({ id, phrase: { name }, since: what }) => {
    if (!what) return [];
    const { before, since, results, misses } = what;
    const missed = misses === 0 ? '' : `, ${misses} not yet`;
    if (since === null)
      return [{ id, line: `${name}: nothing clean in ${results} ${results === 1 ? 'take' : 'takes'}` }];
    if (before !== null && since <= before) return [{ id, line: `${name}: ${since} again${missed}` }];
    return [{ id, line: `${name}: ${before === null ? '' : `${before} → `}${since}${missed}` }];
  }),
);
</script>

<template>
  <section v-if="ledger.lastLesson" class="since" aria-label="Since the last lesson">
    <h2>Since the lesson of {{ dayText(ledger.lastLesson) }}</h2>
    <p v-if="lines.length === 0" class="soft">Nothing is posted since.</p>
    <ul v-else class="quiet-list">
      <li v-for="{ id, line } in lines" :key="id">{{ line }}</li>
    </ul>
  </section>
</template>

<style scoped>
.since {
  margin: 0.2rem 0 0.6rem;
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
