<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import { eventsOf, type Phrase, type Span } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey, type Tuning } from '@jam-ledger/core/pitch';
import { computed } from 'vue';
import { NeckBoard } from '../tab/index.ts';

const props = defineProps<{ piece: Piece; phrase: Phrase; tuning: Tuning; playing: Span | undefined }>();

const key = computed(() => readKey(props.piece.song.key) ?? OPEN_KEY);
/** Every place of the phrase on the neck; while it plays, those that sound. */
const fretPositions = computed(() => {
  const events = eventsOf(props.phrase).filter(({ item }) => !props.playing || item.span.from === props.playing.from);
  const all = events.flatMap(({ item }) =>
    item.notes.flatMap(({ string, fret }) => (fret === null ? [] : [{ string, fret }])),
  );
  return [...new Map(all.map((place) => [`${place.string}-${place.fret}`, place])).values()];
});
</script>

<template>
  <NeckBoard
    :tuning="tuning"
    :capo="piece.song.capo"
    :frets="piece.song.frets"
    :music-key="key"
    :names="piece.naming"
    :mirrored="piece.hand.leftHanded"
    :shown="fretPositions"
    still
  />
</template>
