<script setup lang="ts">
import type { Rung } from '@jam-ledger/contract';
import { computed } from 'vue';
import { LineButton } from '../ui/index.ts';

const props = defineProps<{ rungs: readonly Rung[]; now?: Rung | undefined; chosen?: Rung | undefined }>();
const emit = defineEmits<{ choose: [rung: Rung] }>();

const isSame = (a: Rung, b: Rung | undefined) => a.bpm === b?.bpm && a.percent === b.percent;
/** The last to be climbed on top. A tempo that comes twice is the next at its last place alone. */
const shown = computed(() => {
  const next = props.rungs.findLastIndex((rung) => isSame(rung, props.now));
  const target = props.rungs.length - 1;
  return props.rungs
    .map((rung, index) => ({ rung, index, isNext: index === next, word: wordFor(index, target) }))
    .reverse();
});

function wordFor(index: number, target: number): string {
  const { bpm = 0, percent = 100 } = props.rungs[index] ?? {};
  if (index === target) return 'target';
  if (percent < 100) return `${percent} % of it`;
  if (index === 0) return 'start';
  return bpm > (props.rungs[target]?.bpm ?? bpm) ? 'past it' : '';
}
</script>

<template>
  <ol class="ladder quiet-list" aria-label="Rungs of the ladder, the last on top">
    <li v-for="{ rung, index, isNext, word } in shown" :key="index">
      <LineButton
        :class="['rung', { now: isNext, chosen: isSame(rung, chosen) }]"
        :aria-pressed="isSame(rung, chosen)"
        @click="emit('choose', rung)"
      >
        <span class="bpm">{{ rung.bpm }}</span>
        <span class="word">{{ word }}{{ isNext ? ' ← next' : '' }}</span>
      </LineButton>
    </li>
  </ol>
</template>

<style scoped>
.ladder {
  display: inline-flex;
  flex-direction: column;
  border-left: 3px solid var(--rule-strong);
  border-right: 3px solid var(--rule-strong);
  min-width: 9rem;
}
.rung {
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 0.75rem;
  padding: 0.16rem 0.6rem;
  border-bottom: 2px solid var(--rule);
}
.rung:hover {
  background: var(--page-sunk);
}
.rung.now {
  border-bottom-color: var(--warm);
}
.rung.chosen {
  background: var(--cool);
  color: var(--on-accent);
}
.bpm {
  font-weight: 650;
}
.word {
  color: var(--ink-soft);
  font-size: 0.85rem;
}
.rung.chosen .word {
  color: inherit;
}
</style>
