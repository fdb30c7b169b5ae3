<script setup lang="ts">
import type { ListenAgain } from './listenAgain.ts';
import { LineButton } from '../ui/index.ts';

defineProps<{ list: readonly ListenAgain[] }>();
const emit = defineEmits<{ open: [phraseId: string] }>();
</script>

<template>
  <details v-if="list.length > 0" class="second-listen">
    <summary>Second listen ({{ list.length }})</summary>
    <ol class="quiet-list" aria-label="What wants a second listen, in playing order">
      <li v-for="(one, index) in list" :key="index">
        <LineButton link @click="emit('open', one.phraseId)">{{ one.where }}</LineButton>
        <code v-if="one.what">{{ one.what }}</code>
        <span
          ><em>{{ one.certainty }}</em
          >{{ one.reason ? `: ${one.reason}` : '' }}</span
        >
      </li>
    </ol>
  </details>
</template>

<style scoped>
.second-listen {
  margin-top: 0.4rem;
  font-size: 0.92rem;
}
summary {
  cursor: pointer;
  color: var(--cool);
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.5rem;
}
code {
  font-family: var(--type-mono);
}
</style>
