<script setup lang="ts">
import { computed } from 'vue';

/** The problems of the lines of a list: `changes.0.meter` is of its first line. */
const props = defineProps<{ problems: Readonly<Record<string, string>>; prefix: string }>();

const lines = computed(() =>
  Object.entries(props.problems)
    .filter(([field]) => field.startsWith(props.prefix))
    .map(([field, message]) => ({ field, line: Number(field.split('.')[1] ?? 0) + 1, message })),
);
</script>

<template>
  <p v-for="one in lines" :key="one.field" class="problem" role="alert">Line {{ one.line }}: {{ one.message }}</p>
</template>

<style scoped>
.problem {
  color: var(--warm);
  font-size: 0.9rem;
}
</style>
