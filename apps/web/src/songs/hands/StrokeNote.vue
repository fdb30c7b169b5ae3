<script setup lang="ts">
import type { Span } from '@jam-ledger/core/notation';
import { PICKING_POLICIES, type PickingPolicy, type Stroke } from '@jam-ledger/core/picking';
import Button from 'primevue/button';
import Select from 'primevue/select';
import { computed } from 'vue';
import type { StrokeReport } from '../../tab/index.ts';
import { FoldPart, LineButton } from '../../ui/index.ts';

const policy = defineModel<PickingPolicy>('policy', { required: true });
const props = defineProps<{ strokes: StrokeReport; reversed: StrokeReport; cheapest: StrokeReport }>();
const emit = defineEmits<{ write: [policy: PickingPolicy, reversed: boolean]; show: [span: Span] }>();

const SIGNS: Readonly<Record<Stroke, string>> = { down: '⊓', up: 'V', plucked: 'f', legato: '·', open: '–' };
const WORDS: Readonly<Record<Stroke, string>> = {
  down: 'down',
  up: 'up',
  plucked: 'plucked',
  legato: 'slurred',
  open: 'left open',
};
const MAX_SHOWN = 48;
const shown = computed(() => props.strokes.signs.slice(0, MAX_SHOWN));
const counted = ({ outside, inside, with: along, against }: StrokeReport): string =>
  [
    `${outside} outside`,
    `${inside} inside`,
    along > 0 ? `${along} with the stroke` : '',
    against > 0 ? `${against} against it` : '',
  ]
    .filter(Boolean)
    .join(', ');
const isPlanned = computed(() => props.strokes.signs.some(({ stroke }) => stroke === 'down' || stroke === 'up'));
const isCheaper = computed(() => isPlanned.value && props.reversed.cost < props.strokes.cost - 0.01);
</script>

<template>
  <FoldPart name="strokes" title="Strokes">
    <template #head><kbd>Alt-p</kbd></template>
    <div class="row">
      <Select v-model="policy" size="small" :options="[...PICKING_POLICIES]" aria-label="Strokes" />
      <Button v-if="isPlanned" size="small" text label="Write them in" @click="emit('write', policy, false)" />
    </div>
    <p class="signs" role="group" aria-label="Strokes in order">
      <LineButton
        v-for="(sign, index) in shown"
        :key="index"
        :title="WORDS[sign.stroke]"
        :aria-label="`${index + 1}: ${WORDS[sign.stroke]}`"
        @click="emit('show', sign.span)"
      >
        {{ SIGNS[sign.stroke] }}</LineButton><span v-if="strokes.signs.length > MAX_SHOWN" class="soft"> …</span>
    </p>
    <p v-if="isPlanned">String changes: {{ counted(strokes) }}.</p>
    <p v-else>No stroke is written; the player chooses.</p>
    <p v-if="isPlanned" class="soft">
      Starting with the other stroke: {{ counted(reversed) }}{{ isCheaper ? ', easier' : '' }}.
      <Button size="small" text label="Write that" @click="emit('write', policy, true)" />
    </p>
    <p v-if="policy !== 'cheapest'" class="soft">The cheapest plan: {{ counted(cheapest) }}.</p>
  </FoldPart>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.3rem;
  margin-top: 0.3rem;
}
.signs {
  margin: 0.3rem 0;
  line-height: 1.3;
}
.signs button {
  display: inline-block;
  min-width: 24px;
  min-height: 24px;
  text-align: center;
}
.signs button:hover {
  background: var(--page-sunk);
}
</style>
