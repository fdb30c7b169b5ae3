<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core';
import Button from 'primevue/button';
import { ref } from 'vue';

const props = defineProps<{
  /** Why it could not be opened, in a sentence. */
  why: string;
  /** Tries again. */
  retry: () => Promise<void>;
}>();

/** It tries by itself so often, milliseconds. Our choice. */
const RETRY_MS = 5000;
const isTrying = ref(false);

async function tryAgain(): Promise<void> {
  if (isTrying.value) return;
  isTrying.value = true;
  try {
    await props.retry();
  } finally {
    isTrying.value = false;
  }
}
useIntervalFn(() => void tryAgain(), RETRY_MS);
useEventListener(window, 'online', () => void tryAgain());
</script>

<template>
  <section class="not-opened" role="alert">
    <img src="/mark.svg" alt="" width="44" height="44" />
    <h1>Jam Ledger cannot open yet</h1>
    <p>{{ why }}</p>
    <p class="soft">Nothing is lost. It tries again every few seconds.</p>
    <Button label="Try again" :loading="isTrying" @click="tryAgain" />
  </section>
</template>

<style scoped>
.not-opened {
  max-width: 26rem;
  margin: 16vh auto 0;
  padding: 0 1.2rem 0 1.4rem;
  border-left: 2px solid var(--warm);
}
</style>
