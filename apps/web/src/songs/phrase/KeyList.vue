<script setup lang="ts">
defineProps<{ keys: readonly (readonly [keys: string, what: string])[] }>();
</script>

<template>
  <details>
    <summary>Keys</summary>
    <dl>
      <template v-for="[key, what] in keys" :key="key">
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ what }}</dd>
      </template>
    </dl>
  </details>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.2rem 0.5rem;
  font-size: 0.85rem;
}
dd {
  margin: 0;
}
</style>
