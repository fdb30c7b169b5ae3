<script setup lang="ts">
import type { Fix, Problem, Span } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed } from 'vue';
import { LineButton } from '../../ui/index.ts';

const props = defineProps<{
  problems: readonly Problem<string>[];
  text: string;
  /** Whether the shorthand has a rule for each, which can be read. */
  hasRules?: boolean;
}>();
const emit = defineEmits<{ show: [span: Span]; fix: [fix: Fix] }>();

const GRADES = { error: 'not read', warning: 'look again', hint: 'a question' } as const;

/** More at once nobody reads; those behind come up as the first are fixed. */
const MAX_SHOWN = 25;
const shown = computed(() => props.problems.slice(0, MAX_SHOWN));

/** What would do, the likeliest first. */
const fixesOf = ({ fix, otherFixes = [] }: Problem<string>): readonly Fix[] => (fix ? [fix, ...otherFixes] : []);

function quote(text: string, { from, to }: Span): string {
  const words = text.slice(from, to).trim();
  if (words === '') return 'at the end';
  return words.length > 22 ? `${words.slice(0, 22)}…` : words;
}
</script>

<template>
  <div>
    <ul class="quiet-list">
      <li v-for="(problem, index) in shown" :key="index" :class="['remark', problem.severity]">
        <LineButton class="place" :title="`Show it in the text`" @click="emit('show', problem.span)">
          <code>{{ quote(text, problem.span) }}</code>
          <span class="grade">{{ GRADES[problem.severity] }}</span>
        </LineButton>
        <p>{{ problem.message }}</p>
        <p class="fixes">
          <a v-if="hasRules" class="rule" :href="`/shorthand?rule=${problem.code}`" target="_blank">The rule</a>
          <Button
            v-for="fix in fixesOf(problem)"
            :key="fix.title"
            size="small"
            severity="secondary"
            outlined
            :label="fix.title"
            @click="emit('fix', fix)"
          />
        </p>
      </li>
    </ul>
    <p v-if="problems.length > MAX_SHOWN" class="soft">And {{ problems.length - MAX_SHOWN }} more.</p>
  </div>
</template>

<style scoped>
.rule {
  padding: 0.2rem 0;
}
.fixes {
  align-items: center;
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}
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
  display: flex;
  gap: 0.5rem;
  align-items: baseline;
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
