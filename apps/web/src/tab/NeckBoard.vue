<script setup lang="ts">
import { namesOf, type StringNames } from '@jam-ledger/core/fretboard';
import { letterOfString } from '@jam-ledger/core/notation';
import {
  fretDistanceMm,
  midiOf,
  spell,
  writeSpelling,
  type Key,
  type FretPosition,
  type Tuning,
} from '@jam-ledger/core/pitch';
import { computed, ref } from 'vue';

const props = defineProps<{
  tuning: Tuning;
  capo: number;
  frets: number;
  musicKey: Key;
  /** How strings are named. */
  names: StringNames;
  /** Drawn as a left-handed player sees it; what is written stays the same. */
  mirrored?: boolean;
  /** Only looked at, not written on. */
  still?: boolean;
  /** Where the notes at the caret lie. */
  shown: readonly FretPosition[];
}>();
const emit = defineEmits<{ touch: [note: string, stack: boolean] }>();

/** Measures of the drawing, in its own units. */
const NUT_X = 34;
const WIDTH = 720;
const GAP = 15;
const TOP = 12;
/** Any scale length gives the same proportions. */
const SCALE_MM = 650;
/** Frets with a mark on the neck. Common practice. */
const MARKED = [3, 5, 7, 9, 12, 15, 17, 19, 21, 24, 27, 29, 31, 33, 36];

const strings = computed(() => props.tuning.openMidis.length);
const last = computed(() => props.frets - props.capo);
const height = computed(() => TOP * 2 + (strings.value - 1) * GAP + 14);
/** From the side where the nut is. */
const alongX = (fret: number) =>
  NUT_X + ((WIDTH - NUT_X) * fretDistanceMm(SCALE_MM, 0, fret)) / fretDistanceMm(SCALE_MM, 0, Math.max(1, last.value));
const sideX = (x: number) => (props.mirrored ? WIDTH - x : x);
const fretX = (fret: number) => sideX(alongX(fret));
/** Where a finger lies: between the fret and the one before it; an open string left of the nut. */
const noteX = (fret: number) => (fret === 0 ? sideX(NUT_X - 13) : (fretX(fret - 1) + fretX(fret)) / 2);
const stringY = (string: number) => TOP + (string - 1) * GAP;

const cursor = ref<FretPosition>({ string: 1, fret: 0 });
const focused = ref(false);
const nameOf = ({ string, fret }: FretPosition) =>
  writeSpelling(spell(midiOf(props.tuning, string, fret, props.capo), props.musicKey), false);

const says = computed(() =>
  props.still
    ? `Neck with ${props.shown.length} places${props.mirrored ? ', as a left-handed player sees it' : ''}`
    : `Neck: arrows move, Enter writes ${typed(cursor.value)}, ${nameOf(cursor.value)}; Shift adds it to the stack`,
);

function typed({ string, fret }: FretPosition): string {
  const letter =
    namesOf({ tuning: props.tuning, names: props.names }) === 'letters' ? letterOfString(string) : undefined;
  return `${fret}${letter ?? `@${string}`}`;
}

function place(event: MouseEvent): FretPosition | undefined {
  if (!(event.currentTarget instanceof SVGElement)) return undefined;
  const box = event.currentTarget.getBoundingClientRect();
  const x = sideX(((event.clientX - box.left) / box.width) * WIDTH);
  const y = ((event.clientY - box.top) / box.height) * height.value;
  const string = Math.min(strings.value, Math.max(1, Math.round((y - TOP) / GAP) + 1));
  const fret =
    x < NUT_X ? 0 : Array.from({ length: last.value }, (_, index) => index + 1).find((at) => alongX(at) >= x);
  return { string, fret: fret ?? last.value };
}

function click(event: MouseEvent): void {
  if (props.still) return;
  const at = place(event);
  if (!at) return;
  cursor.value = at;
  emit('touch', typed(at), event.shiftKey);
}

const MOVES: Readonly<Record<string, readonly [string: number, fret: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

function press(event: KeyboardEvent): void {
  if (props.still) return;
  const move = MOVES[event.key];
  if (event.key === 'Enter') emit('touch', typed(cursor.value), event.shiftKey);
  else if (!move) return;
  else {
    const [string, along] = move;
    const fret = props.mirrored ? -along : along;
    cursor.value = {
      string: Math.min(strings.value, Math.max(1, cursor.value.string + string)),
      fret: Math.min(last.value, Math.max(0, cursor.value.fret + fret)),
    };
  }
  event.preventDefault();
}
</script>

<template>
  <div class="neck">
    <svg
      :viewBox="`0 0 ${WIDTH} ${height}`"
      :role="still ? 'img' : 'application'"
      :tabindex="still ? undefined : 0"
      :class="{ still }"
      :aria-label="says"
      @click="click"
      @keydown="press"
      @focus="focused = true"
      @blur="focused = false"
    >
      <line :x1="sideX(NUT_X)" :x2="sideX(NUT_X)" :y1="TOP" :y2="stringY(strings)" class="nut" />
      <g v-for="fret in last" :key="fret">
        <line :x1="fretX(fret)" :x2="fretX(fret)" :y1="TOP" :y2="stringY(strings)" class="fret" />
        <text v-if="MARKED.includes(fret)" :x="noteX(fret)" :y="height - 3" class="number">{{ fret }}</text>
      </g>
      <line
        v-for="string in strings"
        :key="string"
        x1="0"
        :x2="WIDTH"
        :y1="stringY(string)"
        :y2="stringY(string)"
        class="string"
        :stroke-width="0.8 + string * 0.28"
      />
      <g v-for="at in shown" :key="`${at.string}-${at.fret}`">
        <rect :x="noteX(at.fret) - 12" :y="stringY(at.string) - 8" width="24" height="16" class="note" />
        <text :x="noteX(at.fret)" :y="stringY(at.string) + 4.5" class="name">{{ nameOf(at) }}</text>
      </g>
      <rect
        v-if="focused"
        :x="noteX(cursor.fret) - 14"
        :y="stringY(cursor.string) - 9"
        width="28"
        height="18"
        class="cursor"
      />
    </svg>
    <p v-if="!still" class="soft hint">Click a string at a fret to write it; with Shift it joins the stack before.</p>
  </div>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  background: var(--page-sunk);
  border: 1px solid var(--rule);
  cursor: crosshair;
}
.still {
  cursor: default;
}
.nut {
  stroke: var(--ink);
  stroke-width: 4;
}
.fret {
  stroke: var(--rule-strong);
  stroke-width: 1.5;
}
.string {
  stroke: var(--stave);
}
.number {
  font-size: 12px;
  fill: var(--ink-soft);
  text-anchor: middle;
}
.note {
  fill: var(--cool);
}
.name {
  font-size: 12px;
  font-weight: 700;
  fill: var(--on-accent);
  text-anchor: middle;
}
.cursor {
  fill: none;
  stroke: var(--warm);
  stroke-width: 2;
}
.hint {
  font-size: 0.85rem;
}
</style>
