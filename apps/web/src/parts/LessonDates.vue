<script setup lang="ts">
import type { LessonDate, Series } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { ref } from 'vue';
import { dayText } from '../composables/useDays.ts';

defineProps<{ series: Series; today: string }>();
const emit = defineEmits<{
  skip: [lesson: LessonDate];
  restore: [day: string];
  move: [lesson: LessonDate, to: { readonly day: string; readonly time: string }];
  add: [to: { readonly day: string; readonly time: string }];
}>();

/** The lesson that is being moved, or a new one. */
const editing = ref<LessonDate | 'new'>();
const day = ref('');
const time = ref('');

function begin(lesson: LessonDate | 'new', from: { readonly day: string; readonly time: string }): void {
  editing.value = lesson;
  ({ day: day.value, time: time.value } = from);
}
function keep(): void {
  const to = { day: day.value, time: time.value };
  if (to.day === '' || to.time === '') return;
  if (editing.value === 'new') emit('add', to);
  else if (editing.value) emit('move', editing.value, to);
  editing.value = undefined;
}
const WHY = { rule: '', moved: 'moved', extra: 'besides the rule' } as const;
</script>

<template>
  <ol class="quiet-list">
    <li v-for="(lesson, index) in series.lessons" :key="lesson.startsAt" :class="{ past: lesson.day < today }">
      <span class="number">{{ index + 1 }}</span>
      <span>{{ dayText(lesson.day) }}, {{ lesson.time }}</span>
      <span class="soft">{{ WHY[lesson.why] }}</span>
      <span v-if="lesson.day >= today" class="buttons">
        <Button size="small" text label="Move" @click="begin(lesson, lesson)" />
        <Button size="small" text severity="secondary" label="Leave out" @click="emit('skip', lesson)" />
      </span>
    </li>
  </ol>
  <p v-if="series.changes.skips.length > 0" class="soft">
    Left out:
    <template v-for="skipped in series.changes.skips" :key="skipped">
      {{ dayText(skipped) }}<Button size="small" text label="put back" @click="emit('restore', skipped)" />
    </template>
  </p>
  <form v-if="editing" class="move" @submit.prevent="keep">
    <label>Day <input v-model="day" type="date" /></label>
    <label>At <input v-model="time" type="time" /></label>
    <Button
      type="submit"
      size="small"
      :label="editing === 'new' ? 'Add it' : 'Move it'"
      :disabled="day === '' || time === ''"
    />
    <Button type="button" size="small" text severity="secondary" label="Leave it" @click="editing = undefined" />
  </form>
  <Button
    v-else
    size="small"
    outlined
    label="A lesson besides the rule"
    @click="begin('new', { day: today, time: series.rule.time })"
  />
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 2rem minmax(12rem, auto) 8rem 1fr;
  align-items: center;
  gap: 0.5rem;
  border-bottom: 1px solid var(--rule);
  min-height: 2.3rem;
  max-width: 46rem;
}
.number {
  color: var(--ink-soft);
  text-align: right;
}
.past {
  color: var(--ink-soft);
}
.buttons {
  justify-self: end;
}
.move {
  display: flex;
  flex-wrap: wrap;
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.6rem;
}
.move input {
  font: inherit;
  color: var(--ink);
  background: var(--page);
  border: 1px solid var(--rule-strong);
  padding: 0.2rem 0.4rem;
}
</style>
