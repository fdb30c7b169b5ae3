<script setup lang="ts">
import Slider from 'primevue/slider';
import type { LadderRules, PlanPiece, TempoSchool } from '@jam-ledger/contract';
import { PRACTICE_TEMPO_RANGE, tempoLadder } from '@jam-ledger/core/pieces';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import Select from 'primevue/select';
import { useDebounceFn } from '@vueuse/core';
import { computed } from 'vue';
import { FieldRow, dayText, LineButton } from '../ui/index.ts';
import type { ExtraCut, LineState } from './planEdits.ts';
import { TempoLadder } from '../playing/index.ts';

const props = defineProps<{
  piece: PlanPiece;
  name: string;
  state: LineState;
  needs: readonly { readonly id: string; readonly name: string }[];
  waiting: readonly { readonly id: string; readonly name: string }[];
  raising: TempoSchool;
  rules: LadderRules;
  /** Days of the coming lessons. */
  lessons: readonly string[];
  /** Where the halves meet, and where they could: bars with beats, for those that are halves. */
  seam: { readonly at: number; readonly cutPoints: readonly number[]; readonly says: string } | undefined;
}>();
const emit = defineEmits<{
  tempo: [to: Pick<PlanPiece, 'startBpm' | 'targetBpm' | 'floorBpm'>];
  give: [given: boolean];
  begin: [day: string | null];
  cut: [what: ExtraCut];
  recut: [at: number];
  remove: [];
  choose: [id: string];
}>();

/** Stands for null, which a list cannot show. */
const PLANNED = 'as planned';
const lessonChoices = computed(() => [
  { id: PLANNED, label: 'as the plan has it' },
  ...props.lessons.map((day) => ({ id: day, label: dayText(day) })),
]);
const byHand = computed(() => {
  const { lesson } = props.piece;
  return lesson?.fixed && props.lessons.includes(lesson.day) ? lesson.day : PLANNED;
});

const { min, max } = PRACTICE_TEMPO_RANGE;
const given = computed(() => props.state.assignedOn !== null);
const problem = computed(() => {
  const { startBpm, targetBpm, floorBpm } = props.piece;
  if (startBpm > targetBpm) return 'The start tempo must not be above the target.';
  return floorBpm !== null && floorBpm > targetBpm ? 'The floor must not be above the target.' : undefined;
});
const rungs = computed(() => {
  const { startBpm: start, targetBpm: target } = props.piece;
  return start > target ? [] : tempoLadder({ start, target, school: props.raising, rules: props.rules }).rungs;
});
const whole = computed(() => props.piece.kind === 'phrase');

function set(name: 'startBpm' | 'targetBpm' | 'floorBpm', value: number | null): void {
  const { startBpm, targetBpm, floorBpm } = props.piece;
  if (value === null && name !== 'floorBpm') return;
  const clamped = value === null ? null : Math.min(max, Math.max(min, Math.round(value)));
  emit('tempo', { startBpm, targetBpm, floorBpm, [name]: clamped });
}
/** A hand that rests so long has found the place, milliseconds. Our choice. */
const REST_MS = 250;
/** The halves meet elsewhere, once the hand rests. */
const slide = useDebounceFn((place: number) => {
  const at = props.seam?.cutPoints[place];
  if (at !== undefined) emit('recut', at);
}, REST_MS);
</script>

<template>
  <aside class="detail" :aria-label="name">
    <h2>{{ name }}</h2>
    <p class="soft">{{ state.reason }}</p>
    <div class="buttons">
      <Button
        v-if="!given"
        size="small"
        label="Assign it"
        title="g"
        :disabled="problem !== undefined"
        @click="emit('give', true)"
      />
      <Button v-else size="small" outlined label="Undo assigning" title="g" @click="emit('give', false)" />
      <Button
        size="small"
        text
        severity="secondary"
        label="Remove from the plan"
        title="Delete"
        @click="emit('remove')"
      />
    </div>
    <FieldRow v-if="!given && lessons.length > 0" v-slot="{ labelId }" label="Begin in the lesson of">
      <Select
        :model-value="byHand"
        :options="lessonChoices"
        option-label="label"
        option-value="id"
        :aria-labelledby="labelId"
        @update:model-value="emit('begin', $event === PLANNED ? null : $event)"
      />
    </FieldRow>
    <div class="tempos">
      <FieldRow v-slot="{ id, invalid }" label="Start" :problem="problem">
        <InputNumber
          :model-value="piece.startBpm"
          :input-id="id"
          :invalid="invalid"
          :use-grouping="false"
          @update:model-value="set('startBpm', $event)"
        />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Target">
        <InputNumber
          :model-value="piece.targetBpm"
          :input-id="id"
          :use-grouping="false"
          @update:model-value="set('targetBpm', $event)"
        />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Floor">
        <InputNumber
          :model-value="piece.floorBpm"
          :input-id="id"
          :use-grouping="false"
          placeholder="none"
          @update:model-value="set('floorBpm', $event)"
        />
      </FieldRow>
    </div>
    <div v-if="seam" class="seam">
      <span>The halves meet at {{ seam.says }}</span>
      <Slider
        :max="seam.cutPoints.length - 1"
        :model-value="seam.cutPoints.indexOf(seam.at)"
        aria-label="Where the halves meet"
        @update:model-value="slide(Number($event))"
      />
    </div>
    <TempoLadder v-if="rungs.length > 0" :rungs="rungs" />
    <div v-if="whole" class="buttons" role="group" aria-label="Make of it">
      <Button size="small" outlined label="Split in two" title="h" @click="emit('cut', 'halves')" />
      <Button size="small" outlined label="Hard spot" title="d" @click="emit('cut', 'drill')" />
      <Button size="small" outlined label="Join with the next" title="j" @click="emit('cut', 'join')" />
      <Button size="small" outlined label="From the top to here" title="t" @click="emit('cut', 'top')" />
    </div>
    <template
      v-for="[title, list] in [
        ['Needs', needs],
        ['Waits for it', waiting],
      ] as const"
      :key="title"
    >
      <h3 v-if="list.length > 0">{{ title }}</h3>
      <ul class="quiet-list">
        <li v-for="one in list" :key="one.id">
          <LineButton class="to" @click="emit('choose', one.id)">{{ one.name }}</LineButton>
        </li>
      </ul>
    </template>
  </aside>
</template>

<style scoped>
.detail {
  border-left: 2px solid var(--warm);
  padding-left: 1rem;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.5rem;
  position: sticky;
  top: 1rem;
  align-self: start;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}
.tempos {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0.5rem;
}
.tempos :deep(input),
.seam {
  width: 100%;
}
.to {
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
