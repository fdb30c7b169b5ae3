<script setup lang="ts">
import type { Lesson, LessonDate, Series } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed, ref } from 'vue';
import { dayText, DayField, TimeField } from '../ui/index.ts';

const props = defineProps<{
  series: Series;
  today: string;
  /** Coming lessons of other series. */
  others: readonly Lesson[];
}>();
const emit = defineEmits<{
  skip: [lesson: LessonDate];
  restore: [day: string];
  move: [lesson: LessonDate, to: { readonly day: string; readonly time: string }];
  add: [to: { readonly day: string; readonly time: string }];
  swap: [lesson: LessonDate, other: Lesson];
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
/** The lesson that is to change places with another. */
const swapping = ref<LessonDate>();
const choices = computed(() =>
  props.others.map(({ day: on, time: at, student }, index) => ({
    id: index,
    label: `${dayText(on)}, ${at} · ${student.name}`,
  })),
);
function swapWith(index: number): void {
  const other = props.others[index];
  if (swapping.value && other) emit('swap', swapping.value, other);
  swapping.value = undefined;
}
/** Lessons and the days on which the studio is closed, in the order of the calendar. */
const rows = computed(() =>
  [
    ...props.series.lessons.map((lesson, index) => ({ day: lesson.day, lesson, number: index + 1, closed: '' })),
    ...props.series.closed.map(({ day, name }) => ({ day, lesson: undefined, number: 0, closed: name })),
  ].sort((a, b) => a.day.localeCompare(b.day)),
);
const WHY = { rule: '', moved: 'moved', extra: 'besides the rule' } as const;
</script>

<template>
  <ol class="quiet-list">
    <li
      v-for="{ day: on, lesson, number, closed } in rows"
      :key="lesson?.startsAt ?? on"
      :class="{ past: on < today, closed: !lesson }"
    >
      <span class="number">{{ lesson ? number : '' }}</span>
      <span
        >{{ dayText(on) }}<template v-if="lesson">, {{ lesson.time }}</template></span
      >
      <span class="soft">{{ lesson ? WHY[lesson.why] : `closed: ${closed}` }}</span>
      <span v-if="lesson && on >= today" class="buttons">
        <Button size="small" text label="Move" @click="begin(lesson, lesson)" />
        <Button v-if="others.length > 0" size="small" text label="Swap" @click="swapping = lesson" />
        <Button size="small" text severity="secondary" label="Cancel this lesson" @click="emit('skip', lesson)" />
      </span>
    </li>
  </ol>
  <p v-if="series.changes.skips.length > 0" class="soft">
    Left out:
    <template v-for="skipped in series.changes.skips" :key="skipped">
      {{ dayText(skipped) }}<Button size="small" text label="put back" @click="emit('restore', skipped)" />
    </template>
  </p>
  <div v-if="swapping" class="move" role="group" aria-label="Swap">
    <span>{{ dayText(swapping.day) }}, {{ swapping.time }} changes places with</span>
    <Select
      :model-value="null"
      :options="choices"
      option-label="label"
      option-value="id"
      placeholder="another lesson"
      aria-label="The other lesson"
      @update:model-value="swapWith"
    />
    <Button size="small" text severity="secondary" label="Cancel" @click="swapping = undefined" />
  </div>
  <form v-if="editing" class="move" @submit.prevent="keep">
    <label>Day <DayField v-model="day" label="Day" /></label>
    <label>At <TimeField v-model="time" label="At" /></label>
    <Button
      type="submit"
      size="small"
      :label="editing === 'new' ? 'Add it' : 'Move it'"
      :disabled="day === '' || time === ''"
    />
    <Button type="button" size="small" text severity="secondary" label="Cancel" @click="editing = undefined" />
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
ol {
  container-type: inline-size;
}
li {
  display: grid;
  grid-template-columns: 2rem minmax(12rem, auto) minmax(8rem, auto) 1fr;
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
  white-space: nowrap;
}
@container (max-width: 40rem) {
  li {
    grid-template-columns: 1.3rem 1fr;
    row-gap: 0;
  }
  li > * {
    grid-column: 2;
  }
  li > .number {
    grid-column: 1;
  }
  li > :empty {
    display: none;
  }
  .buttons {
    justify-self: start;
    white-space: normal;
  }
}
.closed {
  font-style: italic;
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
