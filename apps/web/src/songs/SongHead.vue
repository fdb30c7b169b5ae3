<script setup lang="ts">
import type { BroughtBody, Transcription } from '@jam-ledger/contract';
import Button from 'primevue/button';
import { RouterLink } from 'vue-router';
import { CopyButton, type Copyable } from '../copies/index.ts';
import { DownloadButton, type Takeable } from '../files/index.ts';
import { CorrectionsButton, StruckButton } from '../struck/index.ts';
import FromWordsButton from './FromWordsButton.vue';

/** What song it is, how it is set up, and what can be done with all of it. */
defineProps<{
  song: Transcription;
  takeables: readonly Takeable[];
  copyables: readonly Copyable[];
  bringPhrases: (body: BroughtBody) => Promise<void>;
}>();
const emit = defineEmits<{ setUp: []; bringIn: []; back: [] }>();
</script>

<template>
  <header class="head">
    <div class="named">
      <h1>{{ song.title }}</h1>
      <p class="soft">
        <template v-if="song.student.isStudent"
          >{{ song.whose }}<template v-if="song.whose"> · </template>for
          <strong>{{ song.student.name }}</strong></template
        ><template v-else>For nobody yet; copy a lick for a student when it is asked for.</template>
      </p>
    </div>
    <p class="facts">
      {{ song.tuning }} · capo {{ song.capo === 0 ? 'none' : song.capo }} ·
      {{ [song.key, song.secondKey].filter(Boolean).join(' or ') || 'key open' }} ·
      {{ song.tempoKnown ? `${song.tempo} bpm` : 'tempo not said' }} · {{ song.meter }} · {{ song.frets }} frets
      <Button size="small" text label="Set up" @click="emit('setUp')" />
      <RouterLink v-if="song.student.isStudent" class="to screen-only" :to="{ name: 'pieces', params: { id: song.id } }"
        >Pieces</RouterLink
      >
      <RouterLink class="to screen-only" :to="{ name: 'sheet', params: { id: song.id } }">Handout</RouterLink>
      <DownloadButton :choices="takeables" />
      <CopyButton :choices="copyables" />
      <StruckButton :query="{ songId: song.id }" :kinds="['section', 'phrase']" @back="emit('back')" />
      <CorrectionsButton :id="song.id" />
      <Button size="small" text icon="pi pi-upload" label="Import" @click="emit('bringIn')" />
      <FromWordsButton :song="song" :keep="bringPhrases" />
    </p>
  </header>
</template>

<style scoped>
.to {
  margin-right: 0.8rem;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: end;
  gap: 0.3rem 2rem;
  margin-bottom: 0.6rem;
}
.named {
  display: flex;
  flex-wrap: wrap;
  gap: 0 0.8rem;
  align-items: baseline;
}
.facts {
  margin-bottom: -0.2rem;
}
</style>
