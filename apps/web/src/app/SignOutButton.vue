<script setup lang="ts">
import Button from 'primevue/button';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { useNotices, useSession } from '../session/index.ts';
import SignOutDialog from './SignOutDialog.vue';

const session = useSession();
const notices = useNotices();
const router = useRouter();
/** What of this device would be lost by signing out now. */
const unsent = ref(0);

/** Asks before anything is lost. */
async function ask(): Promise<void> {
  unsent.value = await session.unsent();
  if (unsent.value === 0) await leave();
}

async function leave(): Promise<void> {
  unsent.value = 0;
  await notices.tell(async () => {
    await session.signOut();
    await router.push({ name: 'sign-in' });
  });
}
</script>

<template>
  <Button size="small" text label="Sign out" @click="ask" />
  <SignOutDialog v-if="unsent > 0" :count="unsent" @leave="leave" @stay="unsent = 0" />
</template>
