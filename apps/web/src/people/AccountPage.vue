<script setup lang="ts">
import { SIGN_IN_LIMITS } from '@jam-ledger/contract';
import { passwordChangeSchema } from '@jam-ledger/contract/schemas';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { FieldRow, useForm } from '../ui/index.ts';
import CalendarAddress from './CalendarAddress.vue';
import OwnNamesForm from './OwnNamesForm.vue';
import { useNotices, useSession } from '../session/index.ts';

const session = useSession();
const notices = useNotices();
const EMPTY = { old: '', password: '' } as const;
const { fields, problems, trouble, busy, send, fill } = useForm(passwordChangeSchema, EMPTY);

async function submit(): Promise<void> {
  if (!(await send(async (body) => void (await session.changePassword(body))))) return;
  fill(EMPTY);
  notices.say('The new password holds. Everywhere else you are signed out.');
}
</script>

<template>
  <h1>{{ session.me?.name }}</h1>
  <p class="soft">{{ session.me?.role }} of {{ session.me?.studio.name }}</p>
  <OwnNamesForm />
  <form class="password" novalidate aria-label="Your password" @submit.prevent="submit">
    <h2>Your password</h2>
    <FieldRow v-slot="{ id, invalid }" label="The one that holds" :problem="problems['old']">
      <InputText
        :id="id"
        v-model="fields.old"
        type="password"
        :invalid="invalid"
        autocomplete="current-password"
        :maxlength="SIGN_IN_LIMITS.password"
      />
    </FieldRow>
    <FieldRow
      v-slot="{ id, invalid }"
      label="The new one"
      hint="ten characters or more"
      :problem="problems['password']"
    >
      <InputText
        :id="id"
        v-model="fields.password"
        type="password"
        :invalid="invalid"
        autocomplete="new-password"
        :maxlength="SIGN_IN_LIMITS.password"
      />
    </FieldRow>
    <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
    <Button type="submit" label="Change it" :disabled="busy" />
  </form>
  <CalendarAddress />
</template>

<style scoped>
.password {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.8rem;
  margin-top: 1.2rem;
  max-width: 22rem;
}
.trouble {
  color: var(--warm);
}
</style>
