<script setup lang="ts">
import type { PromisedWeek } from '@jam-ledger/core/desk';
import { dayText } from '../ui/index.ts';

defineProps<{ weeks: readonly PromisedWeek[]; workMinutes: number }>();
const share = ({ minutes, room }: PromisedWeek) => (room === 0 ? (minutes > 0 ? 1 : 0) : Math.min(1, minutes / room));
const hours = (minutes: number) => `${Math.round(minutes / 6) / 10} h`;
</script>

<template>
  <section class="weeks" aria-label="Load of the coming weeks">
    <h2>The coming weeks</h2>
    <p class="soft">{{ hours(workMinutes) }} a week for transcribing; the owner sets that under Studio.</p>
    <ol class="quiet-list">
      <li v-for="week in weeks" :key="week.from" :class="{ over: week.over.length > 0 }">
        <span>from {{ dayText(week.from, 'short') }}</span>
        <span class="track" aria-hidden="true"><span :style="{ width: `${share(week) * 100}%` }"></span></span>
        <span>{{ hours(week.minutes) }} of {{ hours(week.room) }}</span>
        <span v-if="week.over.length > 0" class="move">too full: move {{ week.over.join(', ') }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 7rem 8rem 7rem minmax(0, 1fr);
  gap: 0.8rem;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 0.25rem 0;
}
.weeks {
  margin: 0.5rem 0 1.2rem;
  max-width: 60rem;
}
h2 {
  font-size: 1.05rem;
}
.track {
  height: 0.6rem;
  border: 1px solid var(--rule-strong);
}
.track span {
  display: block;
  height: 100%;
  background: var(--cool);
}
.over .track span {
  background: var(--warm);
}
.move {
  color: var(--warm);
  font-weight: 600;
}
@media (max-width: 720px) {
  li {
    grid-template-columns: 5.2rem minmax(0, 1fr) 6.2rem;
  }
  .move {
    grid-column: 1 / -1;
  }
}
</style>
