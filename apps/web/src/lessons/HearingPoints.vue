<script setup lang="ts">
import { LESSON_LIMITS } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { ref, useTemplateRef } from 'vue';
import type { InspectedPoint } from './useHearing.ts';
import { LineButton } from '../ui/index.ts';

const props = defineProps<{ points: readonly InspectedPoint[]; chosen: number }>();
const emit = defineEmits<{ choose: [index: number]; right: []; remark: [text: string] }>();

const text = ref('');
const field = useTemplateRef('field');

function keep(): void {
  if (text.value.trim() === '') return;
  emit('remark', text.value.trim());
  text.value = '';
}
/** Puts the caret into the field for a remark. */
function write(): void {
  const root: unknown = field.value && '$el' in field.value ? field.value.$el : undefined;
  if (root instanceof HTMLElement) root.focus();
}
defineExpose({ write });

function signOf({ heard }: InspectedPoint): string {
  return heard === undefined ? '○' : heard.isRight ? '✓' : '✗';
}
function saysOf({ heard }: InspectedPoint): string {
  return heard === undefined ? 'not heard yet' : heard.isRight ? 'right' : 'not right yet';
}
</script>

<template>
  <section aria-label="Hearing list">
    <h3>Listen for</h3>
    <p v-if="points.length === 0" class="soft">This phrase has no bends, slides, slurs or cut-offs to inspect.</p>
    <template v-else>
      <ol class="quiet-list">
        <li v-for="(one, index) in points" :key="`${one.point.at} ${one.point.kind} ${one.point.says}`">
          <LineButton
            :class="['point', { chosen: index === props.chosen }]"
            :aria-pressed="index === props.chosen"
            @click="emit('choose', index)"
          >
            <span class="sign" :title="saysOf(one)" :aria-label="saysOf(one)" role="img">{{ signOf(one) }}</span>
            <span
              ><span class="soft">{{ one.point.place }}</span> {{ one.point.says }}
              <em v-if="one.heard?.remark">{{ one.heard.remark }}</em></span
            >
          </LineButton>
        </li>
      </ol>
      <form class="row" @submit.prevent="keep">
        <Button type="button" size="small" label="Right" title="t" @click="emit('right')" />
        <InputText
          ref="field"
          v-model="text"
          aria-label="What was not right"
          placeholder="what was not right"
          :maxlength="LESSON_LIMITS.remark"
        />
        <Button type="submit" size="small" outlined label="Remark" :disabled="text.trim() === ''" />
        <span class="soft keys"><kbd>k</kbd> <kbd>j</kbd> choose <kbd>t</kbd> right <kbd>r</kbd> remark</span>
      </form>
    </template>
  </section>
</template>

<style scoped>
ol {
  max-height: 15rem;
  overflow-y: auto;
}
.point {
  display: grid;
  grid-template-columns: 1.3rem minmax(0, 1fr);
  width: 100%;
  padding: 0.15rem 0.4rem;
}
.point:focus-visible {
  outline: 2px solid var(--focus);
  outline-offset: -2px;
}
.point.chosen {
  background: var(--warm-wash);
}
.sign {
  font-weight: 700;
}
em {
  display: block;
  color: var(--warm);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.3rem;
}
.row input {
  flex: 1;
  min-width: 10rem;
}
.keys {
  font-size: 0.85rem;
}
</style>
