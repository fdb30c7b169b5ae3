<script setup lang="ts">
import { computed } from 'vue';
import type { StripBlock } from './formStrip.ts';
import { clockText } from '../../ui/index.ts';

const props = defineProps<{
  block: StripBlock;
  /** Where it starts just now, while it is dragged. */
  fromSeconds: number;
  perSecond: number;
  chosen: boolean;
  small: boolean;
}>();
const emit = defineEmits<{ choose: []; grab: [event: PointerEvent]; key: [event: KeyboardEvent] }>();

/** No block is narrower, so that it can be hit. Pixels. */
const NARROWEST = 26;

const place = computed(() => ({
  left: `${props.fromSeconds * props.perSecond}px`,
  width: `${Math.max(NARROWEST, (props.block.toSeconds - props.fromSeconds) * props.perSecond - 1)}px`,
}));
const title = computed(() => {
  const { label, notes } = props.block;
  const from = props.block.isSupposed ? 'supposed to start at' : 'from';
  return [`${label} ${from} ${clockText(props.fromSeconds)}`, ...notes].join('; ');
});
/** Only where a section is first heard does its stamp stand. */
const isFirst = computed(() => props.block.visit === 1 && props.block.pass === 1);
</script>

<template>
  <button
    type="button"
    :class="['block', { chosen, again: block.visit > 1 }]"
    :style="place"
    :title="title"
    @click="emit('choose')"
    @keydown="emit('key', $event)"
  >
    <strong>{{ block.label }}</strong>
    <span v-if="block.times > 1" class="times">{{ block.open ? '≈' : '' }}{{ block.times }}×</span>
    <span v-if="!small" class="start">{{ block.isSupposed ? '≈ ' : '' }}{{ clockText(fromSeconds) }}</span>
    <span v-if="!small && block.notes.length > 0" class="note">{{ block.notes[0] }}</span>
    <span
      v-if="isFirst"
      class="edge"
      title="Drag to move the start; Alt and the arrow keys do the same"
      @pointerdown.stop="emit('grab', $event)"
    ></span>
  </button>
</template>

<style scoped>
.block {
  position: absolute;
  top: 2px;
  bottom: 0;
  border: 1px solid var(--rule-strong);
  border-bottom: 0;
  background: var(--page);
  color: var(--ink);
  text-align: left;
  padding: 0 0.35rem;
  overflow: hidden;
  white-space: nowrap;
  cursor: pointer;
  font-size: 0.92rem;
}
.block.again {
  background: repeating-linear-gradient(135deg, var(--page) 0 7px, var(--paper) 7px 9px);
}
.block.chosen {
  border-color: var(--warm);
  border-width: 2px 2px 0;
  background: var(--warm-wash);
  z-index: 1;
}
.block:focus-visible {
  outline: 2px solid var(--focus);
  outline-offset: -2px;
}
.times {
  color: var(--warm);
  font-weight: 600;
  margin-left: 0.25rem;
}
.start {
  color: var(--ink-soft);
  font-size: 0.82rem;
  margin-left: 0.25rem;
}
.note {
  display: block;
  font-size: 0.75rem;
  font-style: italic;
  color: var(--ink-soft);
  overflow: hidden;
  text-overflow: ellipsis;
}
.edge {
  position: absolute;
  left: 0;
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: ew-resize;
  touch-action: none;
}
.edge:hover {
  background: var(--warm);
}
/* A finger needs more of it. */
@media (pointer: coarse) {
  .edge {
    width: 24px;
  }
}
</style>
