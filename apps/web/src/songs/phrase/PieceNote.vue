<script setup lang="ts">
import type { LedgerPiece } from '@jam-ledger/contract';
import { RouterLink } from 'vue-router';
import { ShareBar } from '../../ui/index.ts';

defineProps<{ piece: LedgerPiece; student: string; songId: string }>();
</script>

<template>
  <section aria-label="Practice piece">
    <h3>With {{ student }}</h3>
    <p class="soft">{{ piece.next.reason }}</p>
    <ShareBar :standing="piece.standing" :target="piece.targetBpm" />
    <p><RouterLink :to="{ name: 'pieces', params: { id: songId } }">Its place among the pieces</RouterLink></p>
  </section>
</template>
