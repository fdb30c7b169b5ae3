<script setup lang="ts">
import { MAX_KEY, PEOPLE_LIMITS, SIGN_IN_LIMITS, STUDIO_LIMITS, type Beginning } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import { DoorPage, FieldRow, useForm } from '../ui/index.ts';
import { useNotices, useSession } from '../session/index.ts';
import PasswordField from './PasswordField.vue';

const keyIn = (hash: string) => decodeURIComponent(hash.slice(1));
const route = useRoute();
const router = useRouter();
const session = useSession();
const notices = useNotices();
const beginning = ref<Beginning>();
const refused = ref('');
const { fields, problems, trouble, busy, send } = useForm('beginningSchema', {
  // The start command tells an address with the key behind the #, which stays in this browser.
  key: keyIn(route.hash),
  studio: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  name: '',
  signInName: '',
  password: '',
});
const hadKey = computed(() => route.hash !== '' && fields.key === keyIn(route.hash));
// That of this browser may be one that is not listed, as UTC is not.
const zones = [...new Set([fields.zone, ...Intl.supportedValuesOf('timeZone')])];
watch(
  () => route.hash,
  (hash) => (fields.key = keyIn(hash)),
);

onMounted(async () => {
  try {
    beginning.value = await session.beginning();
    if (!beginning.value.open) refused.value = 'A studio was begun here already; whoever owns it invites you.';
  } catch (error) {
    refused.value = error instanceof Error ? error.message : 'The studio cannot be reached.';
  }
});

async function submit(): Promise<void> {
  if (!(await send((body) => session.begin(body)))) return;
  notices.say(`${session.me?.studio.name ?? ''} is begun. It is yours.`);
  await router.push('/');
}
</script>

<template>
  <DoorPage @enter="submit">
    <h2>Begin your own studio</h2>
    <template v-if="refused">
      <p role="alert">{{ refused }}</p>
      <RouterLink to="/">Sign in</RouterLink>
    </template>
    <template v-else-if="beginning">
      <p v-if="beginning.demo" class="soft">
        It takes the place of the demo studio: everything in the demo is removed, and everybody signed in there is
        signed out.
      </p>
      <FieldRow
        v-if="!hadKey || problems['key']"
        v-slot="{ id, invalid }"
        label="Key"
        hint="the start command told it"
        :problem="problems['key']"
      >
        <InputText :id="id" v-model="fields.key" :invalid="invalid" autocomplete="off" :maxlength="MAX_KEY" />
      </FieldRow>
      <FieldRow v-slot="{ id, invalid }" label="Name of the studio" :problem="problems['studio']">
        <InputText :id="id" v-model="fields.studio" :invalid="invalid" autofocus :maxlength="STUDIO_LIMITS.name" />
      </FieldRow>
      <FieldRow v-slot="{ id, invalid }" label="Time zone" :problem="problems['zone']">
        <Select v-model="fields.zone" :input-id="id" :options="zones" :invalid="invalid" filter auto-filter-focus />
      </FieldRow>
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
      <PasswordField
        v-model="fields.password"
        chosen
        label="Password"
        hint="ten characters or more"
        :problem="problems['password'] ?? (trouble && Object.keys(problems).length === 0 ? trouble : undefined)"
      />
      <Button type="submit" label="Begin" :disabled="busy" />
      <RouterLink v-if="beginning.demo" to="/">Stay in the demo</RouterLink>
    </template>
  </DoorPage>
</template>

<style scoped>
h2 {
  margin: 0;
}
</style>
