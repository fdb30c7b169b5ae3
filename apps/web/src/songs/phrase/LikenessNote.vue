<script setup lang="ts">
import { sayLikeness } from '@jam-ledger/core/likeness';
import type { Move } from '@jam-ledger/core/notation';
import { computed } from 'vue';
import type { FoundAlike } from './alike.worker.ts';

const props = defineProps<{
  /** Phrases written before this one that it is like, the most alike first. */
  alike: readonly FoundAlike[];
  /** Whether the phrase refers to another already. */
  refers: boolean;
}>();
const emit = defineEmits<{ open: [id: string]; refer: [id: string, move: Move] }>();

const MAX_SHOWN = 2;

const shown = computed(() => props.alike.slice(0, MAX_SHOWN));
</script>

<template>
  <section v-if="shown.length > 0" class="likeness" aria-label="Likeness">
    <p v-for="found in shown" :key="found.id">
      {{ sayLikeness(found) }}<template v-if="found.move?.openStays"> Open strings are as they were there.</template>
      <button type="button" @click="emit('open', found.id)">Show it</button>
      <button v-if="!refers && found.move" type="button" @click="emit('refer', found.id, found.move)">
        Refer to it instead
      </button>
    </p>
  </section>
</template>

<style scoped>
.likeness {
  border-left: 3px solid var(--cool);
  padding-left: 0.6rem;
  margin-top: 0.7rem;
}
button {
  all: unset;
  margin-right: 0.6rem;
  cursor: pointer;
  color: var(--cool);
  text-decoration: underline;
}
button:focus-visible {
  outline: 2px solid var(--focus);
}
</style>
