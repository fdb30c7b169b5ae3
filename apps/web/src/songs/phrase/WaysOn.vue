<script setup lang="ts">
import type { Fix, Problem } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed } from 'vue';

/** Under the text: where work goes on from it, a few steps of the Tab key away. */
const props = defineProps<{
  problems: readonly Problem<string>[];
  /** To whom the phrase can be assigned; undefined where it is, or cannot be. */
  student: string | undefined;
}>();
const emit = defineEmits<{ fix: [fix: Fix]; say: []; addPhrase: []; assign: [] }>();

const first = computed(() => props.problems.find(({ fix }) => fix !== undefined)?.fix);
</script>

<template>
  <p class="ways-on screen-only" role="group" aria-label="On from the text">
    <Button
      v-if="first"
      size="small"
      text
      severity="warn"
      :label="first.title"
      :aria-label="`Fix the first remark: ${first.title}`"
      @click="emit('fix', first)"
    />
    <Button size="small" text label="Say it" title="Alt-y" @click="emit('say')" />
    <Button size="small" text label="New phrase" title="Alt-n" @click="emit('addPhrase')" />
    <Button v-if="student" size="small" text :label="`Assign to ${student}`" @click="emit('assign')" />
  </p>
</template>

<style scoped>
.ways-on {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.5rem;
  margin: -0.4rem 0 0 -0.5rem;
}
</style>
