<script setup lang="ts">
import Slider from 'primevue/slider';
import { computed } from 'vue';

defineProps<{ label: string }>();
/** 0 to 1. */
const level = defineModel<number>({ required: true });
const emit = defineEmits<{ touched: [isTouched: boolean] }>();

const percent = computed({ get: () => Math.round(100 * level.value), set: (now) => (level.value = now / 100) });
</script>

<template>
  <span class="slide" @focusin="emit('touched', true)" @focusout="emit('touched', false)">
    {{ label }}
    <Slider v-model="percent" :aria-label="`Level of ${label}`" />
  </span>
</template>

<style scoped>
.slide {
  display: inline-flex;
  gap: 0.6rem;
  align-items: center;
  white-space: nowrap;
}
.slide .p-slider {
  width: 5rem;
}
</style>
