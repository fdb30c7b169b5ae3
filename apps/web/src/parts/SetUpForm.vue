<script setup lang="ts">
import { setUpSchema, SONG_LIMITS, type SetUp, type SetUpChange } from '@jam-ledger/contract';
import { TEMPO_RANGE } from '@jam-ledger/core/notation';
import { TUNING_NAMES } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { useForm } from '../composables/useForm.ts';
import FieldRow from './FieldRow.vue';
import TapTempo from './TapTempo.vue';

const props = defineProps<{ setUp: SetUp; version: number; save: (change: SetUpChange) => Promise<void> }>();
const emit = defineEmits<{ done: [] }>();

const { title, whose, tuning, capo, key, tempo, meter, frets, offsetCents } = props.setUp;
const first: SetUpChange = {
  title,
  whose,
  tuning,
  capo,
  key,
  tempo,
  meter,
  frets,
  offsetCents,
  version: props.version,
};
const { fields, problems, trouble, busy, send } = useForm(setUpSchema, first);

async function submit(): Promise<void> {
  const saved = await send(props.save);
  if (saved) emit('done');
}
</script>

<template>
  <form class="set-up" novalidate aria-label="Set-up" @submit.prevent="submit">
    <FieldRow v-slot="{ id, invalid }" label="Song" class="wide" :problem="problems['title']">
      <InputText :id="id" v-model="fields.title" :invalid="invalid" :maxlength="SONG_LIMITS.title" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Whose" class="wide" :problem="problems['whose']">
      <InputText :id="id" v-model="fields.whose" :invalid="invalid" :maxlength="SONG_LIMITS.whose" />
    </FieldRow>
    <FieldRow v-slot="{ labelId, invalid }" label="Tuning" :problem="problems['tuning']">
      <Select v-model="fields.tuning" :aria-labelledby="labelId" :options="[...TUNING_NAMES]" :invalid="invalid" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Capo" hint="fret" :problem="problems['capo']">
      <InputNumber
        v-model="fields.capo"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.capo.most"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Key" :problem="problems['key']">
      <InputText :id="id" v-model="fields.key" :invalid="invalid" :maxlength="SONG_LIMITS.key" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Tempo" hint="quarters a minute" :problem="problems['tempo']">
      <InputNumber
        v-model="fields.tempo"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="TEMPO_RANGE.most"
        :max-fraction-digits="1"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Meter" :problem="problems['meter']">
      <InputText :id="id" v-model="fields.meter" :invalid="invalid" maxlength="5" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Frets" hint="on this guitar" :problem="problems['frets']">
      <InputNumber
        v-model="fields.frets"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.frets.most"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow
      v-slot="{ id, invalid }"
      label="Recording is off by"
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
    <TapTempo @tempo="fields.tempo = $event" />
    <div class="foot">
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <Button type="submit" size="small" :label="busy ? 'Keeping…' : 'Keep this set-up'" :disabled="busy" />
      <Button size="small" severity="secondary" text label="Leave it" @click="emit('done')" />
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
.set-up :deep(input),
.set-up :deep(.p-select) {
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
