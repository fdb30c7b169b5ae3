<script setup lang="ts">
import Button from 'primevue/button';

defineProps<{ count: number; stale: boolean }>();
const emit = defineEmits<{ send: [] }>();
</script>

<template>
  <p v-if="count > 0 || stale" class="waiting" role="status">
    <template v-if="count > 0">
      {{ count === 1 ? 'One result waits' : `${count} results wait` }} on this device until the studio can be reached.
      <Button size="small" text label="Post now" @click="emit('send')" />
    </template>
    <template v-else>The studio cannot be reached; this is how it stood last.</template>
  </p>
</template>

<style scoped>
.waiting {
  border-left: 2px solid var(--warm);
  padding-left: 0.7rem;
  margin-bottom: 0.6rem;
}
</style>
