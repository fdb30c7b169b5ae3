<script setup lang="ts">
import type { SeriesBody, Student } from '@jam-ledger/contract';
import { checkRule, lessonDates, MAX_LESSONS, type Holiday } from '@jam-ledger/core/series';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed } from 'vue';
import { FieldRow, dayText, useForm, vFirstField, TickBox, DayField, TimeField } from '../ui/index.ts';

const props = defineProps<{
  first: SeriesBody;
  students: readonly Student[];
  zone: string;
  holidays: readonly Holiday[];
  /** Whether it is a series that is there already, whose student stays. */
  isKept: boolean;
  save: (body: SeriesBody) => Promise<void>;
}>();
const emit = defineEmits<{ done: [] }>();

const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'seriesSchema',
  props.first,
  undefined,
  props.isKept ? undefined : 'series',
);
const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

const changes = computed(() => ({ ...fields.changes, holidays: props.holidays }));
/** What is wrong with the rule as it stands, by field, while it is filled in. */
const ruleProblems = computed(
  () => new Map(checkRule(fields.rule, changes.value, props.zone).map(({ field, message }) => [field, message])),
);
const lessons = computed(() =>
  ruleProblems.value.size > 0 ? [] : lessonDates(fields.rule, changes.value, props.zone),
);
const problemOf = (field: 'firstDay' | 'time' | 'minutes' | 'everyWeeks' | 'count' | 'until') =>
  problems.value[`rule.${field}`] ?? ruleProblems.value.get(field);

function change(to: Partial<SeriesBody['rule']>): void {
  fields.rule = { ...fields.rule, ...to };
}
function toggle(day: number): void {
  const { weekdays } = fields.rule;
  change({ weekdays: weekdays.includes(day) ? weekdays.filter((one) => one !== day) : [...weekdays, day].sort() });
}

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  if (await send(props.save)) done();
}
</script>

<template>
  <form v-first-field class="series" novalidate aria-label="Series of lessons" @submit.prevent="submit">
    <FieldRow v-slot="{ labelId }" label="Student" :problem="problems['studentId']">
      <Select
        v-model="fields.studentId"
        :options="[...students]"
        option-label="name"
        option-value="id"
        :disabled="isKept"
        :aria-labelledby="labelId"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Title" :problem="problems['title']">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="First lesson" :problem="problemOf('firstDay')">
      <DayField :id="id" :model-value="fields.rule.firstDay" @update:model-value="change({ firstDay: $event })" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="At" :hint="zone" :problem="problemOf('time')">
      <TimeField :id="id" :model-value="fields.rule.time" @update:model-value="change({ time: $event })" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Minutes" :problem="problemOf('minutes')">
      <InputNumber
        :model-value="fields.rule.minutes"
        :input-id="id"
        @update:model-value="change({ minutes: $event ?? 0 })"
      />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Every so many weeks" :problem="problemOf('everyWeeks')">
      <InputNumber
        :model-value="fields.rule.everyWeeks"
        :input-id="id"
        @update:model-value="change({ everyWeeks: $event ?? 0 })"
      />
    </FieldRow>
    <fieldset class="days">
      <legend>On <span class="soft">(none: the weekday of the first lesson)</span></legend>
      <TickBox
        v-for="(name, index) in WEEKDAYS"
        :key="name"
        :model-value="fields.rule.weekdays.includes(index + 1)"
        @update:model-value="toggle(index + 1)"
        >{{ name }}</TickBox
      >
    </fieldset>
    <FieldRow v-slot="{ id }" label="Lessons" :hint="`at most ${MAX_LESSONS}`" :problem="problemOf('count')">
      <InputNumber
        :model-value="fields.rule.count"
        :input-id="id"
        :use-grouping="false"
        @update:model-value="change({ count: $event })"
      />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Or until" :problem="problemOf('until')">
      <DayField
        :id="id"
        :model-value="fields.rule.until ?? ''"
        @update:model-value="change({ until: $event === '' ? null : $event })"
      />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Goal" hint="a recital, by summer …" :problem="problems['goal']">
      <InputText :id="id" v-model="fields.goal" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Goal day" :problem="problems['goalDay']">
      <DayField
        :id="id"
        :model-value="fields.goalDay ?? ''"
        @update:model-value="fields.goalDay = $event === '' ? null : $event"
      />
    </FieldRow>
    <p class="wide soft" role="status">
      <template v-if="lessons.length > 0"
        >{{ lessons.length === 1 ? 'One lesson' : `${lessons.length} lessons` }}, the last on
        {{ dayText(lessons.at(-1)?.day ?? '') }}.</template
      >
      <template v-else>The lessons are counted here once the rule makes some.</template>
    </p>
    <p v-if="trouble" class="wide trouble" role="alert">{{ trouble }}</p>
    <div class="wide buttons">
      <Button type="submit" label="Save" :disabled="busy" />
      <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
    </div>
  </form>
</template>

<style scoped>
.series {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 0.7rem 1.2rem;
  align-items: start;
  max-width: 60rem;
}
.wide,
.days {
  grid-column: 1 / -1;
}
.days {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 1rem;
}
.days input {
  accent-color: var(--cool);
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
}
input[type='date'],
input[type='time'] {
  font: inherit;
  color: var(--ink);
  background: var(--page);
  border: 1px solid var(--rule-strong);
  padding: 0.4rem 0.6rem;
}
.buttons {
  display: flex;
  gap: 0.5rem;
}
.trouble {
  color: var(--warm);
}
</style>
