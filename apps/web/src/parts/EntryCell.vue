<script setup lang="ts">
import type { Entry } from '@jam-ledger/contract';
import { computed } from 'vue';

const props = defineProps<{ entries: readonly Entry[]; target: number }>();

/** The day's line: ink before pencil, and of each the last posted. */
const shown = computed(() => {
  const counted = props.entries.filter(({ struck }) => !struck);
  return counted.findLast(({ medium }) => medium === 'ink') ?? counted.at(-1);
});
const share = computed(() => (shown.value?.outcome === 'clean' ? Math.min(1, shown.value.bpm / props.target) : 0));
const title = computed(() =>
  props.entries
    .map(({ bpm, outcome, medium, postedBy, struck }) => {
      const went = outcome === 'clean' ? 'clean' : 'not yet';
      return `${bpm} ${went}, ${medium}, ${postedBy.name}${struck ? ' (struck out)' : ''}`;
    })
    .join('\n'),
);
</script>

<template>
  <td class="cell" :title="title">
    <span v-if="shown" :class="['reading', shown.medium, { missed: shown.outcome === 'not-yet' }]">
      <span class="fill" :style="{ height: `${share * 100}%` }" aria-hidden="true"></span>
      <span class="bpm">{{ shown.bpm }}</span>
      <span class="sr">{{ shown.outcome === 'clean' ? 'clean' : 'not yet' }}, {{ shown.medium }}</span>
    </span>
  </td>
</template>

<style scoped>
.cell {
  padding: 0;
  border-left: 1px solid var(--rule);
  text-align: center;
  min-width: 2.6rem;
  height: 2.5rem;
}
.reading {
  position: relative;
  display: grid;
  place-items: center;
  width: 100%;
  height: 2.5rem;
}
.fill {
  position: absolute;
  inset: auto 0 0 0;
  background: var(--cool-wash);
}
.reading.pencil .fill {
  background: repeating-linear-gradient(135deg, var(--page-sunk) 0 3px, transparent 3px 6px);
}
.bpm {
  position: relative;
}
.missed .bpm::after {
  content: ' ×';
  color: var(--warm);
}
.sr {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
