<script setup lang="ts">
import Button from 'primevue/button';
import { defineAsyncComponent, ref } from 'vue';
import type { Copyable } from './copies.ts';

const CopyDialog = defineAsyncComponent(() => import('./CopyDialog.vue'));
defineProps<{
  choices: readonly Copyable[];
  /** What the button says to whoever hears it, where there are several. */
  about?: string;
}>();
const isOpen = ref(false);
</script>

<template>
  <Button
    v-if="choices.length > 0"
    size="small"
    text
    icon="pi pi-copy"
    label="Copy for …"
    :aria-label="about ? `Copy ${about} for a student` : 'Copy for another student'"
    @click="isOpen = true"
  />
  <CopyDialog v-if="isOpen" :choices="choices" @done="isOpen = false" />
</template>
