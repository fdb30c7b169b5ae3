<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import type { PlayedStep } from './useStepping.ts';

const props = defineProps<{ step: PlayedStep | undefined; number: number; count: number; loop: string }>();
const emit = defineEmits<{ move: [by: 1 | -1]; from: []; to: []; clear: [] }>();
const isLooped = computed(() => props.loop !== 'the whole');
</script>

<template>
  <div class="steps" role="group" aria-label="Step by step">
    <div class="walk">
      <Button
        size="small"
        outlined
        icon="pi pi-arrow-left"
        aria-label="One step back"
        :disabled="number <= 0"
        @click="emit('move', -1)"
      />
      <Button
        size="small"
        outlined
        icon="pi pi-arrow-right"
        aria-label="One step on"
        :disabled="count === 0 || number >= count - 1"
        @click="emit('move', 1)"
      />
      <p class="says" role="status">
        <template v-if="step"
          ><strong>{{ step.place }}</strong> {{ step.says }}</template
        >
        <span v-else class="soft">Step through it with <kbd>←</kbd> <kbd>→</kbd>, or point at a note.</span>
      </p>
    </div>
    <div class="loop">
      <span
        >Loop: <strong>{{ loop }}</strong></span
      >
      <Button size="small" text label="from here" :disabled="!step" @click="emit('from')" />
      <Button size="small" text label="to here" :disabled="!step" @click="emit('to')" />
      <Button size="small" text label="the whole" :disabled="!isLooped" @click="emit('clear')" />
      <span class="soft keys"><kbd>[</kbd> from <kbd>]</kbd> to <kbd>0</kbd> the whole</span>
    </div>
  </div>
</template>

<style scoped>
.steps {
  display: flex;
  flex-direction: column;
  gap: 0.3rem;
}
.walk,
.loop {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem 0.5rem;
}
.says {
  min-width: 0;
  flex: 1;
}
.keys {
  font-size: 0.85rem;
}
@media (max-width: 720px) {
  .keys {
    display: none;
  }
  .walk :deep(button) {
    min-width: 2.9rem;
    min-height: 2.9rem;
  }
}
</style>
