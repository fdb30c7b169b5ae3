<script setup lang="ts">
import { SECTION_ROLES, SONG_LIMITS, type SectionBody, type SectionPass, type TempoMark } from '@jam-ledger/contract';
import { readMeter, TEMPO_RANGE } from '@jam-ledger/core/notation';
import { readKey } from '@jam-ledger/core/pitch';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { ref, toRefs } from 'vue';
import { FieldRow, clockText, readClock, useDraft, useForm, vFirstField, TickBox } from '../../ui/index.ts';
import { sectionBody } from '../song.ts';

const props = defineProps<{
  first: SectionBody;
  /** Sections to which the form may jump back after this one. */
  earlier: readonly { readonly id: string; readonly label: string }[];
  /** What changes at its start, and what holds there otherwise. */
  change: TempoMark | undefined;
  inForce: { readonly tempo: number; readonly meter: string };
  save: (body: SectionBody, change: TempoMark | undefined) => Promise<void>;
  word: string;
  /** What it is called on this device while it is half filled in. */
  draft: string;
}>();
const emit = defineEmits<{ done: [] }>();

const begun = sectionBody(props.first);
const { fields, problems, trouble, busy, send, giveUp } = useForm('sectionSchema', begun, undefined, props.draft);
/** What is said of it besides, as it is typed: tempo, meter and key from here on are empty where they go on. */
const beside = useDraft(
  {
    clock: begun.startKnown ? clockText(begun.startSeconds) : '',
    bars: begun.barsKnown ? begun.bars : null,
    tempo: props.change?.tempo ?? null,
    meter: props.change?.meter ?? '',
    key: props.change?.key ?? '',
  },
  `${props.draft} beside`,
);
const here = beside.fields;
const { clock, bars } = toRefs(here);
const hereProblem = ref<string>();
const otherGuitar = ref(begun.tuning !== null || begun.capo !== null);
const clockProblem = ref<string>();
const GO_ON = 'go on';

function addPass(): void {
  fields.passes = [...fields.passes, { pass: 'last', change: '' }];
}

function setPass(index: number, change: Partial<SectionPass>): void {
  fields.passes = fields.passes.map((pass, at) => (at === index ? { ...pass, ...change } : pass));
}

/** Which pass, as it is typed: a number, or “last”. */
function typePass(index: number, typed: string | undefined): void {
  const number = Number(typed);
  setPass(index, { pass: typed?.trim() !== '' && Number.isInteger(number) ? number : 'last' });
}

function typeBars(index: number, typed: number | null): void {
  fields.passes = fields.passes.map(({ pass, change, bars: before }, at) => {
    const now = at === index ? typed : (before ?? null);
    return { pass, change, ...(now !== null && { bars: now }) };
  });
}

function changeHere(atSeconds: number): TempoMark | undefined | 'bad' {
  const { tempo, meter, key } = here;
  hereProblem.value = undefined;
  if (tempo === null && meter.trim() === '' && key.trim() === '') return undefined;
  if (meter.trim() !== '' && !readMeter(meter.trim())) hereProblem.value = 'Write a meter such as 3/4.';
  else if (key.trim() !== '' && !readKey(key)) hereProblem.value = 'Write a key such as A minor.';
  if (hereProblem.value !== undefined) return 'bad';
  const { inForce } = props;
  return { atSeconds, tempo: tempo ?? inForce.tempo, meter: meter.trim() || inForce.meter, key: key.trim() };
}

function done(): void {
  giveUp();
  beside.giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  const isKnown = clock.value.trim() !== '';
  const seconds = isKnown ? readClock(clock.value) : fields.startSeconds;
  clockProblem.value = seconds === undefined ? 'Write a time such as 1:09, or nothing.' : undefined;
  if (seconds === undefined) return;
  Object.assign(fields, { startSeconds: seconds, startKnown: isKnown, barsKnown: bars.value !== null });
  fields.bars = bars.value ?? begun.bars;
  if (!otherGuitar.value) Object.assign(fields, { tuning: null, capo: null });
  const change = changeHere(seconds);
  if (change === 'bad') return;
  if (await send((body) => props.save(body, change))) done();
}
</script>

<template>
  <form v-first-field class="section-form" novalidate aria-label="Section" @submit.prevent="submit">
    <FieldRow v-slot="{ id, invalid }" label="Label" :problem="problems['label']">
      <InputText :id="id" v-model="fields.label" :invalid="invalid" :maxlength="SONG_LIMITS.label" autofocus />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Role" :problem="problems['role']">
      <InputText
        :id="id"
        v-model="fields.role"
        list="section-roles"
        :invalid="invalid"
        :maxlength="SONG_LIMITS.label"
      />
      <datalist id="section-roles">
        <option v-for="known in SECTION_ROLES" :key="known" :value="known"></option>
      </datalist>
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Starts at" :problem="clockProblem ?? problems['startSeconds']">
      <InputText :id="id" v-model="clock" :invalid="clockProblem !== undefined" placeholder="not known" maxlength="9" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Bars" :problem="problems['bars']">
      <InputNumber
        v-model="bars"
        placeholder="not known"
        :input-id="id"
        :invalid="invalid"
        :min="0"
        :max="SONG_LIMITS.bars.max"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Times played" :problem="problems['times']">
      <InputNumber v-model="fields.times" :input-id="id" :invalid="invalid" :min="0" :max="SONG_LIMITS.times" />
    </FieldRow>
    <TickBox v-model="fields.open" class="fade">about so often, to the fade</TickBox>
    <FieldRow v-slot="{ id }" label="Tempo from here">
      <InputNumber
        v-model="here.tempo"
        :input-id="id"
        placeholder="as before"
        :min="TEMPO_RANGE.min"
        :max="TEMPO_RANGE.max"
        :use-grouping="false"
      />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Meter from here" :problem="hereProblem">
      <InputText :id="id" v-model="here.meter" placeholder="as before" maxlength="5" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Key from here">
      <InputText :id="id" v-model="here.key" placeholder="as before" :maxlength="SONG_LIMITS.key" />
    </FieldRow>
    <label class="tick"><Checkbox v-model="otherGuitar" binary /> another guitar from here on</label>
    <FieldRow v-if="otherGuitar" v-slot="{ id, invalid }" label="Tuning" :problem="problems['tuning']">
      <InputText
        :id="id"
        :model-value="fields.tuning ?? ''"
        placeholder="drop D, Eb …"
        :invalid="invalid"
        :maxlength="SONG_LIMITS.tuning"
        @update:model-value="fields.tuning = $event?.trim() ? $event.trim() : null"
      />
    </FieldRow>
    <FieldRow v-if="otherGuitar" v-slot="{ id, invalid }" label="Capo" hint="fret" :problem="problems['capo']">
      <InputNumber v-model="fields.capo" :input-id="id" :invalid="invalid" :min="0" :max="SONG_LIMITS.capo.max" />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="After it" :problem="problems['jump.to']">
      <Select
        :model-value="fields.jump?.to ?? GO_ON"
        :aria-labelledby="labelId"
        :options="[
          { id: GO_ON, label: GO_ON },
          ...earlier.map((one) => ({ id: one.id, label: `back to ${one.label}` })),
        ]"
        option-label="label"
        option-value="id"
        @update:model-value="fields.jump = $event === GO_ON ? null : { to: $event, times: fields.jump?.times ?? 1 }"
      />
    </FieldRow>
    <FieldRow v-if="fields.jump" v-slot="{ id }" label="How many times back" :problem="problems['jump.times']">
      <InputNumber
        :model-value="fields.jump.times"
        :input-id="id"
        :min="1"
        :max="SONG_LIMITS.times"
        @update:model-value="fields.jump = { to: fields.jump?.to ?? '', times: $event ?? 1 }"
      />
    </FieldRow>
    <fieldset class="passes">
      <legend>What is different when</legend>
      <div v-for="(pass, index) in fields.passes" :key="index" class="pass">
        <label
          >time
          <InputText
            :model-value="String(pass.pass)"
            size="small"
            :aria-label="`Which time, line ${index + 1}`"
            :invalid="problems[`passes.${index}.pass`] !== undefined"
            @update:model-value="typePass(index, $event)"
        /></label>
        <InputText
          :model-value="pass.change"
          class="change"
          size="small"
          placeholder="stops on the power chord"
          :aria-label="`What is different, line ${index + 1}`"
          :invalid="problems[`passes.${index}.change`] !== undefined"
          :maxlength="SONG_LIMITS.passChange"
          @update:model-value="setPass(index, { change: $event ?? '' })"
        />
        <label
          >bars
          <InputNumber
            :model-value="pass.bars ?? null"
            size="small"
            :aria-label="`Its bars, line ${index + 1}`"
            :min="1"
            :max="SONG_LIMITS.bars.max"
            @update:model-value="typeBars(index, $event)"
        /></label>
        <Button
          size="small"
          text
          severity="secondary"
          icon="pi pi-times"
          :aria-label="`Remove line ${index + 1}`"
          @click="fields.passes = fields.passes.filter((_, at) => at !== index)"
        />
        <p v-if="problems[`passes.${index}.change`]" class="trouble" role="alert">
          {{ problems[`passes.${index}.change`] }}
        </p>
      </div>
      <Button size="small" text label="Add a line: left out or replaced" @click="addPass" />
    </fieldset>
    <div class="foot">
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <Button type="submit" size="small" :label="busy ? 'Saving…' : word" :disabled="busy" />
      <Button size="small" severity="secondary" text label="Cancel" @click="done()" />
    </div>
  </form>
</template>

<style scoped>
.section-form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
  gap: 0.6rem 1rem;
  padding: 0.7rem 0;
  border-bottom: 1px solid var(--rule);
}
.section-form :deep(.field input),
.section-form :deep(.p-select) {
  width: 100%;
}
.fade {
  align-self: end;
  padding-bottom: 0.5rem;
  font-size: 0.92rem;
}
.passes {
  grid-column: 1 / -1;
  border: 0;
  padding: 0;
  margin: 0;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
  padding: 0;
}
.pass {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding: 0.15rem 0;
}
.pass :deep(input) {
  width: 4rem;
}
.pass .change {
  flex: 1;
  min-width: 12rem;
}
.foot {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
}
.trouble {
  color: var(--warm);
  width: 100%;
}
</style>
