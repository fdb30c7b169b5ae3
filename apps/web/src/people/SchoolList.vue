<script setup lang="ts">
import type { SchoolName, StudentSchools } from '@jam-ledger/contract';
import { SCHOOL_QUESTIONS, SchoolChoice } from '../schools/index.ts';

defineProps<{
  /** The answers; null where the studio’s holds. */
  schools: StudentSchools;
  /** What holds in the studio; left out where the studio itself is asked. */
  studio?: StudentSchools;
  disabled?: boolean;
}>();
const emit = defineEmits<{ choose: [name: SchoolName, word: string | null] }>();
</script>

<template>
  <SchoolChoice
    v-for="{ name, label, words, explains, says } in SCHOOL_QUESTIONS"
    :key="name"
    :model-value="schools[name]"
    :label="label"
    :words="words"
    :studio="studio?.[name] ?? undefined"
    :explains="explains"
    :says="says"
    :disabled="disabled ?? false"
    @update:model-value="emit('choose', name, $event)"
  />
</template>
