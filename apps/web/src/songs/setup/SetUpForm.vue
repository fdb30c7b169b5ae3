<script setup lang="ts">
import { FEELS, LAYERS, PITCH_WAYS, RHYTHMS, SONG_LIMITS, type SetUp, type SetUpChange } from '@jam-ledger/contract';
import { TEMPO_RANGE } from '@jam-ledger/core/notation';
import { isTuningName, readTuning, TUNING_NAMES } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { computed, ref } from 'vue';
import { FieldRow, clockText, readClock, useForm, vFirstField } from '../../ui/index.ts';
import TempoRows from './TempoRows.vue';
import PitchAdvice from './PitchAdvice.vue';
import RigRows from './RigRows.vue';
import StampTempo from './StampTempo.vue';
import TapTempo from './TapTempo.vue';

const props = defineProps<{
  setUp: SetUp;
  version: number;
  /** What it is called on this device while it is half filled in. */
  draft: string;
  save: (change: SetUpChange) => Promise<void>;
}>();
const emit = defineEmits<{ done: [] }>();

/** The choice that lets the strings be typed. */
const BY_STRINGS = 'by its strings …';

const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'setUpSchema',
  { ...props.setUp, version: props.version },
  undefined,
  props.draft,
);
const choice = ref<string>(isTuningName(fields.tuning) ? fields.tuning : BY_STRINGS);
const tuning = computed(() => readTuning(fields.tuning));
const length = ref(fields.songSeconds === null ? '' : clockText(fields.songSeconds));
const lengthProblem = ref<string>();

/** Nothing where nobody said how fast it is; what was supposed goes on being so. */
function sayTempo(bpm: number | null): void {
  fields.tempoKnown = bpm !== null;
  if (bpm !== null) fields.tempo = bpm;
}

function chooseTuning(name: string): void {
  choice.value = name;
  if (name !== BY_STRINGS) fields.tuning = name;
}

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  const seconds = length.value.trim() === '' ? null : readClock(length.value);
  lengthProblem.value = seconds === undefined ? 'Write a time such as 4:31, or nothing.' : undefined;
  if (seconds === undefined) return;
  fields.songSeconds = seconds;
  fields.version = props.version;
  if (await send(props.save)) done();
}
</script>

<template>
  <form v-first-field class="set-up" novalidate aria-label="Set-up" @submit.prevent="submit">
    <FieldRow v-slot="{ id, invalid }" label="Song" class="wide" :problem="problems['title']">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" :maxlength="SONG_LIMITS.title" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Artist" class="wide" :problem="problems['whose']">
      <InputText :id="id" v-model="fields.whose" :invalid="invalid" :maxlength="SONG_LIMITS.whose" />
    </FieldRow>
    <FieldRow
      v-slot="{ labelId, invalid }"
      label="Tuning"
      :problem="choice === BY_STRINGS ? undefined : problems['tuning']"
    >
      <Select
        :model-value="choice"
        :aria-labelledby="labelId"
        :options="[...TUNING_NAMES, BY_STRINGS]"
        :invalid="invalid"
        @update:model-value="chooseTuning"
      />
    </FieldRow>
    <FieldRow
      v-if="choice === BY_STRINGS"
      v-slot="{ id, invalid }"
      label="Strings"
      hint="thickest first"
      :problem="problems['tuning']"
    >
      <InputText
        :id="id"
        v-model="fields.tuning"
        :invalid="invalid"
        placeholder="DADGBE, drop C, Eb …"
        :maxlength="SONG_LIMITS.tuning"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Capo" hint="fret" :problem="problems['capo']">
      <InputNumber
        v-model="fields.capo"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.capo.max"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Frets" hint="on this guitar" :problem="problems['frets']">
      <InputNumber
        v-model="fields.frets"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.frets.max"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Scale length" hint="mm" :problem="problems['scaleLengthMm']">
      <InputNumber
        v-model="fields.scaleLengthMm"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.scaleLengthMm.max"
        :max-fraction-digits="1"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Key" :problem="problems['key']">
      <InputText :id="id" v-model="fields.key" :invalid="invalid" :maxlength="SONG_LIMITS.key" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Or perhaps" hint="where in doubt" :problem="problems['secondKey']">
      <InputText :id="id" v-model="fields.secondKey" :invalid="invalid" :maxlength="SONG_LIMITS.key" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Tempo" hint="quarters/min" :problem="problems['tempo']">
      <InputNumber
        :model-value="fields.tempoKnown ? fields.tempo : null"
        placeholder="not known"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="TEMPO_RANGE.max"
        :max-fraction-digits="1"
        :use-grouping="false"
        @update:model-value="sayTempo"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Meter" :problem="problems['meter']">
      <InputText :id="id" v-model="fields.meter" :invalid="invalid" maxlength="5" />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="Feel" :problem="problems['feel']">
      <Select v-model="fields.feel" :aria-labelledby="labelId" :options="[...FEELS]" />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="Rhythm" :problem="problems['rhythm']">
      <Select v-model="fields.rhythm" :aria-labelledby="labelId" :options="[...RHYTHMS]" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Recording lasts" :problem="lengthProblem ?? problems['songSeconds']">
      <InputText :id="id" v-model="length" :invalid="invalid" placeholder="4:31" maxlength="9" />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="Student’s layer" :problem="problems['studentLayer']">
      <Select v-model="fields.studentLayer" :aria-labelledby="labelId" :options="[...LAYERS]" />
    </FieldRow>
    <TapTempo @tempo="sayTempo" />
    <StampTempo :meter="fields.meter" @tempo="sayTempo" />
    <TempoRows v-model="fields.changes" :problems="problems" />
    <FieldRow
      v-slot="{ id, invalid }"
      label="Recording is off by"
      class="wide"
      hint="cents, + is sharp"
      :problem="problems['offsetCents']"
    >
      <InputNumber
        v-model="fields.offsetCents"
        :input-id="id"
        :invalid="invalid"
        :min="-100"
        :max="100"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="To match it" class="wide" :problem="problems['pitchWay']">
      <Select v-model="fields.pitchWay" :aria-labelledby="labelId" :options="[...PITCH_WAYS]" />
    </FieldRow>
    <PitchAdvice v-if="tuning" :tuning="tuning" :offset-cents="fields.offsetCents ?? 0" :way="fields.pitchWay" />
    <RigRows v-model="fields.rig" :problems="problems" />
    <div class="foot">
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <Button type="submit" size="small" :label="busy ? 'Saving…' : 'Save the set-up'" :disabled="busy" />
      <Button size="small" severity="secondary" text label="Cancel" @click="done()" />
    </div>
  </form>
</template>

<style scoped>
.set-up {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(9.5rem, 1fr));
  gap: 0.7rem 1rem;
  align-items: start;
  padding: 0.8rem 0;
}
.wide {
  grid-column: span 2;
}
.set-up :deep(.field input),
.set-up :deep(.field .p-select) {
  width: 100%;
}
.foot {
  grid-column: 1 / -1;
  display: flex;
  gap: 0.6rem;
  align-items: center;
}
.trouble {
  color: var(--warm);
}
</style>
