<script setup lang="ts">
import type { Standing } from '@jam-ledger/contract';
import { computed } from 'vue';

const props = defineProps<{ standing: Standing; target: number }>();
const percent = computed(() => Math.round(props.standing.share * 100));
const pencilPercent = computed(() => Math.min(100, Math.round(((props.standing.pencilBpm ?? 0) / props.target) * 100)));
</script>

<template>
  <span class="share" :title="`ink ${standing.inkBpm ?? '–'}, pencil ${standing.pencilBpm ?? '–'}, target ${target}`">
    <span class="track" aria-hidden="true">
      <span class="by-pencil" :style="{ width: `${pencilPercent}%` }"></span>
      <span v-if="standing.by === 'ink'" class="by-ink" :style="{ width: `${percent}%` }"></span>
    </span>
    <span :class="standing.by ?? 'soft'">{{ percent }} %</span>
  </span>
</template>

<style scoped>
.share {
  display: inline-flex;
  align-items: center;
  gap: 0.4rem;
  white-space: nowrap;
}
.track {
  position: relative;
  display: inline-block;
  width: 4rem;
  height: 0.55rem;
  border: 1px solid var(--rule-strong);
  background: var(--page);
}
.track span {
  position: absolute;
  inset: 0 auto 0 0;
}
.by-pencil {
  background: repeating-linear-gradient(135deg, var(--pencil) 0 1px, transparent 1px 4px);
}
.by-ink {
  background: var(--cool);
}
</style>
