<script setup lang="ts">
import type { NoteVerdict } from '@jam-ledger/core/listen';
import type { CleanRule } from '@jam-ledger/core/pieces';
import { useObjectUrl } from '@vueuse/core';
import { computed } from 'vue';
import { momentText, PlainTable, type TableColumn } from '../ui/index.ts';
import { besideEachOther, VERDICTS } from './takeWords.ts';
import type { KeptTake } from './useTake.ts';

/** Two takes of one piece beside each other: how each came out, and which notes became better or worse. */
const props = defineProps<{ takes: readonly [KeptTake, KeptTake]; rule: CleanRule; zone: string }>();

const words = (verdict: NoteVerdict) => `${VERDICTS[verdict].sign} ${VERDICTS[verdict].says}`;

/** What is compared, with what it is in the one and in the other. */
interface Row {
  readonly name: string;
  readonly values: readonly [string, string];
}
const rows = computed((): readonly Row[] | undefined => {
  const [one, other] = props.takes;
  if (!one.judged || !other.judged) return undefined;
  const beside = besideEachOther(one.judged, other.judged, props.rule);
  return [
    ...beside.rows,
    ...beside.changes.map(({ note, verdicts: [before, after] }) => ({
      name: `note ${note}`,
      values: [words(before), words(after)] as const,
    })),
  ];
});
const columns = computed((): readonly TableColumn<Row>[] => [
  { head: 'Take', says: ({ name }) => name },
  { head: momentText(props.takes[0].at, props.zone), says: ({ values }) => values[0] },
  { head: momentText(props.takes[1].at, props.zone), says: ({ values }) => values[1] },
]);

const first = useObjectUrl(() => props.takes[0].file);
const second = useObjectUrl(() => props.takes[1].file);
</script>

<template>
  <section v-if="rows" class="beside" aria-label="Two takes beside each other">
    <h3>Two takes beside each other</h3>
    <PlainTable label="Two takes beside each other" :rows="rows" :columns="columns" />
    <p class="hear">
      <audio controls :src="first" aria-label="The first take" />
      <audio controls :src="second" aria-label="The second take" />
    </p>
  </section>
</template>

<style scoped>
.hear {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1rem;
  margin-top: 0.4rem;
}
audio {
  width: 14rem;
  max-width: 100%;
}
</style>
