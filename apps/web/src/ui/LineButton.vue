<script setup lang="ts">
import Button from 'primevue/button';

/** The library's button drawn as a line of the ledger: no frame, all of its row; what else it looks like is the page's. */
defineProps<{
  /** Whether it reads as a link does. */
  link?: boolean;
}>();
defineSlots<{ default: () => unknown }>();
</script>

<template>
  <Button unstyled type="button" :class="['line-button', { link }]"><slot /></Button>
</template>

<style>
/* Without weight of its own, so that every page's style holds over it. */
:where(.line-button) {
  all: unset;
  box-sizing: border-box;
  cursor: pointer;
}
:where(.line-button.link) {
  color: var(--cool);
  text-decoration: underline;
}
:where(.line-button:focus-visible) {
  outline: 2px solid var(--focus);
}
</style>
