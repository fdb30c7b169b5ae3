<script setup lang="ts">
import Button from 'primevue/button';

defineProps<{ waiting: readonly object[] }>();
const emit = defineEmits<{ send: [] }>();

/** Results are called so; among notes to the teacher they are things. */
function sayWaiting(lines: readonly object[]): string {
  const notes = lines.filter((line) => 'text' in line).length;
  const [one, many] = notes === 0 ? ['result', 'results'] : notes === lines.length ? ['note', 'notes'] : ['', 'things'];
  return lines.length === 1 ? `One ${one} waits` : `${lines.length} ${many} wait`;
}
</script>

<template>
  <p v-if="waiting.length > 0" class="waiting" role="status">
    {{ sayWaiting(waiting) }} on this device until the studio can be reached.
    <Button size="small" text label="Post now" @click="emit('send')" />
  </p>
</template>

<style scoped>
.waiting {
  border-left: 2px solid var(--warm);
  padding-left: 0.7rem;
  margin-bottom: 0.6rem;
}
</style>
