<script setup lang="ts">
/** The door of the book: a plate with a form, for whoever is not signed in yet. */
const emit = defineEmits<{ enter: [] }>();
</script>

<template>
  <div class="cover">
    <form class="plate" novalidate @submit.prevent="emit('enter')">
      <img src="/mark.svg" alt="" width="46" height="46" />
      <h1>Jam Ledger</h1>
      <slot />
    </form>
  </div>
</template>

<style scoped>
.cover {
  min-height: calc(100vh - 6rem);
  display: grid;
  place-items: center;
}
.plate {
  width: min(24rem, 100%);
  display: flex;
  flex-direction: column;
  gap: 0.9rem;
  background: var(--page);
  border: 1px solid var(--rule-strong);
  border-left: 10px solid var(--warm);
  padding: 1.8rem 1.8rem 2rem;
}
</style>
