<script setup lang="ts">
import type { Section } from '@jam-ledger/contract';
import { readMeter } from '@jam-ledger/core/notation';
import { computed } from 'vue';
import { clockText } from '../composables/useDays.ts';

const props = defineProps<{ sections: readonly Section[]; tempo: number; meter: string; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [id: string] }>();

/** Seconds a section lasts by its bars and the tempo. */
function lasts({ bars }: Section): number {
  const meter = readMeter(props.meter);
  return bars * (((meter?.beats ?? 4) * 4) / (meter?.unit ?? 4)) * (60 / props.tempo);
}

const total = computed(() => Math.max(1, ...props.sections.map((section) => section.startSeconds + lasts(section))));
const shown = computed(() =>
  props.sections.map((section) => ({
    section,
    left: (section.startSeconds / total.value) * 100,
    width: Math.max(1.5, (lasts(section) / total.value) * 100),
  })),
);
</script>

<template>
  <div class="strip" aria-label="Form of the song, to scale against the clock" role="group">
    <button
      v-for="{ section, left, width } in shown"
      :key="section.id"
      type="button"
      :class="['block', { chosen: section.id === chosen }]"
      :style="{ left: `${left}%`, width: `${width}%` }"
      :title="`${section.label}, ${section.role}, from ${clockText(section.startSeconds)}, ${section.bars} bars`"
      @click="emit('choose', section.id)"
    >
      <strong>{{ section.label }}</strong> <span>{{ clockText(section.startSeconds) }}</span>
    </button>
  </div>
</template>

<style scoped>
.strip {
  position: relative;
  height: 2.3rem;
  border-bottom: 2px solid var(--ink);
  background: repeating-linear-gradient(90deg, transparent 0 calc(5% - 1px), var(--rule) calc(5% - 1px) 5%);
}
.block {
  position: absolute;
  bottom: 0;
  height: 1.9rem;
  border: 1px solid var(--rule-strong);
  border-bottom: 0;
  background: var(--page);
  color: var(--ink);
  text-align: left;
  padding: 0 0.35rem;
  overflow: hidden;
  white-space: nowrap;
  cursor: pointer;
  min-width: 3.6rem;
}
.block span {
  color: var(--ink-soft);
  font-size: 0.85rem;
}
.block.chosen {
  border-color: var(--warm);
  border-width: 2px 2px 0;
  background: var(--warm-wash);
  z-index: 1;
}
.block:hover {
  z-index: 2;
}
</style>
