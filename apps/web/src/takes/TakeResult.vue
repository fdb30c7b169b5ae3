<script setup lang="ts">
import type { Outcome } from '@jam-ledger/contract';
import { bendOff, proposeEntry, weakSpots, type JudgedTake, type NoteVerdict } from '@jam-ledger/core/listen';
import { CLEAN_RULES, type CleanSchool } from '@jam-ledger/core/pieces';
import type { Phrase } from '@jam-ledger/core/notation';
import Button from 'primevue/button';
import { computed } from 'vue';
import { sayClean } from '../schools/index.ts';
import { useLook } from '../session/index.ts';
import { useTakeCharts } from './useTakeCharts.ts';
import { PlotChart } from '../ui/index.ts';
import { flagsOf, sayTake, VERDICTS } from './takeWords.ts';

const props = defineProps<{
  judged: JudgedTake;
  clean: CleanSchool;
  /** Where in the recording the click of the first note is heard, if that is known; seconds. */
  clickSeconds?: number | undefined;
  phrase: Phrase;
  post: (bpm: number, outcome: Outcome) => Promise<void>;
}>();
const emit = defineEmits<{ loop: [from: number, to: number] }>();

const { dark } = useLook();
const rule = computed(() => CLEAN_RULES[props.clean]);
const proposal = computed(() => proposeEntry(props.judged, rule.value));
const spots = computed(() => weakSpots(props.judged, props.phrase, rule.value).slice(0, 4));
const used = computed(() => {
  const there = new Set(props.judged.events.map(({ verdict }) => verdict));
  const bent = flagsOf(props.judged, rule.value).some(({ sign }) => sign?.endsWith('¢'));
  const cents = bent ? [{ sign: '¢', says: 'a bend above or below its pitch' }] : [];
  const verdicts = (Object.keys(VERDICTS) as NoteVerdict[]).filter((verdict) => there.has(verdict));
  return [...verdicts.map((verdict) => VERDICTS[verdict]), ...cents];
});
const bends = computed(() => props.judged.events.filter((event) => bendOff(event) !== null).length);
const charts = useTakeCharts(() => props.judged);

const headline = computed(() => {
  const { outcome, bpm } = proposal.value;
  if (outcome === null) return 'Nothing is proposed.';
  return outcome === 'clean' ? `Clean at ${bpm} bpm.` : `Not yet, at ${bpm} bpm.`;
});
</script>

<template>
  <div class="result" role="group" aria-label="What was heard">
    <p class="headline" role="status">
      <strong>{{ headline }}</strong> {{ proposal.why.join(' ') }}
    </p>
    <p v-if="judged.trouble === 'clipped'" class="problem">
      The recording is clipped: sit further from the microphone, or turn it down.
    </p>
    <p class="soft">{{ sayTake(judged, clickSeconds) }}</p>
    <p v-if="proposal.outcome" class="enter">
      <Button
        :label="`Enter it: ${proposal.outcome === 'clean' ? 'clean' : 'not yet'}, ${proposal.bpm} bpm`"
        @click="post(proposal.bpm, proposal.outcome)"
      />
      <span class="soft">A clean take: {{ sayClean(clean).toLowerCase() }}</span>
    </p>
    <ul v-if="spots.length > 0" class="spots" aria-label="Where to work">
      <li v-for="spot in spots" :key="spot.from">
        {{ spot.says }}
        <Button size="small" text label="Loop this" @click="emit('loop', spot.from, spot.to)" />
      </li>
    </ul>
    <p class="soft legend">
      <span v-for="{ sign, says } in used" :key="sign"
        ><b>{{ sign }}</b> {{ says }}</span
      >
    </p>
    <PlotChart
      v-if="judged.trouble !== 'silent'"
      :data="charts.timing.value.data"
      :layout="charts.timing.value.layout"
      label="How early or late each note came, in milliseconds"
      :height="190"
      :dark="dark"
    />
    <PlotChart
      v-if="bends > 0"
      :data="charts.bends.value.data"
      :layout="charts.bends.value.layout"
      label="Each bend as it is written and as it was heard, in cents"
      :height="200"
      :dark="dark"
    />
  </div>
</template>

<style scoped>
.result {
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
  min-width: 0;
}
.result p,
.spots {
  margin: 0;
}
.headline {
  font-size: 1.05rem;
}
.enter,
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}
.spots {
  padding-left: 1.1rem;
}
.problem {
  color: var(--warm);
}
</style>
