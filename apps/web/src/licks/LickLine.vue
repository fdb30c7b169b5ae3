<script setup lang="ts">
import type { Lick } from '@jam-ledger/contract';
import { sayPhrase } from '@jam-ledger/core/spoken';
import Button from 'primevue/button';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { CopyButton } from '../copies/index.ts';
import { TabPage, useReading } from '../tab/index.ts';

const props = defineProps<{ lick: Lick }>();
const emit = defineEmits<{ more: [] }>();

const { reading, bars, tuning } = useReading(
  () => props.lick.text,
  () => props.lick.song,
);
const MAX_BARS = 4;
const first = computed(() => bars.value.slice(0, MAX_BARS));
const said = computed(() =>
  sayPhrase(reading.value.phrase, { strings: 'letters', length: 'short' }).slice(0, MAX_BARS),
);
const place = computed(() => {
  const { lowestFret, highestFret } = props.lick;
  if (highestFret === 0) return 'open strings';
  return lowestFret === highestFret ? `fret ${lowestFret}` : `frets ${lowestFret} to ${highestFret}`;
});
const MAX_TECHNIQUES = 6;
</script>

<template>
  <li class="lick">
    <div class="words">
      <p>
        <RouterLink :to="{ name: 'song', params: { id: lick.song.id }, query: { phrase: lick.phraseId } }"
          ><strong>{{ lick.name }}</strong></RouterLink
        >
      </p>
      <p class="soft">
        {{ lick.section }}, {{ lick.song.title }}<template v-if="lick.student">, for {{ lick.student }}</template>
      </p>
      <p class="soft">
        {{ place }} · {{ Math.round(lick.bpm) }} bpm<template v-if="lick.chords.length > 0">
          · {{ lick.chords.join(', ') }}</template
        >
      </p>
      <p v-if="lick.techniques.length > 0" class="soft">
        {{ lick.techniques.slice(-MAX_TECHNIQUES).join(', ') }}
      </p>
      <p v-if="lick.likeness" class="likeness">{{ lick.likeness.charAt(0).toUpperCase() + lick.likeness.slice(1) }}</p>
      <CopyButton :choices="[{ kind: 'phrase', id: lick.phraseId, label: lick.name }]" :about="lick.name" />
      <Button size="small" text label="More like this" :aria-label="`More like ${lick.name}`" @click="emit('more')" />
    </div>
    <TabPage :bars="first" :strings="tuning.openMidis.length" :scale="0.8" :said="said" strip />
  </li>
</template>

<style scoped>
.lick {
  display: grid;
  grid-template-columns: 17rem minmax(0, 1fr);
  gap: 1.2rem;
  border-top: 1px solid var(--rule);
  padding: 0.6rem 0;
}
.likeness {
  border-left: 3px solid var(--cool);
  padding-left: 0.5rem;
}
.words :deep(.p-button) {
  margin-left: -0.6rem;
}
@media (max-width: 820px) {
  .lick {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
