<script setup lang="ts">
import type { NoteVerdict } from '@jam-ledger/core/listen';
import type { CleanRule } from '@jam-ledger/core/pieces';
import { useObjectUrl } from '@vueuse/core';
import { computed } from 'vue';
import { momentText } from '../ui/index.ts';
import { besideEachOther, VERDICTS } from './takeWords.ts';
import type { KeptTake } from './useTake.ts';

/** Two takes of one piece beside each other: how each came out, and which notes became better or worse. */
const props = defineProps<{ takes: readonly [KeptTake, KeptTake]; rule: CleanRule; zone: string }>();

const beside = computed(() => {
  const [one, other] = props.takes;
  return one.judged && other.judged ? besideEachOther(one.judged, other.judged, props.rule) : undefined;
});
const words = (verdict: NoteVerdict) => `${VERDICTS[verdict].sign} ${VERDICTS[verdict].says}`;

const first = useObjectUrl(() => props.takes[0].file);
const second = useObjectUrl(() => props.takes[1].file);
</script>

<template>
  <table v-if="beside" class="beside">
    <caption>
      Two takes beside each other
    </caption>
    <thead>
      <tr>
        <td></td>
        <th v-for="take in takes" :key="take.id" scope="col">{{ momentText(take.at, zone) }}</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in beside.rows" :key="row.name">
        <th scope="row">{{ row.name }}</th>
        <td v-for="(value, index) in row.values" :key="index">{{ value }}</td>
      </tr>
      <tr v-for="change in beside.changes" :key="change.note">
        <th scope="row">note {{ change.note }}</th>
        <td v-for="(verdict, index) in change.verdicts" :key="index">{{ words(verdict) }}</td>
      </tr>
      <tr>
        <th scope="row">to hear</th>
        <td><audio controls :src="first" aria-label="The first take" /></td>
        <td><audio controls :src="second" aria-label="The second take" /></td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.beside {
  border-collapse: collapse;
}
caption {
  text-align: left;
  font-weight: 600;
}
th,
td {
  text-align: left;
  padding: 0.15rem 1rem 0.15rem 0;
  border-bottom: 1px solid var(--rule);
  font-weight: 400;
}
audio {
  width: 14rem;
  max-width: 100%;
}
</style>
