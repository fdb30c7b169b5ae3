<script setup lang="ts">
import type { SongBasics } from '@jam-ledger/contract';
import type { Drill } from '@jam-ledger/core/difficulty';
import { bendTargetOf } from '@jam-ledger/core/listen';
import { perform } from '@jam-ledger/core/notation';
import { sayPhrase } from '@jam-ledger/core/spoken';
import Button from 'primevue/button';
import { computed } from 'vue';
import { soundOf, useListening } from '../sound/index.ts';
import { TabPage, useReading } from '../tab/index.ts';
import { BendTry } from '../takes/index.ts';

const props = defineProps<{ drill: Drill; song: SongBasics; bpm: number }>();

const { reading, bars, tuning } = useReading(
  () => props.drill.text,
  // A drill says its own lengths.
  () => ({ ...props.song, rhythm: 'counted' as const }),
);
const { player, playing, play } = useListening(
  () => ({ phrase: reading.value.phrase, tuning: tuning.value, ...soundOf(props.song), bpm: props.bpm }),
  true,
);

/** The pitch that the bend of the drill begins at and ends at, as the guitar sounds. */
const target = computed(() => {
  const { phrase } = reading.value;
  return bendTargetOf(perform(phrase, { tuning: tuning.value, ...soundOf(props.song), bpm: props.bpm }));
});

const said = computed(() => sayPhrase(reading.value.phrase, { strings: 'letters', length: 'short' }));

async function hear(): Promise<void> {
  if (player.playing.value) return player.stop();
  await play();
}
</script>

<template>
  <section class="drill" :aria-label="drill.name">
    <header>
      <h2>{{ drill.name }}</h2>
      <Button
        size="small"
        outlined
        :icon="player.playing.value ? 'pi pi-stop' : 'pi pi-play'"
        :label="player.playing.value ? 'Stop' : `Hear it at ${bpm}`"
        @click="hear"
      />
    </header>
    <p>{{ drill.says }}</p>
    <TabPage :bars="bars" :strings="tuning.openMidis.length" :playing="playing" :said="said" />
    <BendTry v-if="target" :from="target.from" :to="target.to" />
  </section>
</template>

<style scoped>
.drill {
  margin-top: 1.2rem;
  max-width: 56rem;
}
header {
  display: flex;
  gap: 1rem;
  align-items: center;
}
</style>
