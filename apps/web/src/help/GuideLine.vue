<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import { computed, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { useGuide } from './guide.ts';

const guide = useGuide();
const route = useRoute();
const isFirstPage = computed(() => route.name === 'desk' || route.name === 'practice');
/** Pages that need a song or a piece are reached from their lists. */
const way = computed(() => {
  const on = guide.step?.on;
  if (on === undefined || on === route.name) return undefined;
  return { song: 'songs', pieces: 'songs', piece: 'practice' }[on] ?? on;
});

watch(
  () => route.name,
  (name) => guide.saw({ opened: name }),
);
useEventListener(
  'click',
  ({ target }) => {
    const button = target instanceof Element ? target.closest('button') : null;
    if (button) guide.saw({ pressed: (button.getAttribute('aria-label') ?? button.textContent).trim() });
  },
  { capture: true },
);
useEventListener('input', ({ target }) => {
  if (target instanceof HTMLElement && target.isContentEditable) guide.saw({ typed: true });
});
</script>

<template>
  <section v-if="guide.isOffered && isFirstPage" class="guide screen-only" aria-label="First steps">
    <p>New here? The first steps take five minutes, on your own pages.</p>
    <Button size="small" outlined label="Take them" @click="guide.begin()" />
    <Button size="small" text severity="secondary" label="Not now" @click="guide.end()" />
  </section>
  <section v-else-if="guide.step" class="guide screen-only" aria-label="First steps" aria-live="polite">
    <p>
      <strong>{{ (guide.place ?? 0) + 1 }} of {{ guide.steps.length }}</strong> {{ guide.step.says }}
    </p>
    <RouterLink v-if="way" :to="{ name: way }">Go there</RouterLink>
    <Button size="small" text label="Next" @click="guide.next()" />
    <Button size="small" text severity="secondary" label="End the first steps" @click="guide.end()" />
  </section>
</template>

<style scoped>
.guide {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
  align-items: center;
  border: 1px dashed var(--rule-strong);
  background: var(--page);
  padding: 0.35rem 0.8rem;
  margin-bottom: 0.9rem;
  max-width: 60rem;
}
</style>
