<script setup lang="ts">
import type { LedgerPiece } from '@jam-ledger/contract';
import { RouterLink } from 'vue-router';
import { ShareBar, FoldPart } from '../../ui/index.ts';

defineProps<{ piece: LedgerPiece; student: string; songId: string }>();
</script>

<template>
  <FoldPart name="piece" :title="`With ${student}`" label="Practice piece">
    <p class="soft">{{ piece.next.reason }}</p>
    <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
    <p><RouterLink :to="{ name: 'pieces', params: { id: songId } }">See it among the pieces</RouterLink></p>
  </FoldPart>
</template>
