<script setup lang="ts">
import Button from 'primevue/button';
import ProblemLines from './ProblemLines.vue';

/** A list that is edited row by row: its rows, what is wrong with them, and a way to add one. */
defineProps<{ legend: string; one: string; prefix: string; problems: Readonly<Record<string, string>> }>();
const emit = defineEmits<{ add: [] }>();
</script>

<template>
  <fieldset class="rows">
    <legend>{{ legend }}</legend>
    <slot />
    <ProblemLines :problems="problems" :prefix="prefix" />
    <Button size="small" text :label="`Add a ${one}`" @click="emit('add')" />
  </fieldset>
</template>

<style scoped>
.rows {
  grid-column: 1 / -1;
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
  padding: 0;
}
</style>
