<script setup lang="ts">
import type { LessonLoad } from './planLessons.ts';
import { dayText } from '../ui/index.ts';

defineProps<{
  loads: readonly LessonLoad[] | undefined;
  lessons: number;
  /** Names of the pieces that find no lesson. */
  left: readonly string[];
}>();
const share = ({ minutes, room }: LessonLoad) => Math.min(1, minutes / Math.max(1, room));
</script>

<template>
  <section class="loads" aria-label="Load of the coming lessons">
    <p v-if="lessons === 0" class="soft">
      No lessons are coming up; begin a series to spread the pieces over its lessons.
    </p>
    <p v-else-if="!loads" class="late">A lesson chosen by hand comes before what its piece needs; choose another.</p>
    <p v-if="left.length > 0" class="late">
      {{ lessons === 1 ? 'One lesson is' : `${lessons} lessons are` }} too few, since each piece is begun a lesson after
      what it needs; no lesson is left for {{ left.join(', ') }}.
    </p>
    <ol v-if="lessons > 0 && loads" class="quiet-list">
      <li v-for="load in loads" :key="load.lesson.startsAt" :class="{ over: load.minutes > load.room }">
        <span class="day">{{ dayText(load.lesson.day, 'short') }}</span>
        <span class="track" aria-hidden="true"><span :style="{ height: `${share(load) * 100}%` }"></span></span>
        <span class="minutes">{{ load.minutes }} min</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
ol {
  display: flex;
  gap: 0.6rem;
  overflow-x: auto;
}
li {
  display: flex;
  flex-direction: column;
  align-items: center;
  font-size: 0.85rem;
  min-width: 3.2rem;
}
.track {
  width: 1.6rem;
  height: 1.9rem;
  border: 1px solid var(--rule-strong);
  display: flex;
  align-items: flex-end;
  background: var(--page);
}
.track span {
  width: 100%;
  background: var(--cool);
}
.over .track span {
  background: var(--warm);
}
.over .minutes,
.late {
  color: var(--warm);
  font-weight: 600;
}
.loads {
  margin: 0.4rem 0 0.6rem;
}
</style>
