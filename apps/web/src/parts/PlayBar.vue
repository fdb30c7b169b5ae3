<script setup lang="ts">
import Button from 'primevue/button';
import { ref } from 'vue';

defineProps<{ playing: boolean; counting: boolean; bpm: number; disabled: boolean; hasChords: boolean }>();
const loop = defineModel<boolean>('loop', { required: true });
const countIn = defineModel<boolean>('countIn', { required: true });
const level = defineModel<number>('level', { required: true });
const clickLevel = defineModel<number>('clickLevel', { required: true });
const backingLevel = defineModel<number>('backingLevel', { required: true });
const emit = defineEmits<{ play: []; stop: [] }>();
const caution = ref(false);
</script>

<template>
  <div class="bar" role="group" aria-label="Listening">
    <Button v-if="!playing" :label="`Hear it at ${bpm}`" icon="pi pi-play" :disabled="disabled" @click="emit('play')" />
    <Button
      v-else
      :label="counting ? 'Counting in… stop' : 'Stop'"
      icon="pi pi-stop"
      severity="secondary"
      @click="emit('stop')"
    />
    <label class="tick"><input v-model="countIn" type="checkbox" /> count-in</label>
    <label class="tick"><input v-model="loop" type="checkbox" /> loop</label>
    <label class="slide">
      guitar
      <input
        v-model.number="level"
        type="range"
        min="0"
        max="1"
        step="0.01"
        @focus="caution = true"
        @blur="caution = false"
      />
    </label>
    <label class="slide">
      click
      <input
        v-model.number="clickLevel"
        type="range"
        min="0"
        max="1"
        step="0.01"
        @focus="caution = true"
        @blur="caution = false"
      />
    </label>
    <label v-if="hasChords" class="slide">
      bass and chords
      <input
        v-model.number="backingLevel"
        type="range"
        min="0"
        max="1"
        step="0.01"
        @focus="caution = true"
        @blur="caution = false"
      />
    </label>
    <span v-if="caution || level > 0.8" class="soft caution"
      >Keep it at a level you can talk over; long loud listening harms the ears.</span
    >
    <slot />
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  align-items: center;
  padding: 0.5rem 0;
  position: sticky;
  bottom: 0;
  background: var(--paper);
  z-index: 3;
}
.tick,
.slide {
  display: inline-flex;
  gap: 0.35rem;
  align-items: center;
}
.slide input {
  width: 6rem;
  accent-color: var(--cool);
}
.tick input {
  accent-color: var(--cool);
}
.caution {
  font-size: 0.85rem;
}
</style>
