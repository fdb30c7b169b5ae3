<script setup lang="ts">
import type { Fix, Problem, Span } from '@jam-ledger/core/notation';
import RemarkList from './RemarkList.vue';

defineProps<{
  /** What was not read as typed, in the text as it stands. */
  problems: readonly Problem[];
  text: string;
  /** What hands, guitar and ear have against it, in the text they were computed for. */
  remarks: readonly Problem<string>[];
  computedFor: string;
}>();
const emit = defineEmits<{ show: [span: Span]; fix: [fix: Fix]; fixHands: [fix: Fix] }>();
</script>

<template>
  <section aria-label="Problems in the text">
    <h3>Margin</h3>
    <p v-if="problems.length + remarks.length === 0" class="soft">Nothing to remark; it reads as typed.</p>
    <RemarkList has-rules :problems="problems" :text="text" @show="emit('show', $event)" @fix="emit('fix', $event)" />
    <!-- Apart, so that typing does not draw them anew. -->
    <RemarkList :problems="remarks" :text="computedFor" @show="emit('show', $event)" @fix="emit('fixHands', $event)" />
  </section>
</template>
