<script setup lang="ts">
defineProps<{ label: string }>();
const level = defineModel<number>({ required: true });
const emit = defineEmits<{ touched: [isTouched: boolean] }>();
</script>

<template>
  <label class="slide">
    {{ label }}
    <input
      v-model.number="level"
      type="range"
      min="0"
      max="1"
      step="0.01"
      @focus="emit('touched', true)"
      @blur="emit('touched', false)"
    />
  </label>
</template>

<style scoped>
.slide {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
.slide input {
  width: 6rem;
  accent-color: var(--cool);
}
</style>
