<script setup lang="ts">
import { sayLikeness, type Alike } from '@jam-ledger/core/likeness';
import { computed } from 'vue';

const props = defineProps<{
  /** Phrases written before this one that it is like, the most alike first. */
  alike: readonly Alike[];
  /** Whether the phrase refers to another already. */
  refers: boolean;
}>();
const emit = defineEmits<{ open: [id: string]; refer: [id: string, movedFrets: number] }>();

const MAX_SHOWN = 2;

const shown = computed(() => props.alike.slice(0, MAX_SHOWN));

/** Exactly the same, or the same on other frets of the same strings: then it need not be written twice. */
function mayRefer({ kinship, differences, likeness, hands }: Alike): boolean {
  return (kinship === 'same' || kinship === 'moved') && differences.length === 0 && likeness === 1 && hands === null;
}
</script>

<template>
  <section v-if="shown.length > 0" class="likeness" aria-label="Likeness">
    <p v-for="found in shown" :key="found.id">
      {{ sayLikeness(found) }}
      <button type="button" @click="emit('open', found.id)">Show it</button>
      <button v-if="!refers && mayRefer(found)" type="button" @click="emit('refer', found.id, found.frets)">
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
