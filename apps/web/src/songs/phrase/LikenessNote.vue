<script setup lang="ts">
import { sayLikeness } from '@jam-ledger/core/likeness';
import type { Move } from '@jam-ledger/core/notation';
import { computed } from 'vue';
import type { FoundAlike } from './alike.worker.ts';
import { LineButton } from '../../ui/index.ts';

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
      <LineButton link @click="emit('open', found.id)">Show it</LineButton>
      <LineButton v-if="!refers && found.move" link @click="emit('refer', found.id, found.move)">
        Refer to it instead
      </LineButton>
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
  margin-right: 0.6rem;
}
</style>
