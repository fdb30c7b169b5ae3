<script setup lang="ts">
import { KeyTable } from '../../ui/index.ts';

defineProps<{ keys: readonly (readonly [keys: string, what: string])[] }>();
</script>

<template>
  <details>
    <summary>Keys</summary>
    <KeyTable class="small" :keys="keys" />
  </details>
</template>

<style scoped>
.small {
  font-size: 0.85rem;
}
.small :deep(dt) {
  white-space: normal;
}
</style>
