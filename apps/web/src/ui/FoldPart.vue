<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { useId } from 'vue';
import LineButton from './LineButton.vue';

/** A part of a page under its heading, which folds it away; each device remembers what is folded. */
const props = defineProps<{
  /** Under this name it is remembered. */
  name: string;
  title: string;
  /** What the part is called by, where that is more than its title. */
  label?: string;
  /** Folded until somebody opens it. */
  folded?: boolean;
}>();
defineSlots<{ default: () => unknown; head?: () => unknown }>();

const isOpen = useLocalStorage(`jam-open-${props.name}`, !props.folded);
const id = useId();
</script>

<template>
  <section class="fold" :aria-label="label ?? title">
    <h2>
      <LineButton :aria-expanded="isOpen" :aria-controls="id" @click="isOpen = !isOpen">
        <i :class="['pi', isOpen ? 'pi-angle-down' : 'pi-angle-right']" aria-hidden="true"></i>{{ title }}
      </LineButton>
      <slot name="head" />
    </h2>
    <div v-show="isOpen" :id="id"><slot /></div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 1rem;
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
}
button {
  display: inline-flex;
  gap: 0.15rem;
  align-items: center;
  margin-left: -0.25rem;
  padding: 0.1rem 0.2rem;
}
.pi {
  font-size: 0.85rem;
  color: var(--ink-soft);
}
</style>
