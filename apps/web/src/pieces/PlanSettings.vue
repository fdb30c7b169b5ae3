<script setup lang="ts">
import { PLAN_LIMITS, SCHOOL_WORDS, type PlanBody, type Schools } from '@jam-ledger/contract';
import InputNumber from 'primevue/inputnumber';
import { SCHOOL_QUESTIONS, SCHOOL_SAYS, SchoolChoice } from '../schools/index.ts';
import { FieldRow } from '../ui/index.ts';

const props = defineProps<{ plan: PlanBody; schools: Schools }>();
const emit = defineEmits<{ change: [to: Partial<PlanBody>] }>();

const explains = (name: 'learning' | 'raising') => SCHOOL_QUESTIONS.find((one) => one.name === name)?.explains ?? '';
const { min, max } = PLAN_LIMITS.targetPercent;
const RULES = [
  { name: 'cleanNeeded', label: 'Clean takes to go up', min: 1, max: 6 },
  { name: 'fallsAfter', label: 'Misses to come down', min: 1, max: 6 },
  { name: 'restMinutes', label: 'Rest after, minutes', min: 3, max: 15 },
] as const;

function learn(word: string | null): void {
  emit('change', { learning: SCHOOL_WORDS.learning.find((one) => one === word) ?? null });
}
function raise(word: string | null): void {
  emit('change', { raising: SCHOOL_WORDS.raising.find((one) => one === word) ?? null });
}
function rule(name: (typeof RULES)[number]['name'], value: number | null): void {
  if (value !== null) emit('change', { rules: { ...props.plan.rules, [name]: value } });
}
function target(value: number | null): void {
  if (value !== null) emit('change', { targetPercent: value });
}
</script>

<template>
  <div class="settings">
    <SchoolChoice
      :model-value="plan.learning"
      label="Learning order"
      :words="SCHOOL_WORDS.learning"
      :studio="schools.learning"
      :explains="explains('learning')"
      :says="SCHOOL_SAYS.learning"
      @update:model-value="learn"
    />
    <SchoolChoice
      :model-value="plan.raising"
      label="Raising tempo"
      :words="SCHOOL_WORDS.raising"
      :studio="schools.raising"
      :explains="explains('raising')"
      :says="SCHOOL_SAYS.raising"
      @update:model-value="raise"
    />
    <FieldRow v-slot="{ id }" label="Targets" hint="% of the song’s tempo">
      <InputNumber
        :model-value="plan.targetPercent"
        :input-id="id"
        :min="min"
        :max="max"
        @update:model-value="target"
      />
    </FieldRow>
    <FieldRow v-for="{ name, label, min: low, max: high } in RULES" :key="name" v-slot="{ id }" :label="label">
      <InputNumber
        :model-value="plan.rules[name]"
        :input-id="id"
        :min="low"
        :max="high"
        @update:model-value="rule(name, $event)"
      />
    </FieldRow>
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  grid-template-columns: 15rem 15rem repeat(4, 8.5rem);
  gap: 0.6rem 1rem;
  align-items: start;
}
.settings :deep(.p-inputnumber-input) {
  width: 5rem;
}
@media (max-width: 1100px) {
  .settings {
    grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  }
}
</style>
