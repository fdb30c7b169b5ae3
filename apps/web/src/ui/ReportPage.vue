<script setup lang="ts">
/** A report: its title, what stands beside it, then sections of text, charts and tables. */
defineProps<{ title: string }>();
</script>

<template>
  <article class="report">
    <header>
      <h1>{{ title }}</h1>
      <slot name="beside" />
    </header>
    <slot />
  </article>
</template>

<style scoped>
.report {
  max-width: 62rem;
  display: flex;
  flex-direction: column;
  gap: 1rem;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0.3rem 1rem;
  border-bottom: 2px solid var(--ink);
  padding-bottom: 0.3rem;
}
.report :deep(summary) {
  cursor: pointer;
  color: var(--cool);
  font-size: 0.92rem;
}
@media print {
  .report {
    font-size: 0.85rem;
    gap: 0.5rem;
  }
}
</style>
