<script setup lang="ts">
import { PEOPLE_LIMITS, type Person } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import MultiSelect from 'primevue/multiselect';
import Select from 'primevue/select';
import { computed } from 'vue';
import { CorrectionsButton } from '../struck/index.ts';
import { FieldRow, useForm } from '../ui/index.ts';
import { everythingOf, type PersonCorrection } from './people.ts';

const props = defineProps<{
  person: Person;
  students: readonly Person[];
  teachers: readonly Person[];
  /** Whether whoever looks says who teaches whom, and whose guardian this is. */
  mayHandOn: boolean;
  save: (to: PersonCorrection) => Promise<void>;
}>();
const emit = defineEmits<{ done: [] }>();

const { person } = props;
const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'personChangeSchema',
  {
    ...{ version: person.version, name: person.name, archived: person.archived },
    ...{ wards: person.wards.map(({ id }) => id), teacherId: person.teacher?.id ?? null, email: person.email },
  },
  undefined,
  `person ${person.id} ${person.version}`,
);
const teachers = computed(() => [{ id: null, name: 'nobody yet' }, ...props.teachers]);
const email = computed({
  get: () => fields.email ?? '',
  set: (text) => (fields.email = text.trim() === '' ? null : text.trim()),
});

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  fields.name = fields.name.trim();
  const saved = await send(({ name, email: address = null, teacherId, wards }) =>
    props.save({ name, email: address, teacherId, wards }),
  );
  if (saved) done();
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`Edit ${person.name}`"
    :style="{ width: '30rem' }"
    :breakpoints="{ '640px': '96vw' }"
    @update:visible="done()"
  >
    <form novalidate @submit.prevent="submit">
      <FieldRow v-slot="{ id, invalid }" label="Name" :problem="problems['name']">
        <InputText :id="id" v-model="fields.name" autofocus :invalid="invalid" :maxlength="PEOPLE_LIMITS.name" />
      </FieldRow>
      <FieldRow v-slot="{ id, invalid }" label="Address for mail" hint="may stay empty" :problem="problems['email']">
        <InputText :id="id" v-model="email" type="email" :invalid="invalid" :maxlength="PEOPLE_LIMITS.email" />
      </FieldRow>
      <FieldRow
        v-if="person.role === 'student'"
        v-slot="{ labelId, invalid }"
        label="Taught by"
        :problem="problems['teacherId']"
      >
        <Select
          v-model="fields.teacherId"
          :options="teachers"
          option-label="name"
          option-value="id"
          :aria-labelledby="labelId"
          :invalid="invalid"
          :disabled="!mayHandOn"
        />
      </FieldRow>
      <FieldRow
        v-if="person.role === 'guardian'"
        v-slot="{ labelId, invalid }"
        label="Can read the pages of"
        :problem="problems['wards']"
      >
        <MultiSelect
          v-model="fields.wards"
          :options="[...students]"
          option-label="name"
          option-value="id"
          display="chip"
          filter
          :aria-labelledby="labelId"
          :invalid="invalid"
          :disabled="!mayHandOn"
        />
      </FieldRow>
      <p v-if="!mayHandOn" class="soft">Somebody else teaches here; they, or the owner, say who belongs to whom.</p>
      <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
      <footer>
        <Button type="submit" label="Save" :disabled="busy" />
        <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
        <CorrectionsButton :id="person.id" />
        <Button
          v-if="person.role === 'student'"
          as="a"
          text
          icon="pi pi-download"
          label="Everything of theirs"
          :href="everythingOf(person.id)"
          download
        />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.8rem;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.trouble {
  color: var(--warm);
}
</style>
