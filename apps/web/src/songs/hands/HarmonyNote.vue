<script setup lang="ts">
import {
  arpeggiosOf,
  degreesOf,
  fitOf,
  nameChord,
  scalesFor,
  type Degree,
  type DegreeOptions,
} from '@jam-ledger/core/harmony';
import { unroll, type Phrase, type Span } from '@jam-ledger/core/notation';
import { OPEN_KEY } from '@jam-ledger/core/pitch';
import { computed } from 'vue';
import ScaleList from './ScaleList.vue';
import { FoldPart } from '../../ui/index.ts';

const props = defineProps<{ phrase: Phrase; caret: Span | undefined; options: DegreeOptions }>();

const degrees = computed(() => degreesOf(props.phrase, props.options));
/** The notes of the event at the caret, heard the first time. */
const here = computed(() => {
  const at = props.caret?.to;
  if (at === undefined) return [];
  const event = degrees.value.findLast(({ span }) => span.from <= at);
  return event ? degrees.value.filter((one) => one.at === event.at && one.span.from === event.span.from) : [];
});
const names = computed(() => {
  const midis = here.value.map(({ midi }) => midi);
  const chord = here.value[0]?.chord ?? undefined;
  const { key } = props.options;
  return midis.length < 2 ? [] : nameChord(midis, { ...(key && { key }), ...(chord !== undefined && { chord }) });
});
const chords = computed(() => {
  const all = unroll(props.phrase).chords.flatMap(({ chord }) => chord ?? []);
  return [...new Set(all)];
});
const soundingOf = (notes: readonly Degree[]) => new Set(notes.map(({ midi }) => midi % 12));
/** Scales for each chord with what sounds over it, and for the phrase. */
const scaleLists = computed(() => {
  const key = props.options.key ?? OPEN_KEY;
  const scales = scalesFor(chords.value, { key, sounding: soundingOf(degrees.value) }).map((scale) => ({
    ...scale,
    share: Math.round(fitOf(props.phrase, scale, props.options).inside * 100),
  }));
  const whole = { title: 'Scales over the phrase', scales };
  if (chords.value.length < 2) return chords.value.map((chord) => ({ ...whole, title: `Scales over ${chord}` }));
  const each = chords.value.map((chord) => {
    const sounding = soundingOf(degrees.value.filter((one) => one.chord === chord));
    return { title: `Scales over ${chord}`, scales: scalesFor([chord], { key, sounding }) };
  });
  return [whole, ...each];
});
const arpeggios = computed(() => arpeggiosOf(props.phrase, props.options));
/** Held notes that are no chord tones: the ear hears them rub, or is meant to. */
const leaning = computed(
  () => degrees.value.filter((one) => one.isHeld && one.degree !== null && !one.isChordTone).length,
);
const held = computed(() => degrees.value.filter((one) => one.isHeld && one.degree !== null).length);

/** A note against the chord in force and against the key, in words. */
function sayDegree({ degree, chord, isChordTone, keyDegree }: Degree): string {
  const ofKey = `${shown(keyDegree)} of the key`;
  if (degree === null) return ofKey;
  return `${shown(degree)} of ${chord ?? ''}${isChordTone ? ' (chord tone)' : ''}, ${ofKey}`;
}

/** A degree with the signs that musicians write. */
const shown = (degree: string): string => degree.replaceAll('b', '♭').replaceAll('#', '♯');
</script>

<template>
  <FoldPart v-if="degrees.length > 0" name="harmony" title="Harmony">
    <ul v-if="here.length > 0" class="quiet-list" aria-label="At the caret">
      <li v-for="note in here" :key="note.string">
        <strong>{{ note.name }}</strong> <span>{{ sayDegree(note) }}</span>
      </li>
    </ul>
    <ul v-if="arpeggios.length > 0" class="quiet-list" aria-label="Arpeggios">
      <li v-for="arpeggio in arpeggios" :key="arpeggio.span.from">
        <strong>{{ shown(arpeggio.symbol) }}</strong> arpeggio of {{ arpeggio.notes }} notes from its
        {{ shown(arpeggio.from) }}, {{ arpeggio.shape }}, frets {{ arpeggio.lowestFret }} to {{ arpeggio.highestFret }}.
      </li>
    </ul>
    <p v-if="names[0]">
      Together <strong>{{ names[0].symbol }}</strong>: {{ names[0].because }}.
      <span v-if="names.length > 1" class="soft"
        >Or
        {{
          names
            .slice(1)
            .map(({ symbol }) => symbol)
            .join(', ')
        }}.</span
      >
    </p>
    <p v-if="held > 0" class="soft">
      {{ held - leaning }} of {{ held }} notes that the ear rests on
      {{ held === 1 ? 'is a chord tone' : 'are chord tones' }}.
    </p>
    <template v-for="{ title, scales } in scaleLists" :key="title">
      <ScaleList v-if="scales.length > 0" :title="title" :scales="scales" />
    </template>
  </FoldPart>
</template>
