<script setup lang="ts">
import Button from 'primevue/button';

defineProps<{ name: string }>();
const emit = defineEmits<{ takeOut: [] }>();
</script>

<template>
  <div class="row">
    <slot />
    <Button
      size="small"
      text
      severity="secondary"
      icon="pi pi-times"
      :aria-label="`Remove ${name}`"
      @click="emit('takeOut')"
    />
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.5rem;
  align-items: center;
  padding: 0.1rem 0;
  font-size: 0.92rem;
}
</style>
