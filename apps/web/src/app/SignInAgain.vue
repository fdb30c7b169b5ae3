<script setup lang="ts">
import { SIGN_IN_LIMITS } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { useSession } from '../session/index.ts';
import { FieldRow } from '../ui/index.ts';

const session = useSession();
const password = ref('');
const trouble = ref('');
const busy = ref(false);

async function signIn(): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    await session.signInAgain(password.value);
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'You could not be signed in.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Sign in again"
    :style="{ width: 'min(26rem, 94vw)' }"
    @update:visible="session.stayOut()"
  >
    <form novalidate @submit.prevent="signIn">
      <p>
        Your session has ended. Everything on this page is still here, and what you were doing goes on once you are
        signed in.
      </p>
      <p>
        Signing in as <strong>{{ session.me?.signInName }}</strong>
      </p>
      <input class="name" type="text" autocomplete="username" :value="session.me?.signInName" readonly hidden />
      <FieldRow v-slot="{ id, invalid }" label="Password" :problem="trouble || undefined">
        <InputText
          :id="id"
          v-model="password"
          type="password"
          autofocus
          autocomplete="current-password"
          :invalid="invalid"
          :maxlength="SIGN_IN_LIMITS.password"
        />
      </FieldRow>
      <footer>
        <Button type="submit" label="Sign in" :disabled="busy || password === ''" />
        <Button type="button" text severity="secondary" label="Not now" @click="session.stayOut()" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
</style>
