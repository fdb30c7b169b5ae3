<script setup lang="ts">
import { SONG_LIMITS } from '@jam-ledger/contract';
import InputText from 'primevue/inputtext';
import type { SaveState } from './usePhraseText.ts';
import { TickBox } from '../../ui/index.ts';

const props = defineProps<{ name: string; state: SaveState }>();
const emit = defineEmits<{ rename: [name: string] }>();
const withStaff = defineModel<boolean>('withStaff', { required: true });
const withNeck = defineModel<boolean>('withNeck', { required: true });
const mirrored = defineModel<boolean>('mirrored', { required: true });

const SAYS: Readonly<Record<SaveState, string>> = {
  saved: 'saved',
  waiting: 'typing…',
  saving: 'saving…',
  'kept-here': 'the studio cannot be reached; kept in this browser and tried again',
  refused: 'not saved, kept in this browser',
  stale: 'changed elsewhere',
};

function renameTo(event: Event): void {
  const { target } = event;
  if (!(target instanceof HTMLInputElement)) return;
  const name = target.value.trim();
  if (name === '' || name === props.name) target.value = props.name;
  else emit('rename', name);
}
</script>

<template>
  <div class="title">
    <InputText
      unstyled
      class="name"
      :model-value="name"
      aria-label="Name of the phrase"
      :maxlength="SONG_LIMITS.phraseName"
      @change="renameTo"
    />
    <span :class="['soft', 'state', state]" role="status">{{ SAYS[state] }}</span>
    <span class="switches screen-only">
      <TickBox v-model="withStaff">notation</TickBox>
      <TickBox v-model="withNeck">neck</TickBox>
      <TickBox v-if="withNeck" v-model="mirrored">left-handed</TickBox>
    </span>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 1rem;
  align-items: baseline;
}
.name {
  font-family: var(--type-book);
  font-size: 1.15rem;
  font-weight: 600;
  color: var(--ink);
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  padding: 0;
  min-width: 12rem;
}
.name:hover,
.name:focus {
  border-bottom-color: var(--rule-strong);
}
.switches {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 0.2rem 0.9rem;
  font-size: 0.9rem;
  align-self: center;
}
.state {
  font-size: 0.88rem;
  font-style: italic;
}
.state.kept-here,
.state.refused,
.state.stale {
  color: var(--warm);
}
</style>
