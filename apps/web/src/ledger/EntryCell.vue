<script setup lang="ts">
import type { LedgerCell } from '@jam-ledger/contract';
import { computed } from 'vue';

const props = defineProps<{ cell: LedgerCell; target: number }>();

const share = computed(() => (props.cell.outcome === 'clean' ? Math.min(1, props.cell.bpm / props.target) : 0));
const title = computed(() => {
  const { bpm, outcome, medium, percent, results } = props.cell;
  const part = percent < 100 ? `, ${percent} % of it` : '';
  const more = results > 1 ? `, ${results} takes that day` : '';
  return `${bpm} ${outcome === 'clean' ? 'clean' : 'not yet'}${part}, ${medium}${more}`;
});
</script>

<template>
  <span :class="['reading', cell.medium, { missed: cell.outcome === 'not-yet' }]" :title="title">
    <span class="fill" :style="{ height: `${share * 100}%` }" aria-hidden="true"></span>
    <span class="bpm">{{ cell.bpm }}</span>
    <span class="unseen">{{ cell.outcome === 'clean' ? 'clean' : 'not yet' }}, {{ cell.medium }}</span>
  </span>
</template>

<style scoped>
.reading {
  position: relative;
  display: grid;
  place-items: center;
  width: 100%;
  height: 2.1rem;
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
</style>
