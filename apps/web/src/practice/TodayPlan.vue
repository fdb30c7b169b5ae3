<script setup lang="ts">
import RadioButton from 'primevue/radiobutton';
import type { LedgerPiece } from '@jam-ledger/contract';
import { PRACTICE_MINUTES, practiceToday, type TaskKind } from '@jam-ledger/core/series';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { practiceOf } from '../playing/index.ts';

const props = defineProps<{ pieces: readonly LedgerPiece[]; today: string }>();

const CHOICES = [10, 20, 30, 45] as const;
const minutes = useLocalStorage('jam-minutes', 20);
/** A number typed by hand elsewhere may be out of range. */
const planned = computed(() =>
  Math.min(PRACTICE_MINUTES.max, Math.max(PRACTICE_MINUTES.min, Math.round(minutes.value) || 20)),
);
const plan = computed(() => practiceToday(props.pieces.map(practiceOf), planned.value, props.today));

const WORDS: Readonly<Record<TaskKind, string>> = {
  'warm-up': 'Warm up',
  again: 'Again',
  step: 'Next step',
  join: 'Join',
  top: 'From the top',
  rest: 'Rest',
};
</script>

<template>
  <section v-if="pieces.length > 0" class="today" aria-label="Today’s practice">
    <h2 id="today">Today</h2>
    <div class="minutes" role="radiogroup" aria-label="Minutes to spare">
      <label v-for="choice in CHOICES" :key="choice" :class="{ chosen: choice === planned }">
        <RadioButton v-model="minutes" name="minutes" :value="choice" /> {{ choice }} min
      </label>
    </div>
    <ol class="quiet-list">
      <li v-for="(task, index) in plan.tasks" :key="index" :class="task.kind">
        <span class="long">{{ task.minutes }} min</span>
        <span>
          <RouterLink v-if="task.pieceIds[0]" :to="{ name: 'piece', params: { id: task.pieceIds[0] } }">{{
            WORDS[task.kind]
          }}</RouterLink>
          <strong v-else>{{ WORDS[task.kind] }}</strong>
          <span v-if="task.bpm !== null" class="bpm"> at {{ task.bpm }}</span>
          <span class="says">{{ task.says }}</span>
        </span>
      </li>
    </ol>
    <p class="soft">{{ plan.minutes }} of {{ planned }} minutes are planned.</p>
  </section>
</template>

<style scoped>
.today {
  border: 1px solid var(--rule-strong);
  background: var(--page);
  padding: 0.8rem 1rem;
  max-width: 56rem;
  margin: 0.6rem 0 1.2rem;
}
.minutes {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin: 0.4rem 0 0.6rem;
}
.minutes label {
  border: 1px solid var(--rule-strong);
  padding: 0.25rem 0.7rem;
  cursor: pointer;
}
.minutes .chosen {
  border-color: var(--ink);
  font-weight: 700;
}
.minutes input {
  accent-color: var(--cool);
}
li {
  display: grid;
  grid-template-columns: 4rem minmax(0, 1fr);
  border-top: 1px solid var(--rule);
  padding: 0.35rem 0;
}
.rest {
  font-style: italic;
}
.says {
  display: block;
  color: var(--ink-soft);
}
.bpm {
  font-weight: 650;
}
</style>
