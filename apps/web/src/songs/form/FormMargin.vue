<script setup lang="ts">
import type { FormFix, FormProblem } from '@jam-ledger/core/form';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { LineButton } from '../../ui/index.ts';

const props = defineProps<{
  problems: readonly FormProblem[];
  /** Labels told from what was written, where they differ: old and new. */
  labels: readonly { readonly id: string; readonly from: string; readonly to: string }[];
}>();
const emit = defineEmits<{ show: [sectionId: string]; fix: [fix: FormFix]; label: [] }>();

/** So many are shown; the rest on demand. */
const MAX_SHOWN = 3;
const all = ref(false);
const shown = computed(() => (all.value ? props.problems : props.problems.slice(0, MAX_SHOWN)));
const renamed = computed(() => props.labels.map(({ from, to }) => `${from} → ${to}`).join(', '));
</script>

<template>
  <ul
    v-if="problems.length > 0 || labels.length > 0"
    class="quiet-list form-margin"
    aria-label="What does not agree in the form"
  >
    <li v-for="(problem, index) in shown" :key="index">
      <LineButton @click="emit('show', problem.sectionId)">{{ problem.message }}</LineButton>
      <Button
        v-if="problem.fix"
        size="small"
        severity="secondary"
        outlined
        :label="problem.fix.title"
        @click="emit('fix', problem.fix)"
      />
    </li>
    <li v-if="problems.length > shown.length">
      <LineButton link @click="all = true">{{ problems.length - shown.length }} more</LineButton>
    </li>
    <li v-if="labels.length > 0">
      <span>By what is written in them, the sections would be labelled {{ renamed }}.</span>
      <Button size="small" severity="secondary" outlined label="Use these labels" @click="emit('label')" />
    </li>
  </ul>
</template>

<style scoped>
.form-margin {
  border-left: 3px dashed var(--warm);
  padding-left: 0.7rem;
  margin-top: 0.5rem;
  font-size: 0.92rem;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.8rem;
  align-items: center;
  padding: 0.1rem 0;
}
</style>
