<script setup lang="ts">
import { computed } from 'vue';

const props = defineProps<{ rungs: readonly number[]; now?: number | undefined; chosen?: number | undefined }>();
const emit = defineEmits<{ choose: [bpm: number] }>();

const shown = computed(() => [...props.rungs].reverse());
</script>

<template>
  <ol class="ladder quiet-list" aria-label="Rungs of the ladder, fastest first">
    <li v-for="(bpm, index) in shown" :key="bpm">
      <button
        type="button"
        :class="['rung', { now: bpm === now, chosen: bpm === chosen }]"
        :aria-pressed="bpm === chosen"
        @click="emit('choose', bpm)"
      >
        <span class="bpm">{{ bpm }}</span>
        <span class="word"
          >{{ index === 0 ? 'target' : index === shown.length - 1 ? 'start' : ''
          }}{{ bpm === now ? ' ← next' : '' }}</span
        >
      </button>
    </li>
  </ol>
</template>

<style scoped>
.ladder {
  display: inline-flex;
  flex-direction: column;
  border-left: 3px solid var(--rule-strong);
  border-right: 3px solid var(--rule-strong);
  min-width: 9rem;
}
.rung {
  all: unset;
  box-sizing: border-box;
  width: 100%;
  display: flex;
  justify-content: space-between;
  gap: 0.75rem;
  padding: 0.16rem 0.6rem;
  border-bottom: 2px solid var(--rule);
  cursor: pointer;
}
.rung:hover {
  background: var(--page-sunk);
}
.rung:focus-visible {
  outline: 2px solid var(--focus);
}
.rung.now {
  border-bottom-color: var(--warm);
}
.rung.chosen {
  background: var(--cool);
  color: var(--on-accent);
}
.bpm {
  font-weight: 650;
}
.word {
  color: var(--ink-soft);
  font-size: 0.85rem;
}
.rung.chosen .word {
  color: inherit;
}
</style>
