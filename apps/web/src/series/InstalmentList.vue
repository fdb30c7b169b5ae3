<script setup lang="ts">
import Checkbox from 'primevue/checkbox';
import { SERIES_LIMITS, type Instalment, type LessonDate, type SongRequest } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, ref } from 'vue';
import { dayText } from '../ui/index.ts';

const props = defineProps<{
  instalments: readonly Instalment[];
  /** What the student asked for. */
  requests: readonly SongRequest[];
  lessons: readonly LessonDate[];
}>();
const emit = defineEmits<{ change: [list: readonly Instalment[], words: string] }>();

const part = ref('');
const requestId = ref<string | null>(null);
const titleOf = (id: string) => props.requests.find((request) => request.id === id)?.title ?? 'a song';
const nameOf = (one: Instalment) =>
  one.part === '' ? titleOf(one.requestId) : `${one.part}, ${titleOf(one.requestId)}`;
/** Stands for null, which a list cannot show. */
const OPEN = 'open';
const days = computed(() => [
  { id: OPEN, label: 'no lesson yet' },
  ...props.lessons.map(({ day }) => ({ id: day, label: dayText(day, 'short') })),
]);
const choicesFor = ({ day }: Instalment) =>
  day === null || props.lessons.some((lesson) => lesson.day === day)
    ? days.value
    : [...days.value, { id: day, label: `${dayText(day, 'short')}, over` }];

function put(index: number, to: Partial<Instalment>, words: string): void {
  emit(
    'change',
    props.instalments.map((one, at) => (at === index ? { ...one, ...to } : one)),
    words,
  );
}
/** The parts of a request, one lesson after the other from the next one on. */
function add(): void {
  const request = props.requests.find(({ id }) => id === requestId.value);
  if (!request) return;
  const parts = part.value.trim() === '' ? request.wanted : [part.value.trim()];
  const taken = new Set(props.instalments.map(({ day }) => day));
  const free = props.lessons.filter(({ day }) => !taken.has(day));
  const made = parts.map((name, index) => ({
    requestId: request.id,
    part: name.slice(0, SERIES_LIMITS.part),
    day: free[index]?.day ?? null,
    delivered: false,
  }));
  emit('change', [...props.instalments, ...made], `“${request.title}” is handed out lesson by lesson.`);
  part.value = '';
}
function remove(index: number): void {
  const one = props.instalments[index];
  if (one)
    emit(
      'change',
      props.instalments.filter((_, at) => at !== index),
      `“${nameOf(one)}” is out.`,
    );
}
</script>

<template>
  <section class="instalments" aria-label="Handed out in parts">
    <h3>Handed out in parts</h3>
    <p v-if="instalments.length === 0" class="soft">
      A song, or its parts, can be handed out lesson by lesson; the hours on the desk take it into account.
    </p>
    <ol class="quiet-list">
      <li v-for="(one, index) in instalments" :key="index" :class="{ done: one.delivered }">
        <label
          ><Checkbox
            binary
            :model-value="one.delivered"
            @update:model-value="
              put(
                index,
                { delivered: !one.delivered },
                one.delivered ? `“${nameOf(one)}” is still to come.` : `“${nameOf(one)}” is handed out.`,
              )
            "
          />
          {{ nameOf(one) }}</label
        >
        <Select
          :model-value="one.day ?? OPEN"
          :options="choicesFor(one)"
          option-label="label"
          option-value="id"
          :aria-label="`Lesson for ${nameOf(one)}`"
          @update:model-value="put(index, { day: $event === OPEN ? null : $event }, 'The lesson is chosen.')"
        />
        <Button
          size="small"
          text
          severity="secondary"
          label="Remove"
          :aria-label="`Remove ${nameOf(one)}`"
          @click="remove(index)"
        />
      </li>
    </ol>
    <form v-if="requests.length > 0" class="row screen-only" @submit.prevent="add">
      <Select
        v-model="requestId"
        :options="[...requests]"
        option-label="title"
        option-value="id"
        placeholder="a request"
        aria-label="Request to hand out"
      />
      <InputText
        v-model="part"
        aria-label="Part"
        placeholder="a part; all of them if empty"
        :maxlength="SERIES_LIMITS.part"
      />
      <Button type="submit" size="small" outlined label="Add to a lesson" :disabled="requestId === null" />
    </form>
  </section>
</template>

<style scoped>
.instalments {
  margin-top: 1.2rem;
  max-width: 46rem;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0.6rem;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  padding: 0.15rem 0;
}
.done label {
  text-decoration: line-through;
  color: var(--ink-soft);
}
input[type='checkbox'] {
  accent-color: var(--cool);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.5rem;
}
.row input {
  min-width: 15rem;
}
</style>
