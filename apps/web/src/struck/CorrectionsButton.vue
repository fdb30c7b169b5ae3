<script setup lang="ts">
import type { Correction } from '@jam-ledger/contract';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import { ref } from 'vue';
import { useNotices, useSession } from '../session/index.ts';
import { momentText } from '../ui/index.ts';
import { findCorrections } from './struck.ts';

const props = defineProps<{
  /** The song or the person. */
  id: string;
}>();
const notices = useNotices();
const session = useSession();
const lines = ref<readonly Correction[]>();
const open = () => notices.tell(async () => void (lines.value = await findCorrections(props.id)));
const when = (moment: string) => momentText(moment, session.me?.studio.zone ?? 'utc');
</script>

<template>
  <Button size="small" text severity="secondary" icon="pi pi-pencil" label="Corrections" @click="open" />
  <Dialog
    v-if="lines"
    visible
    modal
    header="What was corrected"
    :style="{ width: '38rem' }"
    :breakpoints="{ '680px': '96vw' }"
    @update:visible="lines = undefined"
  >
    <p v-if="lines.length === 0" class="soft">
      Nothing was corrected yet: names, stamps and states stand as they were written.
    </p>
    <ol class="quiet-list">
      <li v-for="line in lines" :key="line.id">
        <span class="soft">{{ when(line.at) }}, {{ line.by }}</span>
        <span
          >{{ line.kind }} {{ line.name }}, {{ line.field }}: <del>{{ line.was === '' ? 'nothing' : line.was }}</del>
          {{ line.became === '' ? 'nothing' : line.became }}</span
        >
      </li>
    </ol>
  </Dialog>
</template>

<style scoped>
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 1rem;
  border-bottom: 1px solid var(--rule);
  padding: 0.3rem 0;
  overflow-wrap: anywhere;
}
</style>
