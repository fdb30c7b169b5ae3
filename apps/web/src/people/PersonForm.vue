<script setup lang="ts">
import { ENTERED_ROLES, PEOPLE_LIMITS, type EnteredRole, type PersonBody } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed } from 'vue';
import { FieldRow, useForm, vFirstField, TickBox } from '../ui/index.ts';

const props = defineProps<{
  /** Whether teachers can be entered, too. */
  owner: boolean;
  students: readonly { readonly id: string; readonly name: string }[];
  save: (body: PersonBody) => Promise<void>;
}>();
const emit = defineEmits<{ done: [] }>();

const first: PersonBody = { role: 'student', name: '', wards: [] };
const { fields, problems, trouble, busy, send, giveUp } = useForm('personSchema', first, undefined, 'person');
const roles = computed(() => ENTERED_ROLES.filter((role) => props.owner || role !== 'teacher'));

function choose(role: EnteredRole): void {
  fields.role = role;
  if (role !== 'guardian') fields.wards = [];
}
function toggle(id: string): void {
  fields.wards = fields.wards.includes(id) ? fields.wards.filter((one) => one !== id) : [...fields.wards, id];
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
  <form v-first-field class="person" novalidate aria-label="Add a person" @submit.prevent="submit">
    <FieldRow v-slot="{ labelId }" label="Role" :problem="problems['role']">
      <Select :model-value="fields.role" :options="roles" :aria-labelledby="labelId" @update:model-value="choose" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Name" hint="nothing else is asked" :problem="problems['name']">
      <InputText :id="id" v-model="fields.name" :invalid="invalid" :maxlength="PEOPLE_LIMITS.name" autofocus />
    </FieldRow>
    <fieldset v-if="fields.role === 'guardian'">
      <legend>Can read the pages of</legend>
      <TickBox
        v-for="student in students"
        :key="student.id"
        :model-value="fields.wards.includes(student.id)"
        @update:model-value="toggle(student.id)"
        >{{ student.name }}</TickBox
      >
      <p v-if="problems['wards']" class="trouble" role="alert">{{ problems['wards'] }}</p>
    </fieldset>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <div class="row">
      <Button type="submit" label="Add" :disabled="busy" />
      <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
    </div>
  </form>
</template>

<style scoped>
.person {
  display: flex;
  flex-direction: column;
  gap: 0.7rem;
  max-width: 26rem;
  margin: 0.6rem 0 1rem;
}
fieldset {
  border: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
}
.row {
  display: flex;
  gap: 0.5rem;
}
.trouble {
  color: var(--warm);
}
</style>
