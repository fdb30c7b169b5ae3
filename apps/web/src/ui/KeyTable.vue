<script setup lang="ts">
/** Keys, and what each does. */
defineProps<{ keys: readonly (readonly [key: string, what: string])[] }>();
</script>

<template>
  <dl>
    <template v-for="[key, what] in keys" :key="key">
      <dt>
        <kbd>{{ key }}</kbd>
      </dt>
      <dd>{{ what }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0.2rem 0.7rem;
}
dt {
  white-space: nowrap;
}
dd {
  margin: 0;
}
</style>
