<script setup lang="ts">
import { SECTION_ROLES, sectionSchema, SONG_LIMITS, type SectionBody } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { ref } from 'vue';
import { clockText, readClock } from '../composables/useDays.ts';
import { useForm } from '../composables/useForm.ts';
import FieldRow from './FieldRow.vue';

const props = defineProps<{ first: SectionBody; save: (body: SectionBody) => Promise<void>; word: string }>();
const emit = defineEmits<{ done: [] }>();

const { label, role, startSeconds, bars } = props.first;
const { fields, problems, trouble, busy, send } = useForm(sectionSchema, { label, role, startSeconds, bars });
const clock = ref(clockText(startSeconds));
const clockProblem = ref<string>();

async function submit(): Promise<void> {
  const seconds = readClock(clock.value);
  clockProblem.value = seconds === undefined ? 'Write a time such as 1:09.' : undefined;
  if (seconds === undefined) return;
  fields.startSeconds = seconds;
  if (await send(props.save)) emit('done');
}
</script>

<template>
  <form class="section-form" novalidate aria-label="Section" @submit.prevent="submit">
    <FieldRow v-slot="{ id, invalid }" label="Label" :problem="problems['label']">
      <InputText :id="id" v-model="fields.label" :invalid="invalid" :maxlength="SONG_LIMITS.label" autofocus />
    </FieldRow>
    <FieldRow v-slot="{ labelId, invalid }" label="Role" :problem="problems['role']">
      <Select v-model="fields.role" :aria-labelledby="labelId" :options="[...SECTION_ROLES]" :invalid="invalid" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Starts at" :problem="clockProblem ?? problems['startSeconds']">
      <InputText :id="id" v-model="clock" :invalid="clockProblem !== undefined" maxlength="9" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Bars" :problem="problems['bars']">
      <InputNumber
        v-model="fields.bars"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.bars.most"
        :use-grouping="false"
      />
    </FieldRow>
    <div class="foot">
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <Button type="submit" size="small" :label="busy ? 'Keeping…' : word" :disabled="busy" />
      <Button size="small" severity="secondary" text label="Leave it" @click="emit('done')" />
    </div>
  </form>
</template>

<style scoped>
.section-form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.5rem;
  padding: 0.5rem 0;
}
.section-form :deep(input),
.section-form :deep(.p-select) {
  width: 100%;
}
.foot {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.trouble {
  color: var(--warm);
  width: 100%;
}
</style>
