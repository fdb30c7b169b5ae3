<script setup lang="ts">
import { SONG_LIMITS, type SongBeginning, type Student } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { FieldRow, useForm, vFirstField } from '../ui/index.ts';

const props = defineProps<{ students: readonly Student[]; begin: (body: SongBeginning) => Promise<void> }>();
const emit = defineEmits<{ done: [] }>();
const only = props.students.length === 1 ? props.students[0] : undefined;
const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'songBeginningSchema',
  {
    studentId: only?.id ?? '',
    title: '',
    whose: '',
  },
  undefined,
  'song',
);

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  if (await send(props.begin)) done();
}
</script>

<template>
  <form v-first-field class="begin" novalidate aria-label="A new song" @submit.prevent="submit">
    <FieldRow v-slot="{ labelId, invalid }" label="For" :problem="problems['studentId'] && 'Choose a student.'">
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
    <FieldRow v-slot="{ id, invalid }" label="Song" :problem="problems['title'] ?? (trouble || undefined)">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" autofocus :maxlength="SONG_LIMITS.title" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Artist" :problem="problems['whose']">
      <InputText :id="id" v-model="fields.whose" :invalid="invalid" :maxlength="SONG_LIMITS.whose" />
    </FieldRow>
    <p>
      <Button type="submit" label="Begin the song" :disabled="busy" />
      <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
    </p>
  </form>
</template>

<style scoped>
.begin {
  display: grid;
  gap: 0.8rem;
  max-width: 28rem;
  margin: 0.8rem 0 1.2rem;
}
p {
  margin: 0;
}
</style>
