<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { lettersAct } from '../session/index.ts';
import { KeyTable, TickBox } from '../ui/index.ts';
import { keysOfPage } from './keysOfPage.ts';

defineProps<{ page: unknown }>();
const open = defineModel<boolean>('open', { required: true });
</script>

<template>
  <Dialog v-model:visible="open" modal header="Keys of this page" :style="{ width: 'min(36rem, 94vw)' }">
    <KeyTable :keys="keysOfPage(page)" />
    <TickBox v-model="lettersAct">Single letters and signs act on this device</TickBox>
  </Dialog>
</template>
