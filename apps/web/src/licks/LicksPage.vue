<script setup lang="ts">
import { LICK_LIMITS, type Lick, type LickBody, type LickQuery } from '@jam-ledger/contract';
import { factsOf } from '@jam-ledger/core/licks';
import { TECHNIQUES } from '@jam-ledger/core/notation';
import { readPlaced } from '@jam-ledger/core/placing';
import { OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { watchDebounced } from '@vueuse/core';
import Button from 'primevue/button';
import InputNumber from 'primevue/inputnumber';
import InputText from 'primevue/inputtext';
import Select from 'primevue/select';
import { storeToRefs } from 'pinia';
import { computed, onMounted, reactive, ref } from 'vue';
import { FieldRow, TickBox } from '../ui/index.ts';
import { useLicks } from './licks.ts';
import LickForm from './LickForm.vue';
import LickLine from './LickLine.vue';
import { useNotices, usePage } from '../session/index.ts';
import { useRouter } from 'vue-router';

const page = usePage();
const notices = useNotices();
const router = useRouter();
const writing = ref(false);
const ANY = 'any';
const asked = reactive({
  words: '',
  technique: ANY,
  chord: '',
  degrees: '',
  lick: '',
  anywhere: true,
  lowestFret: null as number | null,
  highestFret: null as number | null,
  slowest: null as number | null,
  fastest: null as number | null,
});
/** The phrase that more like it is looked for. */
const like = ref<Lick>();
const store = useLicks();
const { found, busy } = storeToRefs(store);

const typed = computed(() => {
  if (asked.lick.trim() === '') return undefined;
  const { phrase, problems } = readPlaced(asked.lick);
  const wrong = problems.find(({ severity }) => severity === 'error')?.message;
  return { wrong, facts: factsOf(phrase, { tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY }) };
});
const degreesProblem = computed(() =>
  /^[b#\d ]*$/.test(asked.degrees) ? undefined : 'Write degrees with blanks between, such as 1 b3 4 5.',
);

const query = computed((): LickQuery => {
  if (like.value) return { like: like.value.phraseId };
  const { words, chord, degrees, anywhere, lowestFret, highestFret, slowest, fastest } = asked;
  const facts = typed.value?.facts;
  const technique = TECHNIQUES.find((one) => one === asked.technique);
  return {
    ...(words.trim() !== '' && { words: words.trim() }),
    ...(technique && { technique }),
    ...(chord.trim() !== '' && { chord: chord.trim() }),
    ...(degrees.trim() !== '' && degreesProblem.value === undefined && { degrees: degrees.trim() }),
    ...(facts && anywhere && facts.steps !== '' && { steps: facts.steps.trim() }),
    ...(facts && !anywhere && facts.shape !== '' && { shape: facts.shape.trim() }),
    ...(lowestFret !== null && { lowestFret }),
    ...(highestFret !== null && { highestFret }),
    ...(slowest !== null && { slowest }),
    ...(fastest !== null && { fastest }),
  };
});

/** Writes a lick of one’s own down, and goes on with it on the song desk. */
async function write(body: LickBody): Promise<void> {
  const { songId, phraseId } = await store.write(body);
  await router.push({ name: 'song', params: { id: songId }, query: { phrase: phraseId } });
}

store.open();
const search = () => notices.tell(() => store.search(query.value));
onMounted(() => page.open(() => store.search(query.value)));
watchDebounced(query, search, { debounce: 250 });

function clear(): void {
  like.value = undefined;
  const numbers = { lowestFret: null, highestFret: null, slowest: null, fastest: null };
  Object.assign(asked, { words: '', technique: ANY, chord: '', degrees: '', lick: '', ...numbers });
}
const isAsked = computed(() => Object.keys(query.value).length > 0);
const says = computed(() => {
  if (!found.value) return busy.value ? 'Looking …' : '';
  const { total, licks } = found.value;
  const count = total === 1 ? 'One phrase' : `${total} phrases`;
  const first = total > licks.length ? `, the first ${licks.length} of them` : '';
  return like.value ? `${count} like “${like.value.name}”` : `${count}${first}`;
});
</script>

<template>
  <header class="head">
    <h1>Licks</h1>
    <Button v-if="!writing" size="small" outlined label="Add a lick" @click="writing = true" />
  </header>
  <LickForm v-if="writing" :write="write" @done="writing = false" />
  <p class="soft">Every phrase of the studio, by what the hands do, what it is over, and how it goes.</p>
  <form class="ask" novalidate aria-label="Look for phrases" @submit.prevent="search">
    <FieldRow v-slot="{ id }" label="Name or song">
      <InputText :id="id" v-model="asked.words" :maxlength="LICK_LIMITS.words" />
    </FieldRow>
    <FieldRow v-slot="{ labelId }" label="Technique">
      <Select v-model="asked.technique" :options="[ANY, ...TECHNIQUES]" filter :aria-labelledby="labelId" />
    </FieldRow>
    <FieldRow v-slot="{ id }" label="Over the chord">
      <InputText :id="id" v-model="asked.chord" placeholder="A7" :maxlength="LICK_LIMITS.chord" />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="Degrees in a row" :problem="degreesProblem">
      <InputText
        :id="id"
        v-model="asked.degrees"
        placeholder="1 b3 4 5"
        :invalid="invalid"
        :maxlength="LICK_LIMITS.pattern"
      />
    </FieldRow>
    <FieldRow v-slot="{ id, invalid }" label="It goes like" class="wide" :problem="typed?.wrong">
      <InputText
        :id="id"
        v-model="asked.lick"
        class="mono"
        placeholder="5G 7G 5B 8B"
        :invalid="invalid"
        :maxlength="LICK_LIMITS.pattern"
      />
      <TickBox v-model="asked.anywhere">on any strings, in any key</TickBox>
    </FieldRow>
    <fieldset>
      <legend>Frets</legend>
      <InputNumber v-model="asked.lowestFret" aria-label="Lowest fret" :min="0" :max="36" placeholder="from" />
      <InputNumber v-model="asked.highestFret" aria-label="Highest fret" :min="0" :max="36" placeholder="to" />
    </fieldset>
    <fieldset>
      <legend>Tempo</legend>
      <InputNumber v-model="asked.slowest" aria-label="Slowest tempo" :min="1" :max="999" placeholder="from" />
      <InputNumber v-model="asked.fastest" aria-label="Fastest tempo" :min="1" :max="999" placeholder="to" />
    </fieldset>
  </form>
  <p class="says" role="status">
    {{ says }}
    <Button v-if="isAsked" size="small" text label="Show all" @click="clear" />
  </p>
  <p v-if="found && found.licks.length === 0" class="soft">
    {{
      isAsked
        ? 'Nothing in the studio matches. Leave something out, or look on any strings.'
        : 'No phrase is written yet; begin one on the song desk.'
    }}
  </p>
  <ul v-if="found" class="quiet-list">
    <LickLine v-for="lick in found.licks" :key="lick.phraseId" :lick="lick" @more="like = lick" />
  </ul>
</template>

<style scoped>
.head {
  display: flex;
  gap: 1rem;
  align-items: center;
}
.ask {
  display: grid;
  grid-template-columns: repeat(4, minmax(9rem, 1fr));
  gap: 0.7rem 1rem;
  align-items: start;
  margin: 0.8rem 0;
  max-width: 68rem;
}
.wide {
  grid-column: span 2;
}
.mono {
  font-family: var(--type-mono);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  gap: 0.4rem;
}
legend {
  font-weight: 600;
  font-size: 0.92rem;
}
fieldset :deep(.p-inputnumber-input) {
  width: 5rem;
}
.says {
  font-weight: 600;
}
@media (max-width: 820px) {
  .ask {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
