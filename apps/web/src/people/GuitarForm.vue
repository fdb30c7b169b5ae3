<script setup lang="ts">
import { GUITAR_LIMITS, SONG_LIMITS, type Schools, type Student, type StudentChange } from '@jam-ledger/contract';
import { reachOfHand } from '@jam-ledger/core/fretboard';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import { computed } from 'vue';
import { withSchool } from '../schools/index.ts';
import { FieldRow, useForm, vFirstField, TickBox } from '../ui/index.ts';
import SchoolList from './SchoolList.vue';

const props = defineProps<{ student: Student; studio: Schools; save: (change: StudentChange) => Promise<void> }>();
const emit = defineEmits<{ done: [] }>();

const { version, guitar, schools } = props.student;
const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'studentChangeSchema',
  {
    version,
    guitar: { ...guitar },
    schools: { ...schools },
  },
  undefined,
  `guitar ${props.student.id} ${version}`,
);
const reach = computed(() => {
  const { spanFrets } = fields.guitar;
  const mm = reachOfHand(fields.guitar);
  return spanFrets === null ? `not asked yet; ${mm} mm is assumed` : `5 to ${5 + spanFrets} is ${Math.round(mm)} mm`;
});

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  fields.version = props.student.version;
  if (await send(props.save)) done();
}
</script>

<template>
  <form
    v-first-field
    class="guitar"
    novalidate
    :aria-label="`Guitar and hand of ${student.name}`"
    @submit.prevent="submit"
  >
    <FieldRow v-slot="{ id, invalid }" label="Frets" :problem="problems['guitar.frets']">
      <InputNumber
        v-model="fields.guitar.frets"
        :input-id="id"
        :invalid="invalid"
        :min="SONG_LIMITS.frets.min"
        :max="SONG_LIMITS.frets.max"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Strings" :problem="problems['guitar.strings']">
      <InputNumber
        v-model="fields.guitar.strings"
        :input-id="id"
        :invalid="invalid"
        :min="GUITAR_LIMITS.strings.min"
        :max="GUITAR_LIMITS.strings.max"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Scale length" hint="mm" :problem="problems['guitar.scaleLengthMm']">
      <InputNumber
        v-model="fields.guitar.scaleLengthMm"
        :input-id="id"
        :invalid="invalid"
        :max-fraction-digits="1"
        :min="SONG_LIMITS.scaleLengthMm.min"
        :max="SONG_LIMITS.scaleLengthMm.max"
      />
    </FieldRow>
    <div class="checks">
      <TickBox v-model="fields.guitar.tremoloArm">tremolo arm</TickBox>
      <TickBox v-model="fields.guitar.leftHanded">left-handed</TickBox>
    </div>
    <FieldRow
      v-slot="{ id, invalid }"
      label="With the first finger at fret 5, how many frets further can the fourth comfortably reach?"
      :hint="reach"
      class="wide"
      :problem="problems['guitar.spanFrets']"
    >
      <InputNumber
        v-model="fields.guitar.spanFrets"
        :input-id="id"
        :invalid="invalid"
        :min="GUITAR_LIMITS.spanFrets.min"
        :max="GUITAR_LIMITS.spanFrets.max"
        placeholder="4"
      />
    </FieldRow>
    <SchoolList
      :schools="fields.schools"
      :studio="studio"
      @choose="(name, word) => (fields.schools = withSchool(fields.schools, name, word))"
    />
    <p v-if="trouble" class="trouble wide" role="alert">{{ trouble }}</p>
    <div class="wide buttons">
      <Button type="submit" label="Save" :disabled="busy" />
      <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
    </div>
  </form>
</template>

<style scoped>
.guitar {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(13rem, 1fr));
  gap: 0.8rem 1.2rem;
  align-items: start;
  padding: 0.8rem 0 1rem;
  max-width: 60rem;
}
.wide {
  grid-column: 1 / -1;
}
.guitar :deep(.p-inputnumber) {
  width: 7rem;
}
.guitar :deep(.p-inputnumber-input) {
  width: 100%;
}
.checks {
  display: flex;
  flex-direction: column;
  align-self: end;
}
.checks input {
  accent-color: var(--cool);
}
.buttons {
  display: flex;
  gap: 0.5rem;
}
.trouble {
  color: var(--warm);
}
</style>
