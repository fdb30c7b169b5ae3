<script setup lang="ts">
import { PEOPLE_LIMITS, type Erasure, type ErasureBody, type Person } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { computed } from 'vue';
import { FieldRow, useForm } from '../ui/index.ts';
import { everythingOf } from './people.ts';

const props = defineProps<{ person: Person; erasure: Erasure; erase: (body: ErasureBody) => Promise<void> }>();
const emit = defineEmits<{ done: [] }>();
const { fields, problems, trouble, busy, send } = useForm('erasureSchema', {
  version: props.erasure.version,
  name: '',
});

/** What the tables hold, as people call it, most telling first; the others are told together. */
const WORDS: readonly (readonly [table: string, one: string, many: string])[] = [
  ['requests', 'request', 'requests'],
  ['transcriptions', 'song', 'songs'],
  ['phrases', 'phrase', 'phrases'],
  ['pieces', 'practice piece', 'practice pieces'],
  ['entries', 'result', 'results'],
  ['lessons', 'lesson', 'lessons'],
  ['lesson_notes', 'lesson summary', 'lesson summaries'],
  ['outbox', 'message', 'messages'],
];
const lines = computed(() => {
  const rowsOf = (table: string) => props.erasure.counts.find((one) => one.table === table)?.rows ?? 0;
  const told = WORDS.filter(([table]) => rowsOf(table) > 0).map(
    ([table, one, many]) => `${rowsOf(table)} ${rowsOf(table) === 1 ? one : many}`,
  );
  const names = WORDS.map(([table]) => table);
  const others = props.erasure.counts.filter(({ table }) => !names.includes(table) && table !== 'people');
  const sum = others.reduce((total, { rows }) => total + rows, 0);
  return sum > 0 ? [...told, `${sum} other lines, from remarks to earlier texts`] : told;
});

async function submit(): Promise<void> {
  if (await send(props.erase)) emit('done');
}
</script>

<template>
  <Dialog
    visible
    modal
    :header="`Erase ${person.name}?`"
    :style="{ width: '34rem' }"
    :breakpoints="{ '640px': '96vw' }"
    @update:visible="emit('done')"
  >
    <form novalidate @submit.prevent="submit">
      <p>
        In {{ erasure.waitDays }} days everything of {{ person.name }} goes for good, and no backup brings it back.
        Until then you can change your mind. Whoever is only archived keeps what is theirs.
      </p>
      <ul v-if="lines.length > 0" aria-label="What goes">
        <li v-for="line in lines" :key="line">{{ line }}</li>
      </ul>
      <p v-if="erasure.guardians.length > 0">
        {{ erasure.guardians.join(' and ') }} {{ erasure.guardians.length === 1 ? 'has' : 'have' }} no other child here
        and {{ erasure.guardians.length === 1 ? 'goes' : 'go' }}, too.
      </p>
      <p class="soft">Hours that the studio taught and transcribed stay in its sums, without a name.</p>
      <p><a :href="everythingOf(person.id)" download>Download everything of theirs first</a></p>
      <FieldRow v-slot="{ id, invalid }" :label="`Type ${person.name}`" :problem="problems['name']">
        <InputText
          :id="id"
          v-model="fields.name"
          autofocus
          autocomplete="off"
          :invalid="invalid"
          :maxlength="PEOPLE_LIMITS.name"
        />
      </FieldRow>
      <p v-if="trouble && Object.keys(problems).length === 0" class="trouble" role="alert">{{ trouble }}</p>
      <footer>
        <Button type="submit" :label="`Erase in ${erasure.waitDays} days`" severity="danger" :disabled="busy" />
        <Button type="button" text severity="secondary" label="Cancel" @click="emit('done')" />
      </footer>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 0.7rem;
}
ul {
  margin: 0;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
}
.trouble {
  color: var(--warm);
}
</style>
