<script setup lang="ts">
import {
  GUITARS_MEANT,
  RENDITIONS,
  REQUEST_LIMITS,
  USUAL_RENDITION,
  type FidelitySchool,
  type RequestBody,
  type Student,
} from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import Textarea from 'primevue/textarea';
import { watchDebounced } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { FieldRow, dayText, useForm, DayField } from '../ui/index.ts';
import PartsChoice from './PartsChoice.vue';

const props = defineProps<{
  today: string;
  /** How close the student is taught to keep to the record. */
  fidelity: FidelitySchool;
  /** The song whose next part is asked for. */
  more: { readonly id: string; readonly title: string; readonly whose: string; readonly guitar: string } | undefined;
  /** Whom a teacher writes it down for; left out where a student asks. */
  students?: readonly Student[];
  ask: (body: RequestBody) => Promise<void>;
  /** The earliest honest day for so many parts. */
  earliest: (parts: number, blended: boolean) => Promise<string | null>;
}>();
const emit = defineEmits<{ done: [] }>();

const choice = useTemplateRef('choice');
const first: RequestBody = {
  // Nobody is chosen for the teacher: a request must not land on the wrong student.
  ...(props.students && { studentId: '' }),
  title: props.more?.title ?? '',
  whose: props.more?.whose ?? '',
  wanted: [],
  notWanted: [],
  rendition: USUAL_RENDITION[props.fidelity],
  guitarMeant: 'the only guitar',
  guitar: props.more?.guitar ?? '',
  wantedBy: null,
  remarks: '',
  followsId: props.more?.id ?? null,
};
const { fields, problems, trouble, busy, send, fill, giveUp, isBegun } = useForm(
  'requestSchema',
  first,
  () => ({ today: props.today }),
  `request ${props.more?.id ?? ''}`,
);

function cancel(): void {
  giveUp();
  emit('done');
}

/** The earliest day for what is typed so far; undefined while it is asked. */
const soonest = ref<string | null>();
watchDebounced(
  () => [fields.wanted.length, fields.guitarMeant === 'blended into one'] as const,
  async ([parts, blended]) => {
    soonest.value = undefined;
    if (parts === 0) return;
    // Without an answer nothing is said; the slip can be handed in all the same.
    soonest.value = await props.earliest(parts, blended).catch(() => undefined);
  },
  { debounce: 300, immediate: true },
);
const isTooSoon = computed(
  () => typeof soonest.value === 'string' && fields.wantedBy !== null && fields.wantedBy < soonest.value,
);

async function submit(): Promise<void> {
  choice.value?.addOwn();
  if (!(await send(props.ask))) return;
  fill({ ...first, title: '', whose: '', followsId: null, guitar: fields.guitar });
  emit('done');
}
</script>

<template>
  <form class="slip" novalidate @submit.prevent="submit">
    <h2>{{ students ? 'Add a request' : more ? 'Ask for more of it' : 'Ask for a song' }}</h2>
    <FieldRow
      v-if="students"
      v-slot="{ labelId, invalid }"
      label="Asked by"
      :problem="problems['studentId'] && 'Say who asked for it.'"
    >
      <Select
        v-model="fields.studentId"
        :aria-labelledby="labelId"
        :options="[...students]"
        option-label="name"
        option-value="id"
        :invalid="invalid"
        placeholder="a student"
        filter
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Song" :problem="problems['title']">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" :maxlength="REQUEST_LIMITS.title" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Artist" hint="who plays it" :problem="problems['whose']">
      <InputText :id="id" v-model="fields.whose" :invalid="invalid" :maxlength="REQUEST_LIMITS.whose" />
    </FieldRow>
    <PartsChoice
      ref="choice"
      v-model:wanted="fields.wanted"
      v-model:not-wanted="fields.notWanted"
      :wanted-problem="problems['wanted'] ?? problems['wanted.0']"
      :not-wanted-problem="problems['notWanted']"
    />
    <FieldRow v-slot="{ labelId, invalid }" label="Version" :problem="problems['rendition']">
      <Select v-model="fields.rendition" :aria-labelledby="labelId" :options="[...RENDITIONS]" :invalid="invalid" />
    </FieldRow>
    <FieldRow v-slot="{ labelId, invalid }" label="Guitar meant" :problem="problems['guitarMeant']">
      <Select
        v-model="fields.guitarMeant"
        :aria-labelledby="labelId"
        :options="[...GUITARS_MEANT]"
        :invalid="invalid"
      />
    </FieldRow>
    <FieldRow
      v-slot="{ id, invalid }"
      :label="students ? 'Their guitar' : 'Your guitar'"
      hint="frets, tremolo arm"
      :problem="problems['guitar']"
    >
      <InputText :id="id" v-model="fields.guitar" :invalid="invalid" :maxlength="REQUEST_LIMITS.guitar" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Wanted by" hint="may stay open" :problem="problems['wantedBy']">
      <DayField
        :id="id"
        :model-value="fields.wantedBy ?? ''"
        :invalid="invalid"
        @update:model-value="fields.wantedBy = $event || null"
      />
      <p v-if="soonest" :class="isTooSoon ? 'trouble' : 'soft'" role="status">
        {{
          isTooSoon
            ? `With the work already on the desk it will be ready by ${dayText(soonest)}; send it anyway, and talk it over.`
            : `Asked for today, it can be promised for ${dayText(soonest)}.`
        }}
      </p>
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Remarks" :problem="problems['remarks']">
      <Textarea :id="id" v-model="fields.remarks" rows="2" :invalid="invalid" :maxlength="REQUEST_LIMITS.remarks" />
    </FieldRow>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <Button
      type="submit"
      :label="students ? 'Save the request' : busy ? 'Sending…' : 'Send the request'"
      :disabled="busy"
    />
    <Button v-if="more || students" type="button" text severity="secondary" label="Cancel" @click="cancel" />
    <Button
      v-else-if="isBegun"
      type="button"
      text
      severity="secondary"
      label="Start over"
      @click="fill({ ...first })"
    />
  </form>
</template>

<style scoped>
.slip {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  background: var(--page);
  border: 1px solid var(--rule-strong);
  border-top: 6px double var(--rule-strong);
  padding: 1.1rem 1.2rem;
}
.trouble {
  color: var(--warm);
}
</style>
