<script setup lang="ts">
import Button from 'primevue/button';
import { useLocalStorage } from '@vueuse/core';
import { ref, watch } from 'vue';
import LevelSlide from './LevelSlide.vue';
import type { useListening } from './useListening.ts';
import { TickBox } from '../ui/index.ts';

const props = defineProps<{ listening: ReturnType<typeof useListening>; bpm: number; disabled: boolean }>();
const emit = defineEmits<{ play: [] }>();
const { player, loop, countIn, hasChords } = props.listening;
const { playing, counting, level, clickLevel, backingLevel } = player;
watch([level, clickLevel, backingLevel], () => player.setLevels());
const caution = ref(false);
const areLevelsShown = useLocalStorage('jam-levels', false);
</script>

<template>
  <div class="bar" role="group" aria-label="Listening">
    <Button v-if="!playing" :label="`Hear it at ${bpm}`" icon="pi pi-play" :disabled="disabled" @click="emit('play')" />
    <Button
      v-else
      :label="counting ? 'Counting in… stop' : 'Stop'"
      icon="pi pi-stop"
      severity="secondary"
      @click="player.stop()"
    />
    <TickBox v-model="countIn">count-in</TickBox>
    <TickBox v-model="loop">loop</TickBox>
    <Button
      text
      severity="secondary"
      label="Levels"
      :icon="areLevelsShown ? 'pi pi-angle-down' : 'pi pi-angle-right'"
      :aria-expanded="areLevelsShown"
      @click="areLevelsShown = !areLevelsShown"
    />
    <span v-if="caution || level > 0.8" class="soft caution"
      >Keep it at a level you can talk over; long loud listening harms the ears.</span
    >
    <slot />
    <span v-if="areLevelsShown" class="levels">
      <LevelSlide v-model="level" label="guitar" @touched="caution = $event" />
      <LevelSlide v-model="clickLevel" label="click" @touched="caution = $event" />
      <LevelSlide v-if="hasChords" v-model="backingLevel" label="bass and chords" @touched="caution = $event" />
    </span>
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
.levels {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.4rem;
  width: 100%;
}
.caution {
  font-size: 0.85rem;
}
</style>
