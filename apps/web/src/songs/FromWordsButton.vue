<script setup lang="ts">
import type { BroughtBody, Transcription } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { defineAsyncComponent, ref } from 'vue';

/** Opens the dialog in which a page of talk becomes phrases of the song. */
defineProps<{ song: Transcription; keep: (body: BroughtBody) => Promise<void> }>();

const FromWordsDialog = defineAsyncComponent(() => import('./FromWordsDialog.vue'));
const isWanted = ref(false);
const isOpen = ref(false);

function begin(): void {
  isWanted.value = true;
  isOpen.value = true;
}
</script>

<template>
  <Button size="small" text icon="pi pi-comment" label="From words" @click="begin" />
  <FromWordsDialog v-if="isWanted" v-model:open="isOpen" :song="song" :keep="keep" />
</template>
