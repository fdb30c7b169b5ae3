<script setup lang="ts">
import { SONG_LIMITS, startValueOf, type BroughtBody, type Transcription } from '@jam-ledger/contract';
import { scoreOf } from '@jam-ledger/core/notation';
import { OPEN_KEY, readKey } from '@jam-ledger/core/pitch';
import { readPlaced } from '@jam-ledger/core/placing';
import type { NarratedPhrase, SpokenChoice, SpokenDoubt } from '@jam-ledger/core/spoken';
import { useLocalStorage, watchDebounced } from '@vueuse/core';
import Button from 'primevue/button';
import Dialog from 'primevue/dialog';
import Textarea from 'primevue/textarea';
import { computed, ref, type Ref } from 'vue';
import { TabPage, tuningOf } from '../tab/index.ts';
import { LineButton, TickBox } from '../ui/index.ts';
import DoubtList from './DoubtList.vue';
import { useHabits } from './useHabits.ts';
import { useNarration } from './useNarration.ts';

/** A page of talk becomes sections and phrases: pasted or dictated, previewed beside its words, taken over as a whole or in part. */
const props = defineProps<{ song: Transcription; keep: (body: BroughtBody) => Promise<void> }>();
const open = defineModel<boolean>('open', { required: true });

/** What was pasted stays on this device until it is taken over. */
const page = useLocalStorage(`jam-page-${props.song.id}`, '') as Ref<string>;
/** Read after a pause in typing, milliseconds. */
const settled = ref(page.value);
watchDebounced(page, (now) => (settled.value = now), { debounce: 250 });
const tuning = computed(() => tuningOf(props.song));
const { habits, remember } = useHabits();
const songKey = computed(() => readKey(props.song.key) ?? OPEN_KEY);
const {
  narration,
  isReading,
  trouble: unread,
} = useNarration(() => ({
  page: settled.value,
  context: { tuning: tuning.value, key: songKey.value, habits: habits.value },
}));
const sections = computed(() => narration.value.sections);
const phrases = computed(() =>
  sections.value.flatMap((section) => section.phrases.map((phrase) => ({ section, phrase, key: keyOf(phrase) }))),
);
/** Phrases that are not taken over; a phrase whose words change is another one. */
const left = ref<ReadonlySet<string>>(new Set());
const taken = computed(() => phrases.value.filter(({ key }) => !left.value.has(key)));
const doubts = computed(() => taken.value.reduce((sum, { phrase }) => sum + phrase.reading.doubts.length, 0));
const shown = ref(0);
const chosen = computed(() => phrases.value[shown.value] ?? phrases.value[0]);
const preview = computed(() =>
  chosen.value ? scoreOf(readPlaced(chosen.value.phrase.text, options.value).phrase) : [],
);
const options = computed(() => ({
  ...{ tuning: tuning.value, capo: props.song.capo, startValue: startValueOf(props.song.rhythm) },
}));
const busy = ref(false);
const trouble = ref('');

const wordsOf = ({ words: { from, to } }: NarratedPhrase) =>
  narration.value.page.slice(from, to).replace(/\s+/g, ' ').trim();
const keyOf = (phrase: NarratedPhrase) => `${wordsOf(phrase)} ${phrase.words.from}`;

function tick(key: string, isTaken: boolean): void {
  left.value = new Set(isTaken ? [...left.value].filter((one) => one !== key) : [...left.value, key]);
}

/** What was meant is said in the words themselves. */
function mean(phrase: NarratedPhrase, doubt: SpokenDoubt, choice: SpokenChoice): void {
  const { span } = doubt;
  const from = phrase.words.from;
  const { page: said } = narration.value;
  remember(doubt, choice, said.slice(from + span.from, from + span.to));
  // What was typed since it was read stands elsewhere by now.
  if (page.value !== said) return;
  page.value = said.slice(0, from + span.from) + choice.say + said.slice(from + span.to);
  settled.value = page.value;
}

async function accept(): Promise<void> {
  busy.value = true;
  trouble.value = '';
  try {
    await props.keep({
      from: 'from words',
      layer: props.song.studentLayer,
      sections: sections.value.flatMap((section) => {
        const own = taken.value.filter((one) => one.section === section).map(({ phrase }) => phrase);
        if (own.length === 0) return [];
        const bars = own.reduce((sum, { text }) => sum + scoreOf(readPlaced(text, options.value).phrase).length, 0);
        return [
          {
            label: section.label.slice(0, SONG_LIMITS.label),
            role: section.role,
            bars: Math.min(Math.max(1, bars), SONG_LIMITS.bars.max),
            times: 1,
            phrases: own.map(({ name, text }) => ({ name, text })),
          },
        ];
      }),
    });
    page.value = '';
    open.value = false;
  } catch (error) {
    trouble.value = error instanceof Error ? error.message : 'It could not be taken over.';
  } finally {
    busy.value = false;
  }
}

const says = computed(() => (taken.value.length === 1 ? 'Import one phrase' : `Import ${taken.value.length} phrases`));
</script>

<template>
  <Dialog
    v-model:visible="open"
    modal
    header="From words"
    :style="{ width: '64rem' }"
    :breakpoints="{ '1040px': '96vw' }"
  >
    <div class="words">
      <Textarea
        v-model="page"
        autofocus
        rows="12"
        aria-label="What was said"
        placeholder="[0:17] Start with five on the G, then seven on the G, bend it a whole step and let it down.&#10;Next lick: eight on the B …"
      />
      <div class="found">
        <p v-if="isReading && phrases.length === 0" class="soft" role="status">Reading …</p>
        <p v-else-if="phrases.length === 0 && narration.page.trim() !== ''" class="soft">
          No notes were found in this. Name frets and strings: “nine on the third string, then ten on the B”.
        </p>
        <p v-else-if="phrases.length === 0" class="soft">
          Paste or dictate what you would say about the song: frets and strings in your own words. A stamp such as
          [1:09], an empty line, “next lick” or “the solo” begins something new.
        </p>
        <ul v-else class="quiet-list" aria-label="Phrases in it">
          <li v-for="({ section, phrase, key }, index) in phrases" :key="key" :class="{ chosen: chosen?.key === key }">
            <TickBox :model-value="!left.has(key)" @update:model-value="tick(key, $event)"
              >{{ section.label }} {{ section.role }}</TickBox
            >
            <LineButton class="said" :aria-pressed="chosen?.key === key" @click="shown = index">
              <q>{{ wordsOf(phrase) }}</q>
              <code>{{ phrase.text }}</code>
              <span v-if="phrase.reading.doubts.length > 0" class="asks"
                >{{ phrase.reading.doubts.length }} to look at</span
              >
            </LineButton>
          </li>
        </ul>
      </div>
      <section v-if="chosen" class="preview" aria-label="The phrase that is chosen">
        <TabPage :bars="preview" :strings="tuning.openMidis.length" :scale="0.8" />
        <DoubtList
          :doubts="chosen.phrase.reading.doubts"
          :words="narration.page.slice(chosen.phrase.words.from, chosen.phrase.words.to)"
          :most="8"
          @choose="(doubt, choice) => chosen && mean(chosen.phrase, doubt, choice)"
        />
      </section>
      <p v-if="unread" class="trouble" role="alert">{{ unread }}</p>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <footer>
        <span v-if="doubts > 0" class="soft"
          >{{ doubts }} {{ doubts === 1 ? 'place is' : 'places are' }} not sure.</span
        >
        <Button text label="Cancel" @click="open = false" />
        <Button :label="says" :disabled="taken.length === 0" :loading="busy" @click="accept" />
      </footer>
    </div>
  </Dialog>
</template>

<style scoped>
.words {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 0.8rem 1.2rem;
}
.found {
  max-height: 22rem;
  overflow-y: auto;
}
.found li {
  border-bottom: 1px solid var(--rule);
  padding: 0.3rem 0.4rem;
}
.chosen {
  background: var(--warm-wash);
}
.said {
  display: flex;
  flex-direction: column;
  width: 100%;
}
q {
  font-style: italic;
  color: var(--ink-soft);
}
code {
  font-family: var(--type-mono);
  overflow-wrap: anywhere;
}
.asks {
  color: var(--warm);
  font-size: 0.88rem;
}
.preview,
.trouble,
footer {
  grid-column: 1 / -1;
}
.trouble {
  color: var(--warm);
}
footer {
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: 0.6rem;
}
@media (max-width: 720px) {
  .words {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
