<script setup lang="ts">
import { computed } from 'vue';

/** A needle over a scale of cents; `reach` is how far it goes to either side. Only drawn: what it says stands beside it in words. */
const props = defineProps<{ cents: number; reach: number }>();
const at = computed(() => 100 + (100 * Math.max(-props.reach, Math.min(props.reach, props.cents))) / props.reach);
const MARKS = [0, 50, 100, 150, 200] as const;
</script>

<template>
  <svg class="scale" viewBox="-6 0 212 34" aria-hidden="true">
    <line x1="0" y1="26" x2="200" y2="26" class="rule" />
    <line v-for="mark in MARKS" :key="mark" :x1="mark" :x2="mark" :y1="mark === 100 ? 14 : 20" y2="26" class="rule" />
    <path :d="`M ${at} 24 l -5 -16 h 10 z`" class="needle" />
  </svg>
</template>

<style scoped>
.scale {
  width: 13rem;
  height: 2.2rem;
}
.rule {
  stroke: var(--rule-strong);
  stroke-width: 1.5;
}
.needle {
  fill: var(--cool);
}
</style>
