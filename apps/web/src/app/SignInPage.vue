<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { FieldRow } from '../ui/index.ts';
import { useSession } from '../session/index.ts';

const session = useSession();
const route = useRoute();
const router = useRouter();
const name = ref('');
const password = ref('');
const trouble = ref('');
const busy = ref(false);

async function signIn(): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    await session.signIn({ name: name.value, password: password.value });
    const to = route.query['to'];
    await router.push(typeof to === 'string' && to.startsWith('/') && !to.startsWith('//') ? to : '/');
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'You could not be signed in.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="cover">
    <form class="plate" @submit.prevent="signIn">
      <img src="/mark.svg" alt="" width="46" height="46" />
      <h1>Jam Ledger</h1>
      <p class="soft">What was asked, what was written, what is held.</p>
      <FieldRow v-slot="{ id }" label="Name">
        <InputText :id="id" v-model="name" autocomplete="username" autofocus maxlength="64" required />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Password" :problem="trouble || undefined">
        <InputText
          :id="id"
          v-model="password"
          type="password"
          autocomplete="current-password"
          maxlength="200"
          required
        />
      </FieldRow>
      <Button
        type="submit"
        :label="busy ? 'Looking you up…' : 'Open the book'"
        :disabled="busy || name === '' || password === ''"
      />
    </form>
  </div>
</template>

<style scoped>
.cover {
  min-height: calc(100vh - 6rem);
  display: grid;
  place-items: center;
}
.plate {
  width: min(23rem, 100%);
  display: flex;
  flex-direction: column;
  gap: 0.9rem;
  background: var(--page);
  border: 1px solid var(--rule-strong);
  border-left: 10px solid var(--warm);
  padding: 1.8rem 1.8rem 2rem;
}
</style>
