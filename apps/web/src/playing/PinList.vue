<script setup lang="ts">
import type { Pin } from '@jam-ledger/contract';
import { ENTRY_LIMITS } from '@jam-ledger/contract';
import Button from 'primevue/button';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { LineButton } from '../ui/index.ts';

/** A note with where it stands in the piece. */
export interface PlacedPin {
  readonly pin: Pin;
  readonly place: string;
  /** Whether it stands at the step one is on, or at what plays. */
  readonly isHere: boolean;
}

const props = defineProps<{
  pins: readonly PlacedPin[];
  me: string;
  teaches: boolean;
  /** Whether notes are only read. */
  still?: boolean;
  /** Where a new note would stand; undefined while no step is chosen. */
  here: string | undefined;
  pin: (text: string) => Promise<boolean>;
}>();
const emit = defineEmits<{ go: [pin: Pin]; strike: [pin: Pin] }>();
const text = ref('');
const busy = ref(false);
const label = computed(() => {
  const what = props.teaches ? 'Watch out' : 'Note to the teacher';
  return props.here === undefined ? what : `${what}, at ${props.here}`;
});

/** What was typed stays until it is kept. */
async function keep(): Promise<void> {
  if (text.value.trim() === '' || busy.value) return;
  busy.value = true;
  if (await props.pin(text.value.trim())) text.value = '';
  busy.value = false;
}
</script>

<template>
  <section aria-label="Pinned notes">
    <ul v-if="pins.length > 0" class="quiet-list">
      <li v-for="{ pin: one, place, isHere } in pins" :key="one.id" :class="{ here: isHere, watch: one.by.teaches }">
        <LineButton class="go" @click="emit('go', one)">
          {{ one.by.teaches ? 'Watch out' : 'Note' }} · {{ place }}
        </LineButton>
        <span>{{ one.text }}</span>
        <span class="soft who"
          >{{ one.by.name
          }}<LineButton v-if="one.by.id === me" class="out" @click="emit('strike', one)">remove</LineButton></span
        >
      </li>
    </ul>
    <form v-if="!still" class="new" @submit.prevent="keep">
      <label>
        <span>{{ label }}</span>
        <InputText
          v-model="text"
          size="small"
          :maxlength="ENTRY_LIMITS.pin"
          :disabled="here === undefined"
          :placeholder="here === undefined ? 'choose a note of the tab first' : ''"
        />
      </label>
      <Button
        type="submit"
        size="small"
        outlined
        label="Pin it"
        :disabled="here === undefined || busy || text.trim() === ''"
      />
    </form>
  </section>
</template>

<style scoped>
li {
  border-left: 2px solid var(--rule-strong);
  padding: 0.1rem 0 0.1rem 0.6rem;
  margin-bottom: 0.35rem;
  display: flex;
  flex-direction: column;
}
.watch {
  border-left-color: var(--warm);
}
.here {
  background: var(--warm-wash);
}
.go {
  font-weight: 600;
}
.who {
  font-size: 0.85rem;
}
.out {
  color: var(--warm);
  margin-left: 0.6rem;
}
.new {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: end;
}
.new label {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-width: 0;
  font-size: 0.9rem;
}
.new :deep(input) {
  width: 100%;
}
</style>
