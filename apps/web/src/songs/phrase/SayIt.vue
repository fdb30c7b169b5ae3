<script setup lang="ts">
import type { Key } from '@jam-ledger/core/pitch';
import { readSpoken, sayPhrase, type SpokenChoice, type SpokenDoubt } from '@jam-ledger/core/spoken';
import Button from 'primevue/button';
import Textarea from 'primevue/textarea';
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue';
import { TabPage, useReading } from '../../tab/index.ts';
import DoubtList from '../DoubtList.vue';
import { useHabits } from '../useHabits.ts';

/** A line that takes down what is said, typed or dictated by the device: the notes stand under it as the words come. */
const props = defineProps<{
  tuning: string;
  meter: string;
  capo: number;
  musicKey: Key;
  /** The text that stands before what is said. */
  before: string;
}>();
const emit = defineEmits<{ take: [shorthand: string]; close: [] }>();

const line = useTemplateRef<HTMLElement>('line');
const said = ref('');
const { habits, remember } = useHabits();

const { tuning, bars, reading } = useReading(
  () => spoken.value.shorthand,
  () => props,
);
const spoken = computed(() =>
  readSpoken(said.value, {
    ...{ tuning: tuning.value, key: props.musicKey, before: props.before, habits: habits.value },
  }),
);
/** For whoever does not see the tab. */
const inWords = computed(() => sayPhrase(reading.value.phrase, { strings: 'letters', length: 'short' }));

const field = () => line.value?.querySelector('textarea');
onMounted(() => field()?.focus());

/** What was meant is said in the words themselves, and meant the next time. */
function choose(doubt: SpokenDoubt, choice: SpokenChoice): void {
  const { from, to } = doubt.span;
  remember(doubt, choice, said.value.slice(from, to));
  said.value = said.value.slice(0, from) + choice.say + said.value.slice(to);
  field()?.focus();
}

async function take(): Promise<void> {
  const { shorthand } = spoken.value;
  if (shorthand === '') return;
  emit('take', shorthand);
  said.value = '';
  await nextTick();
  field()?.focus();
}

const known = computed(() =>
  Object.entries(habits.value).map(([kind, label]) =>
    kind === 'not understood' ? `“${label.replaceAll(' ', '”, “')}”: just talk` : `${kind}: ${label}`,
  ),
);
</script>

<template>
  <section ref="line" class="say-it screen-only" aria-label="Say it">
    <div class="line">
      <Textarea
        v-model="said"
        rows="1"
        auto-resize
        aria-label="What you would say"
        placeholder="nine on the third string, bend it up a whole step, then ten on the B …"
        :maxlength="20000"
        @keydown.enter.exact.prevent="take"
        @keydown.esc="emit('close')"
      />
      <Button size="small" label="Write it" title="Enter" :disabled="spoken.shorthand === ''" @click="take" />
      <Button size="small" text icon="pi pi-times" aria-label="Close the line" title="Escape" @click="emit('close')" />
    </div>
    <div v-if="spoken.shorthand !== ''" class="heard">
      <TabPage :bars="bars" :strings="tuning.openMidis.length" :scale="0.85" :said="inWords" />
      <code>{{ spoken.shorthand }}</code>
    </div>
    <p v-else-if="said.trim() !== ''" class="soft">No notes in it yet.</p>
    <DoubtList :doubts="spoken.doubts" :words="said" :most="6" @choose="choose" />
    <p v-if="known.length > 0" class="soft">
      You mean {{ known.join(', ') }}.
      <Button size="small" text label="Ask me again" @click="habits = {}" />
    </p>
  </section>
</template>

<style scoped>
.say-it {
  border-left: 3px solid var(--cool);
  padding-left: 0.7rem;
  display: flex;
  flex-direction: column;
  gap: 0.4rem;
}
.line {
  display: flex;
  gap: 0.4rem;
  align-items: flex-start;
}
.line :deep(textarea) {
  flex: 1;
  min-width: 0;
}
code {
  font-family: var(--type-mono);
  overflow-wrap: anywhere;
}
</style>
