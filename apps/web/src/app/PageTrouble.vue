<script setup lang="ts">
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useSession, type PageTrouble } from '../session/index.ts';

const props = defineProps<{ trouble: PageTrouble }>();
const session = useSession();
const isTrying = ref(false);
const first = computed(() => (session.isTeacher ? 'To the desk' : 'Go to your first page'));

async function again(): Promise<void> {
  isTrying.value = true;
  await props.trouble.again();
  isTrying.value = false;
}
</script>

<template>
  <section class="trouble" role="alert">
    <h1>{{ trouble.isGone ? 'There is nothing here' : 'This page could not be opened' }}</h1>
    <p>{{ trouble.why }}</p>
    <p v-if="trouble.isGone" class="soft">
      It may have been removed, or it is not yours to see. The address may be mistyped, too.
    </p>
    <p v-else class="soft">Nothing is lost.</p>
    <p class="ways">
      <Button v-if="!trouble.isGone" label="Try again" :loading="isTrying" @click="again" />
      <RouterLink to="/">{{ first }}</RouterLink>
      <RouterLink v-if="session.isTeacher" :to="{ name: 'search' }">Search</RouterLink>
    </p>
  </section>
</template>

<style scoped>
.trouble {
  max-width: 40rem;
  border-left: 2px solid var(--warm);
  padding-left: 1.2rem;
  margin-top: 8vh;
}
p {
  margin-top: 0.8rem;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 1rem;
  align-items: center;
}
</style>
