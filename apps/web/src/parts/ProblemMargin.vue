<script setup lang="ts">
import type { Fix, Problem, Span } from '@jam-ledger/core/notation';
import Button from 'primevue/button';

defineProps<{ problems: readonly Problem<string>[]; text: string }>();
const emit = defineEmits<{ show: [span: Span]; fix: [fix: Fix] }>();

const GRADES = { error: 'not read', warning: 'look again', hint: 'a question' } as const;

function quote(text: string, { from, to }: Span): string {
  const words = text.slice(from, to).trim();
  if (words === '') return 'at the end';
  return words.length > 22 ? `${words.slice(0, 22)}…` : words;
}
</script>

<template>
  <section aria-label="Problems in the text">
    <h3>Margin</h3>
    <p v-if="problems.length === 0" class="soft">Nothing to remark; it reads as typed.</p>
    <ul class="quiet-list">
      <li v-for="(problem, index) in problems" :key="index" :class="['remark', problem.severity]">
        <button type="button" class="place" :title="`Show it in the text`" @click="emit('show', problem.span)">
          <code>{{ quote(text, problem.span) }}</code>
          <span class="grade">{{ GRADES[problem.severity] }}</span>
        </button>
        <p>{{ problem.message }}</p>
        <Button
          v-if="problem.fix"
          size="small"
          severity="secondary"
          outlined
          :label="problem.fix.title"
          @click="emit('fix', problem.fix)"
        />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.remark {
  border-left: 3px solid var(--warm);
  padding: 0.15rem 0 0.4rem 0.6rem;
  margin-top: 0.7rem;
}
.remark.warning {
  border-left-style: dashed;
}
.remark.hint {
  border-left: 3px dotted var(--cool);
}
.place {
  all: unset;
  cursor: pointer;
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
}
.place:focus-visible {
  outline: 2px solid var(--focus);
}
.place code {
  font-family: var(--type-mono);
  border-bottom: 1px solid var(--rule-strong);
}
.grade {
  color: var(--ink-soft);
  font-size: 0.85rem;
  font-style: italic;
}
</style>
