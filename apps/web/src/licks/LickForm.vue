<script setup lang="ts">
import { SONG_LIMITS, type LickBody } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import Textarea from 'primevue/textarea';
import { FieldRow, useForm, vFirstField } from '../ui/index.ts';

const props = defineProps<{ write: (body: LickBody) => Promise<void> }>();
const emit = defineEmits<{ done: [] }>();
const { fields, problems, trouble, busy, send, giveUp } = useForm(
  'lickSchema',
  { name: '', text: '', key: '' },
  undefined,
  'lick',
);

function done(): void {
  giveUp();
  emit('done');
}

async function submit(): Promise<void> {
  if (await send(props.write)) done();
}
</script>

<template>
  <form v-first-field class="lick" novalidate aria-label="A lick of your own" @submit.prevent="submit">
    <p class="soft">For nobody yet: no student, no clock, no tempo. Copy it for a student when it is asked for.</p>
    <FieldRow v-slot="{ id, invalid }" label="Name" :problem="problems['name'] ?? (trouble || undefined)">
      <InputText :id="id" v-model="fields.name" autofocus :invalid="invalid" :maxlength="SONG_LIMITS.phraseName" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="How it goes" hint="in shorthand; may wait" :problem="problems['text']">
      <Textarea
        :id="id"
        v-model="fields.text"
        class="mono"
        rows="2"
        placeholder="5G 7Gb1r 5G 7D"
        :invalid="invalid"
        :maxlength="SONG_LIMITS.phraseText"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Key" hint="may stay empty" :problem="problems['key']">
      <InputText :id="id" v-model="fields.key" :invalid="invalid" placeholder="A blues" :maxlength="SONG_LIMITS.key" />
    </FieldRow>
    <p class="acts">
      <Button type="submit" label="Save the lick" :disabled="busy" />
      <Button type="button" text severity="secondary" label="Cancel" @click="done()" />
    </p>
  </form>
</template>

<style scoped>
.lick {
  display: grid;
  gap: 0.7rem;
  max-width: 32rem;
  margin: 0.6rem 0 1.4rem;
}
p {
  margin: 0;
}
.mono {
  font-family: var(--type-mono);
}
.acts {
  display: flex;
  gap: 0.6rem;
}
</style>
