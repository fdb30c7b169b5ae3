<script setup lang="ts">
import Button from 'primevue/button';

defineProps<{ text: string }>();
const emit = defineEmits<{ settle: [choice: 'mine' | 'theirs'] }>();
</script>

<template>
  <div class="conflict" role="alert">
    <p>This phrase was changed elsewhere in the meantime. Their text:</p>
    <pre>{{ text }}</pre>
    <Button size="small" label="Keep mine" @click="emit('settle', 'mine')" />
    <Button size="small" outlined label="Take theirs" @click="emit('settle', 'theirs')" />
  </div>
</template>

<style scoped>
.conflict {
  border: 1px solid var(--warm);
  padding: 0.6rem 0.8rem;
}
pre {
  white-space: pre-wrap;
  font-family: var(--type-mono);
}
</style>
