<script setup lang="ts">
import { PEOPLE_LIMITS, SIGN_IN_LIMITS } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { useNotices, useSession } from '../session/index.ts';
import { FieldRow, useForm } from '../ui/index.ts';
import PasswordField from './PasswordField.vue';

const session = useSession();
const notices = useNotices();
const { fields, problems, trouble, busy, send } = useForm('ownNamesSchema', {
  name: session.me?.name ?? '',
  signInName: session.me?.signInName ?? '',
  password: '',
});

async function submit(): Promise<void> {
  if (!(await send((body) => session.changeNames(body)))) return;
  fields.password = '';
  notices.say(`You are ${fields.name}, and sign in as ${fields.signInName}.`);
}
</script>

<template>
  <form class="names" novalidate aria-label="Your names" @submit.prevent="submit">
    <h2>Your names</h2>
    <FieldRow v-slot="{ id, invalid }" label="Your name" :problem="problems['name']">
      <InputText
        :id="id"
        v-model="fields.name"
        :invalid="invalid"
        autocomplete="name"
        :maxlength="PEOPLE_LIMITS.name"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Name to sign in with" :problem="problems['signInName']">
      <InputText
        :id="id"
        v-model="fields.signInName"
        :invalid="invalid"
        autocomplete="username"
        :maxlength="SIGN_IN_LIMITS.name"
      />
    </FieldRow>
    <PasswordField v-model="fields.password" label="Your password" :problem="problems['password']" />
    <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
    <Button type="submit" label="Save the names" :disabled="busy" />
  </form>
</template>

<style scoped>
.names {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.8rem;
  margin: 1.2rem 0 1.8rem;
  max-width: 22rem;
}
.trouble {
  color: var(--warm);
}
</style>
