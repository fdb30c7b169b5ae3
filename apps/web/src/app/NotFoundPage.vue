<script setup lang="ts">
import { RouterLink, useRoute } from 'vue-router';
import { useSession } from '../session/index.ts';

const route = useRoute();
const session = useSession();
</script>

<template>
  <h1>There is no such page</h1>
  <p>
    There is nothing at <code>{{ route.path }}</code>. The address may be mistyped, or the page was removed.
  </p>
  <p>
    <RouterLink to="/">{{ session.isTeacher ? 'To the desk' : 'Go to your first page' }}</RouterLink>
    <template v-if="session.isTeacher"> · <RouterLink :to="{ name: 'search' }">Search</RouterLink></template>
  </p>
</template>

<style scoped>
p {
  margin-top: 0.8rem;
  max-width: 40rem;
}
code {
  overflow-wrap: anywhere;
}
</style>
