<script setup lang="ts">
import Button from 'primevue/button';
import { useRouter } from 'vue-router';
import { everythingOf } from './people.ts';
import { useForm } from '../ui/index.ts';
import CalendarAddress from './CalendarAddress.vue';
import OwnNamesForm from './OwnNamesForm.vue';
import { useNotices, useSession } from '../session/index.ts';
import PasswordField from './PasswordField.vue';

const session = useSession();
const notices = useNotices();
const router = useRouter();
const EMPTY = { old: '', password: '' } as const;
const { fields, problems, trouble, busy, send, fill } = useForm('passwordChangeSchema', EMPTY);

function leaveAll(): Promise<void> {
  return notices.tell(async () => {
    await session.signOutEverywhere();
    await router.push({ name: 'sign-in' });
    notices.say('You are signed out on every device.');
  });
}

async function submit(): Promise<void> {
  if (!(await send(async (body) => void (await session.changePassword(body))))) return;
  fill(EMPTY);
  notices.say('Your password is changed. You are signed out everywhere else.');
}
</script>

<template>
  <h1>{{ session.me?.name }}</h1>
  <p class="soft">{{ session.me?.role }} of {{ session.me?.studio.name }}</p>
  <OwnNamesForm />
  <form class="password" novalidate aria-label="Your password" @submit.prevent="submit">
    <h2>Your password</h2>
    <PasswordField v-model="fields.old" label="Current password" :problem="problems['old']" />
    <PasswordField
      v-model="fields.password"
      chosen
      label="New password"
      hint="ten characters or more"
      :problem="problems['password']"
    />
    <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
    <Button type="submit" label="Change the password" :disabled="busy" />
  </form>
  <CalendarAddress />
  <section v-if="session.isStudent" aria-label="Everything of yours">
    <h2>Everything of yours</h2>
    <p class="soft">Your songs, results, lessons and messages in one file that opens without Jam Ledger.</p>
    <Button as="a" outlined icon="pi pi-download" label="Download everything" :href="everythingOf()" download />
  </section>
  <section aria-label="Your devices">
    <h2>Your devices</h2>
    <p class="soft">
      Lost a phone, or signed in on a computer of somebody else? You will have to sign in again on each of them, this
      one too.
    </p>
    <Button outlined severity="secondary" label="Sign out everywhere" @click="leaveAll" />
  </section>
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
section {
  margin-top: 2rem;
  max-width: 34rem;
}
.trouble {
  color: var(--warm);
}
</style>
