<script setup lang="ts">
import type { PieceBody, StudentOfSong } from '@jam-ledger/contract';
import { PRACTICE_TEMPO_RANGE, startTempo, tempoLadder, type TempoAdvice } from '@jam-ledger/core/pieces';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { computed, ref, watchEffect } from 'vue';
import { FieldRow, useForm } from '../../ui/index.ts';
import { TempoLadder } from '../../playing/index.ts';

const props = defineProps<{
  phraseId: string;
  student: StudentOfSong;
  /** The song’s tempo where the phrase stands. */
  tempo: number;
  /** How hard it is for the student, once that is computed. */
  difficulty: number | undefined;
  /** Slower than this it loses its sense; computed along with how hard it is. */
  floor: TempoAdvice | undefined;
  assign: (body: PieceBody) => Promise<void>;
}>();

const { min, max } = PRACTICE_TEMPO_RANGE;
const clamped = (bpm: number) => Math.min(max, Math.max(min, Math.round(bpm)));
const { fields, problems, trouble, busy, send } = useForm('pieceSchema', {
  phraseId: props.phraseId,
  startBpm: min,
  targetBpm: clamped(props.tempo),
  floorBpm: null,
  difficulty: null,
});

const advice = computed(() =>
  startTempo(Math.max(min, fields.targetBpm), {
    difficulty: props.difficulty ?? USUAL_DIFFICULTY,
    shown: props.student.shown,
    floor: props.floor?.bpm,
  }),
);
/** Before hands have computed the phrase it counts as middling. */
const USUAL_DIFFICULTY = 40;
/** The start follows what is proposed until somebody types one. */
const typed = ref(false);
function typeStart(bpm: number | null): void {
  typed.value = true;
  if (bpm !== null) fields.startBpm = bpm;
}
watchEffect(() => {
  fields.floorBpm = props.floor ? Math.min(props.floor.bpm, fields.targetBpm) : null;
  fields.difficulty = props.difficulty ?? null;
  if (!typed.value) fields.startBpm = advice.value.bpm;
});
const percent = computed({
  get: () => Math.round((fields.targetBpm / props.tempo) * 100),
  set: (share: number | null) => {
    if (share !== null) fields.targetBpm = clamped((props.tempo * share) / 100);
  },
});

const rungs = computed(() => {
  const { startBpm: start, targetBpm } = fields;
  try {
    return tempoLadder({ start, target: targetBpm, school: props.student.schools.raising }).rungs;
  } catch {
    return [];
  }
});
</script>

<template>
  <form class="assign" novalidate aria-label="Assign as a practice piece" @submit.prevent="send(assign)">
    <h3>Assign to {{ student.name }}</h3>
    <div class="pair">
      <FieldRow v-slot="{ id, invalid }" label="Start" hint="bpm" :problem="problems['startBpm']">
        <InputNumber
          :model-value="fields.startBpm"
          :input-id="id"
          :invalid="invalid"
          :use-grouping="false"
          :min="0"
          :max="999"
          @update:model-value="typeStart"
        />
      </FieldRow>
      <FieldRow v-slot="{ id }" label="Of the song" hint="%">
        <InputNumber v-model="percent" :input-id="id" :use-grouping="false" :min="1" :max="200" />
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
    <p class="soft why">
      {{ advice.reason }}<template v-if="floor"> {{ floor.reason }}</template>
    </p>
    <TempoLadder v-if="rungs.length > 0" :rungs="rungs" />
    <p v-else class="soft">The rungs appear here once start and target make a ladder.</p>
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
  grid-template-columns: repeat(3, 1fr);
  gap: 0.6rem;
}
.pair :deep(input) {
  width: 100%;
}
.why {
  font-size: 0.88rem;
}
.trouble {
  color: var(--warm);
}
</style>
