<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { lettersAct } from '../session/index.ts';
import { TickBox } from '../ui/index.ts';
import { keysOfPage } from './keysOfPage.ts';

defineProps<{ page: unknown }>();
const open = defineModel<boolean>('open', { required: true });
</script>

<template>
  <Dialog v-model:visible="open" modal header="Keys of this page" :style="{ width: 'min(36rem, 94vw)' }">
    <dl>
      <template v-for="[key, what] in keysOfPage(page)" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
    <TickBox v-model="lettersAct">Single letters and signs act on this device</TickBox>
  </Dialog>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.3rem 0.9rem;
  margin: 0 0 1rem;
}
dt {
  white-space: nowrap;
}
dd {
  margin: 0;
}
</style>
