<script setup lang="ts">
import { LAYERS, type Layer, type RigNote, type Section } from '@jam-ledger/contract';
import { placeAt, type TempoChanges, type TimedRound } from '@jam-ledger/core/form';
import Button from 'primevue/button';
import { computed, ref, useTemplateRef } from 'vue';
import { foldRounds, rulerMarks, sayPlace, type StripBlock as Block } from './formStrip.ts';
import type { SongClock } from './useSongClock.ts';
import { clockText, usePageWidth } from '../../ui/index.ts';
import StripBlock from './StripBlock.vue';

const props = defineProps<{
  sections: readonly Section[];
  rounds: readonly TimedRound[];
  tempoChanges: TempoChanges;
  songSeconds: number | null;
  studentLayer: Layer;
  rig: readonly RigNote[];
  chosen: string | undefined;
  clock: SongClock;
}>();
const emit = defineEmits<{
  choose: [id: string];
  /** A section starts elsewhere. */
  move: [id: string, startSeconds: number];
  /** A section begins at this place, tapped along with the clock. */
  drop: [seconds: number];
  /** The phrase on the desk is heard from here. */
  stamp: [seconds: number];
  /** A beat falls here. */
  beat: [seconds: number];
}>();
defineSlots<{ wave?: (scale: { readonly perSecond: number }) => unknown }>();

const folded = ref(true);
const zoom = ref(1);
const pointer = ref<number>();
const drag = ref<{ id: string; seconds: number }>();
const view = useTemplateRef<HTMLElement>('view');
const width = usePageWidth(view);

/** How far one key moves a boundary, seconds; with Shift ten times as far. Our choice. */
const STEP_SECONDS = 0.1;
const MAX_ZOOM = 16;

const total = computed(() =>
  Math.max(props.songSeconds ?? 0, 8, ...props.rounds.map(({ toSeconds }) => toSeconds + 1)),
);
const perSecond = computed(() => (Math.max(width.value, 300) * zoom.value) / total.value);
const marks = computed(() => rulerMarks(total.value, perSecond.value));
const blocks = computed(() => (folded.value ? foldRounds(props.rounds, props.sections) : unfolded.value));
const unfolded = computed(() =>
  props.rounds.map((round, index): Block => ({
    ...round,
    key: `${round.id}-${index}`,
    times: 1,
    notes: round.changes,
  })),
);
/** The layers of the song, the student’s on top. */
const rows = computed(() => {
  const written = new Set(props.sections.flatMap(({ phrases }) => phrases.map(({ layer }) => layer)));
  const others = LAYERS.filter((layer) => written.has(layer) && layer !== props.studentLayer);
  const layersOf = new Map(props.sections.map(({ id, phrases }) => [id, new Set(phrases.map(({ layer }) => layer))]));
  const has = (id: string, layer: Layer) => layersOf.get(id)?.has(layer) ?? false;
  const own = { layer: props.studentLayer, blocks: blocks.value };
  return [own, ...others.map((layer) => ({ layer, blocks: blocks.value.filter(({ id }) => has(id, layer)) }))];
});
const here = computed(() => pointer.value ?? props.clock.seconds.value);
const place = computed(() => sayPlace(here.value, placeAt(here.value, props.rounds, props.tempoChanges), props.rig));

function secondsAt(event: PointerEvent | MouseEvent): number {
  const left = view.value?.getBoundingClientRect().left ?? 0;
  const x = event.clientX - left + (view.value?.scrollLeft ?? 0);
  return Math.max(0, Math.min(total.value, x / perSecond.value));
}

function tenths(seconds: number): number {
  return Math.max(0, Math.round(seconds * 10) / 10);
}

function startOf({ id, fromSeconds }: Block): number {
  return drag.value?.id === id ? drag.value.seconds : fromSeconds;
}

function grab(block: Block, event: PointerEvent): void {
  if (event.target instanceof Element) event.target.setPointerCapture(event.pointerId);
  drag.value = { id: block.id, seconds: block.fromSeconds };
}

function track(event: PointerEvent): void {
  pointer.value = secondsAt(event);
  if (drag.value) drag.value = { ...drag.value, seconds: tenths(pointer.value) };
}

function release(): void {
  const done = drag.value;
  drag.value = undefined;
  const section = props.sections.find(({ id }) => id === done?.id);
  if (done && section && section.startSeconds !== done.seconds) emit('move', done.id, done.seconds);
}

function go(event: MouseEvent): void {
  props.clock.goTo(secondsAt(event));
}

/** Alt and an arrow move the start of the block; an arrow alone goes to its neighbour. */
function onKey(event: KeyboardEvent, block: Block): void {
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
  if (by === 0) return;
  event.preventDefault();
  if (event.altKey) {
    const section = props.sections.find(({ id }) => id === block.id);
    if (section) emit('move', block.id, tenths(section.startSeconds + by * STEP_SECONDS * (event.shiftKey ? 10 : 1)));
    return;
  }
  const all = [...(view.value?.querySelectorAll<HTMLElement>('.row.own button') ?? [])];
  all[all.findIndex((one) => one === event.target) + by]?.focus();
}

function onStripKey({ key }: KeyboardEvent): void {
  if (key === 'd') emit('drop', tenths(props.clock.seconds.value));
  else if (key === 'f') folded.value = !folded.value;
  else if (key === '+' || key === '=') zoomBy(2);
  else if (key === '-') zoomBy(0.5);
  else if (key === 'p') props.clock.toggle();
  else if (key === 's') emit('stamp', tenths(props.clock.seconds.value));
  else if (key === 'b') emit('beat', props.clock.seconds.value);
}

function zoomBy(times: number): void {
  zoom.value = Math.min(MAX_ZOOM, Math.max(1, zoom.value * times));
}
</script>

<template>
  <section class="form-strip" aria-label="Form of the song, to scale against the clock" @keydown="onStripKey">
    <div ref="view" class="view" @pointermove="track" @pointerleave="pointer = undefined" @pointerup="release">
      <div class="scale" :style="{ width: `${total * perSecond}px` }">
        <div class="ruler" @click="go">
          <span v-for="mark in marks" :key="mark" class="mark" :style="{ left: `${mark * perSecond}px` }">{{
            clockText(mark)
          }}</span>
        </div>
        <div
          v-for="row in rows"
          :key="row.layer"
          :class="['row', { own: row.layer === studentLayer }]"
          role="group"
          :aria-label="row.layer"
          @click.self="go"
        >
          <span v-if="rows.length > 1" class="layer">{{ row.layer }}</span>
          <StripBlock
            v-for="block in row.blocks"
            :key="block.key"
            :block="block"
            :from-seconds="startOf(block)"
            :per-second="perSecond"
            :chosen="block.id === chosen"
            :small="row.layer !== studentLayer"
            @choose="emit('choose', block.id)"
            @grab="grab(block, $event)"
            @key="onKey($event, block)"
          />
        </div>
        <slot name="wave" :per-second="perSecond" />
        <div class="now" :style="{ left: `${clock.seconds.value * perSecond}px` }"></div>
      </div>
    </div>
    <div class="tools">
      <Button
        size="small"
        text
        :icon="clock.running.value ? 'pi pi-pause' : 'pi pi-play'"
        :label="clock.running.value ? 'Stop the clock (p)' : 'Run the song clock (p)'"
        @click="clock.toggle()"
      />
      <Button size="small" text label="Start a section here (d)" @click="emit('drop', tenths(clock.seconds.value))" />
      <Button
        size="small"
        text
        label="Stamp the phrase (s)"
        title="Its first note is heard here"
        @click="emit('stamp', tenths(clock.seconds.value))"
      />
      <Button size="small" text label="Tap a beat (b)" @click="emit('beat', clock.seconds.value)" />
      <Button
        size="small"
        text
        :label="folded ? 'Unfold the repeats (f)' : 'Fold the repeats (f)'"
        @click="folded = !folded"
      />
      <Button
        size="small"
        text
        icon="pi pi-minus"
        aria-label="Zoom out (-)"
        :disabled="zoom <= 1"
        @click="zoomBy(0.5)"
      />
      <Button
        size="small"
        text
        icon="pi pi-plus"
        aria-label="Zoom in (+)"
        :disabled="zoom >= MAX_ZOOM"
        @click="zoomBy(2)"
      />
      <output class="place">{{ place }}</output>
    </div>
  </section>
</template>

<style scoped>
.view {
  overflow-x: auto;
  border-bottom: 2px solid var(--ink);
}
.scale {
  position: relative;
  min-width: 100%;
}
.ruler {
  position: relative;
  height: 1.15rem;
  cursor: pointer;
}
.mark {
  position: absolute;
  font-size: 0.75rem;
  color: var(--ink-soft);
  border-left: 1px solid var(--rule-strong);
  padding-left: 0.2rem;
  white-space: nowrap;
}
.row {
  position: relative;
  height: 1.75rem;
  border-top: 1px solid var(--rule);
}
.row.own {
  height: 2.75rem;
}
.layer {
  position: sticky;
  left: 0;
  z-index: 3;
  display: inline-block;
  padding: 0 0.3rem;
  font-size: 0.78rem;
  font-style: italic;
  color: var(--ink-soft);
  background: var(--paper);
  pointer-events: none;
}
.now {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 2px solid var(--warm);
  pointer-events: none;
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 0.2rem;
}
.place {
  margin-left: auto;
  font-size: 0.9rem;
  font-variant-numeric: tabular-nums;
}
</style>
