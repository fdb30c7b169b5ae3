<script setup lang="ts">
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { onMounted, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { DoorPage, FieldRow } from '../ui/index.ts';
import { useSession } from '../session/index.ts';

const session = useSession();
const route = useRoute();
const router = useRouter();
const name = ref('');
const password = ref('');
const trouble = ref('');
const busy = ref(false);
const canBegin = ref(false);

// Where nobody has a place yet, there is nothing to sign in to.
onMounted(async () => {
  const beginning = await session.beginning().catch(() => undefined);
  canBegin.value = beginning?.open ?? false;
  if (beginning?.open && !beginning.demo) await router.replace({ name: 'begin' });
});

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
  <DoorPage @enter="signIn">
    <p class="soft">What was asked, what was written, what is held.</p>
    <FieldRow v-slot="{ id }" label="Name">
      <InputText :id="id" v-model="name" autocomplete="username" autofocus maxlength="64" required />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Password" :problem="trouble || undefined">
      <InputText :id="id" v-model="password" type="password" autocomplete="current-password" maxlength="200" required />
    </FieldRow>
    <Button
      type="submit"
      :label="busy ? 'Signing in…' : 'Sign in'"
      :disabled="busy || name === '' || password === ''"
    />
    <RouterLink v-if="canBegin" :to="{ name: 'begin' }">Begin your own studio</RouterLink>
  </DoorPage>
</template>
