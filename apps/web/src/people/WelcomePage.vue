<script setup lang="ts">
import { SIGN_IN_LIMITS, type Welcome } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { onMounted, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { DoorPage, FieldRow, useForm } from '../ui/index.ts';
import { useNotices, useSession } from '../session/index.ts';
import PasswordField from './PasswordField.vue';

const route = useRoute();
const router = useRouter();
const session = useSession();
const notices = useNotices();
const welcome = ref<Welcome>();
const refused = ref('');
const token = String(route.params['token']);
const { fields, problems, trouble, busy, send, fill } = useForm('acceptanceSchema', { signInName: '', password: '' });

onMounted(async () => {
  try {
    welcome.value = await session.welcome(token);
    fill({ signInName: welcome.value.signInName, password: '' });
  } catch (error) {
    refused.value = error instanceof Error ? error.message : 'This invitation cannot be opened.';
  }
});

async function submit(): Promise<void> {
  const accepted = await send(async (body) => {
    await session.accept(token, body);
    if (session.me) await session.signOut();
    await session.signIn({ name: body.signInName.trim(), password: body.password });
  });
  if (!accepted) return;
  notices.say(`Welcome, ${welcome.value?.name ?? ''}.`);
  await router.push('/');
}
</script>

<template>
  <DoorPage @enter="submit">
    <p v-if="refused" role="alert">{{ refused }}</p>
    <template v-else-if="welcome">
      <p>
        {{ welcome.name }}, {{ welcome.studio }} invites you<template v-if="welcome.role === 'guardian'"
          >, to read along</template
        >. Choose a name to sign in with, and a password of ten characters or more.
      </p>
      <FieldRow v-slot="{ id, invalid }" label="Name" :problem="problems['signInName']">
        <InputText
          :id="id"
          v-model="fields.signInName"
          :invalid="invalid"
          autocomplete="username"
          autofocus
          :maxlength="SIGN_IN_LIMITS.name"
        />
      </FieldRow>
      <PasswordField
        v-model="fields.password"
        chosen
        label="Password"
        :problem="problems['password'] ?? (trouble || undefined)"
      />
      <Button type="submit" label="Sign in" :disabled="busy" />
    </template>
  </DoorPage>
</template>
