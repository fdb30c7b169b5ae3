<script setup lang="ts">
import { REQUEST_LIMITS, requestSchema, type RequestBody } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { useForm } from '../composables/useForm.ts';
import FieldRow from './FieldRow.vue';

const props = defineProps<{ today: string; ask: (body: RequestBody) => Promise<void> }>();

const EMPTY: RequestBody = { title: '', whose: '', partsWanted: '', partsNotWanted: '', wantedBy: null, remarks: '' };
const { fields, problems, trouble, busy, send, fill } = useForm(requestSchema, EMPTY, () => ({ today: props.today }));

async function submit(): Promise<void> {
  if (await send(props.ask)) fill(EMPTY);
}
</script>

<template>
  <form class="slip" novalidate @submit.prevent="submit">
    <h2>Ask for a song</h2>
    <FieldRow v-slot="{ id, invalid }" label="Song" :problem="problems['title']">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" :maxlength="REQUEST_LIMITS.title" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Whose it is" hint="who plays it" :problem="problems['whose']">
      <InputText :id="id" v-model="fields.whose" :invalid="invalid" :maxlength="REQUEST_LIMITS.whose" />
    </FieldRow>
    <FieldRow
      v-slot="{ id, invalid }"
      label="Parts wanted"
      hint="riff, solo, that lick at 1:09 …"
      :problem="problems['partsWanted']"
    >
      <InputText :id="id" v-model="fields.partsWanted" :invalid="invalid" :maxlength="REQUEST_LIMITS.parts" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Parts not wanted" :problem="problems['partsNotWanted']">
      <InputText :id="id" v-model="fields.partsNotWanted" :invalid="invalid" :maxlength="REQUEST_LIMITS.parts" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Wanted by" hint="may stay open" :problem="problems['wantedBy']">
      <InputText
        :id="id"
        type="date"
        :min="today"
        :model-value="fields.wantedBy ?? ''"
        :invalid="invalid"
        @update:model-value="fields.wantedBy = $event || null"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Remarks" :problem="problems['remarks']">
      <Textarea :id="id" v-model="fields.remarks" rows="2" :invalid="invalid" :maxlength="REQUEST_LIMITS.remarks" />
    </FieldRow>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <Button type="submit" :label="busy ? 'Handing it in…' : 'Hand it in'" :disabled="busy" />
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
