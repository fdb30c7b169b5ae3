<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import Button from 'primevue/button';
import { ref } from 'vue';
import { PEDAL_JOBS, type Pedal, type PedalJob } from './pedal.ts';

const pedal = defineModel<Pedal>({ required: true });
/** Which key is asked for; the next that is pressed is taken. */
const asking = ref<PedalJob>();

useEventListener(
  'keydown',
  (event) => {
    const job = asking.value;
    if (job === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    asking.value = undefined;
    if (event.key !== 'Escape') pedal.value = { ...pedal.value, [job]: event.key };
  },
  { capture: true },
);

const nameOf = (key: string) => (key === ' ' ? 'space' : key);
</script>

<template>
  <details>
    <summary>Foot pedal</summary>
    <p class="soft">A pedal is a keyboard with a key or two. Press “set”, then the pedal.</p>
    <ul class="quiet-list">
      <li v-for="{ job, says } in PEDAL_JOBS" :key="job">
        <span
          >{{ says }}: <kbd>{{ nameOf(pedal[job]) }}</kbd></span
        >
        <Button
          size="small"
          text
          :label="asking === job ? 'press it now…' : 'set'"
          :aria-label="asking === job ? `Press the pedal for ${says} now` : `Set the pedal for ${says}`"
          @click="asking = job"
        />
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
