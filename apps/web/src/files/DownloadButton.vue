<script setup lang="ts">
import Button from 'primevue/button';
import { defineAsyncComponent, ref } from 'vue';
import type { Takeable } from './takeable.ts';

defineProps<{ choices: readonly Takeable[] }>();

const DownloadDialog = defineAsyncComponent(() => import('./DownloadDialog.vue'));
const open = ref(false);
/** The dialog is fetched when it is first wanted. */
const wanted = ref(false);

function show(): void {
  wanted.value = true;
  open.value = true;
}
</script>

<template>
  <Button size="small" text icon="pi pi-download" label="Download" @click="show" />
  <DownloadDialog v-if="wanted" v-model:open="open" :choices="choices" />
</template>
