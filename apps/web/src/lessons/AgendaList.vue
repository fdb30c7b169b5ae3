<script setup lang="ts">
import type { LedgerPiece } from '@jam-ledger/contract';
import type { Agenda } from '@jam-ledger/core/series';
import { computed } from 'vue';
import { ShareBar, LineButton } from '../ui/index.ts';

const props = defineProps<{ agenda: Agenda; pieces: readonly LedgerPiece[]; chosen: string | undefined }>();
const emit = defineEmits<{ choose: [id: string] }>();

const byId = computed(() => new Map(props.pieces.map((piece) => [piece.id, piece])));
/** What is planned, and then everything else, so that anything can be heard. */
const rows = computed(() => {
  const planned = props.agenda.items.flatMap((item) => rowOf(item.pieceId, item));
  const there = new Set(planned.map(({ piece }) => piece.id));
  const rest = props.pieces.filter(({ id }) => !there.has(id)).flatMap(({ id }) => rowOf(id, undefined));
  return [...planned, ...rest];
});

function rowOf(id: string, item: Agenda['items'][number] | undefined) {
  const piece = byId.value.get(id);
  return piece ? [{ piece, item, head: item?.kind ?? 'if there is time' }] : [];
}
const headOf = (index: number) =>
  rows.value[index - 1]?.head === rows.value[index]?.head ? undefined : rows.value[index]?.head;

function lastLine({ last }: LedgerPiece): string {
  return last
    ? `last ${last.bpm} ${last.outcome === 'clean' ? 'clean' : 'not yet'}, ${last.medium}`
    : 'nothing posted yet';
}
</script>

<template>
  <ol class="agenda quiet-list" aria-label="To hear">
    <li v-for="({ piece, item }, index) in rows" :key="piece.id" :class="{ chosen: piece.id === chosen }">
      <h2 v-if="headOf(index)">{{ headOf(index) }}</h2>
      <LineButton :aria-pressed="piece.id === chosen" @click="emit('choose', piece.id)">
        <span class="name"
          ><strong>{{ piece.phrase.name }}</strong
          ><span v-if="item" class="minutes">{{ item.minutes }} min</span></span
        >
        <span class="soft">{{ piece.section.label }}, {{ piece.song.title }}</span>
        <span>{{ lastLine(piece) }}</span>
        <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
      </LineButton>
    </li>
  </ol>
</template>

<style scoped>
li {
  border-bottom: 1px solid var(--rule);
}
h2 {
  font-size: 1rem;
  margin: 0.5rem 0 0.1rem;
  font-size: 0.95rem;
  color: var(--ink-soft);
}
button {
  width: 100%;
  padding: 0.4rem 0.6rem;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
.chosen button {
  background: var(--warm-wash);
  border-left: 3px solid var(--warm);
}
.name {
  display: flex;
  justify-content: space-between;
  width: 100%;
}
.minutes {
  font-size: 0.88rem;
}
</style>
