<script setup lang="ts">
import { pieceSchema, type PieceBody } from '@jam-ledger/contract';
import { PRACTICE_TEMPO_RANGE, tempoLadder } from '@jam-ledger/core/pieces';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { computed } from 'vue';
import { useForm } from '../composables/useForm.ts';
import FieldRow from './FieldRow.vue';
import TempoLadder from './TempoLadder.vue';

const props = defineProps<{
  phraseId: string;
  student: string;
  tempo: number;
  assign: (body: PieceBody) => Promise<void>;
}>();

/** A slow start: this share of the target. Common practice: half to two thirds. */
const START_SHARE = 0.6;
const target = Math.min(PRACTICE_TEMPO_RANGE.most, Math.max(PRACTICE_TEMPO_RANGE.least, Math.round(props.tempo)));
const startBpm = Math.max(PRACTICE_TEMPO_RANGE.least, Math.round(target * START_SHARE));
const { fields, problems, trouble, busy, send } = useForm(pieceSchema, {
  phraseId: props.phraseId,
  startBpm,
  targetBpm: target,
});

const rungs = computed(() => {
  const { startBpm: start, targetBpm } = fields;
  try {
    return tempoLadder({ start, target: targetBpm, school: 'even-steps' }).rungs;
  } catch {
    return [];
  }
});
</script>

<template>
  <form class="assign" novalidate aria-label="Assign as a practice piece" @submit.prevent="send(assign)">
    <h3>Assign to {{ student }}</h3>
    <div class="pair">
      <FieldRow v-slot="{ id, invalid }" label="Start" hint="bpm" :problem="problems['startBpm']">
        <InputNumber
          v-model="fields.startBpm"
          :input-id="id"
          :invalid="invalid"
          :use-grouping="false"
          :min="0"
          :max="999"
        />
      </FieldRow>
      <FieldRow v-slot="{ id, invalid }" label="Target" hint="bpm" :problem="problems['targetBpm']">
        <InputNumber
          v-model="fields.targetBpm"
          :input-id="id"
          :invalid="invalid"
          :use-grouping="false"
          :min="0"
          :max="999"
        />
      </FieldRow>
    </div>
    <!-- Above the rungs, whose number changes as a field is left: the button must not move under the pointer. -->
    <Button type="submit" size="small" :label="busy ? 'Assigning…' : 'Assign it'" :disabled="busy" />
    <TempoLadder v-if="rungs.length > 0" :rungs="rungs" />
    <p v-else class="soft">The rungs stand here once start and target make a ladder.</p>
    <p v-if="problems['phraseId'] ?? trouble" class="trouble" role="alert">{{ problems['phraseId'] ?? trouble }}</p>
  </form>
</template>

<style scoped>
.assign {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.6rem;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.6rem;
}
.pair :deep(input) {
  width: 100%;
}
.trouble {
  color: var(--warm);
}
</style>
