<script setup lang="ts">
import type { PlanPiece } from '@jam-ledger/contract';
import type { Needs } from '@jam-ledger/core/pieces';
import { useVirtualList } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { barOf, LANE, placeOf, type SongLane } from './planLane.ts';
import { usePlanDrag } from './usePlanDrag.ts';
import type { LineState } from './planEdits.ts';

const props = defineProps<{
  pieces: readonly PlanPiece[];
  lane: SongLane;
  needs: Needs;
  nameOf: (piece: PlanPiece) => string;
  stateOf: (id: string) => LineState;
  chosen: string | undefined;
  /** When a piece is to be begun; undefined where it is given, or nothing is planned. */
  beginOn: (id: string) => string | undefined;
}>();
const emit = defineEmits<{ choose: [id: string]; move: [id: string, to: number] }>();

/** Rows beyond those that are to be seen which are there, too. Our choice. */
const OVERSCAN = 12;
// A plan may hold thousands of pieces; only the rows that are to be seen are on the page.
const {
  list: rows,
  containerProps,
  scrollTo,
} = useVirtualList(
  computed(() => [...props.pieces]),
  { itemHeight: LANE.row, overscan: OVERSCAN },
);
const first = computed(() => rows.value[0]?.index ?? 0);
const last = computed(() => rows.value.at(-1)?.index ?? -1);

/** What the chosen piece needs, and what waits for it. */
const related = computed(() => {
  const id = props.chosen ?? '';
  const needed = new Set(props.needs.get(id) ?? []);
  const waiting = new Set(props.pieces.filter((piece) => props.needs.get(piece.id)?.includes(id)).map((one) => one.id));
  return { needed, waiting };
});
const byId = computed(() => new Map(props.pieces.map((piece, index) => [piece.id, { piece, index }])));
const isSeen = (index: number) => index >= first.value && index <= last.value;
/** A line from the foot of what is needed to the head of what needs it, where one of them is to be seen. */
const lines = computed(() =>
  props.pieces.flatMap(({ id }, index) =>
    (props.needs.get(id) ?? []).flatMap((needed) => {
      const [one, other] = [byId.value.get(needed), byId.value.get(id)];
      if (!one || !other || !(isSeen(index) || isSeen(one.index))) return [];
      const [from, to] = [one, other].map(({ piece, index: at }) => placeOf(piece, at, props.lane));
      if (!from || !to) return [];
      const strong = id === props.chosen || needed === props.chosen;
      const middle = (from.bottom + to.top) / 2;
      const path = `M${from.x} ${from.bottom} C${from.x} ${middle} ${to.x} ${middle} ${to.x} ${to.top}`;
      return [{ key: `${needed} ${id}`, path, strong }];
    }),
  ),
);

const list = useTemplateRef<HTMLElement>('list');
const { over, grab } = usePlanDrag(
  (clientY) => {
    if (!list.value) return undefined;
    const below = clientY - list.value.getBoundingClientRect().top + first.value * LANE.row;
    return Math.min(props.pieces.length, Math.max(0, Math.round(below / LANE.row)));
  },
  (id, to) => {
    const from = props.pieces.findIndex((piece) => piece.id === id);
    // Below its old place everything has moved up by one.
    if (from !== to && from !== to - 1) emit('move', id, to > from ? to - 1 : to);
  },
);

// The chosen row is brought into sight, by as little as it takes.
watch(
  () => props.chosen,
  (id) => {
    const index = byId.value.get(id ?? '')?.index;
    const frame = containerProps.ref.value;
    if (index === undefined || !frame) return;
    const [top, seen] = [index * LANE.row, frame.scrollTop];
    if (top < seen) scrollTo(index);
    else if (top + LANE.row > seen + frame.clientHeight) frame.scrollTop = top + LANE.row - frame.clientHeight;
  },
  { flush: 'post' },
);

function lookOf({ id }: PlanPiece) {
  const { state, stuck, assignedOn } = props.stateOf(id);
  return { given: assignedOn !== null, held: state === 'held', stuck, slipping: state === 'slipping' };
}
function sayState({ id }: PlanPiece): string {
  const { state, stuck, assignedOn, share } = props.stateOf(id);
  const begin = props.beginOn(id);
  if (assignedOn === null) return begin === undefined ? 'planned' : `for ${begin}`;
  if (stuck) return `stuck at ${Math.round(share * 100)} %`;
  return state === 'building' ? `${Math.round(share * 100)} %` : state;
}
</script>

<template>
  <div
    class="plan"
    tabindex="0"
    role="group"
    aria-label="The plan, piece by piece"
    :style="{ '--row': `${LANE.row}px`, '--head': `${LANE.head}px`, '--lane': `${lane.width}px` }"
  >
    <div class="head" aria-hidden="true">
      <span class="number">#</span>
      <span class="form">
        <span
          v-for="{ id, label, left, width } in lane.sections"
          :key="id"
          class="section"
          :style="{ left: `${left}px`, width: `${width}px` }"
          >{{ label }}</span
        >
      </span>
      <span class="name">Piece</span>
      <span class="tempo">Tempo</span>
      <span>Standing</span>
    </div>
    <div v-bind="containerProps" class="frame" tabindex="0" role="group" aria-label="Pieces of the plan">
      <div class="all" :style="{ height: `${pieces.length * LANE.row}px` }">
        <svg class="lines" :width="lane.width" :height="pieces.length * LANE.row" aria-hidden="true">
          <line
            v-for="{ id, left } in lane.phrases"
            :key="id"
            class="rule"
            :x1="left"
            :x2="left"
            y1="0"
            :y2="pieces.length * LANE.row"
          />
          <path v-for="{ key, path, strong } in lines" :key="key" :d="path" :class="{ strong }" />
        </svg>
        <ol
          ref="list"
          class="quiet-list shown"
          :style="{ top: `${first * LANE.row}px` }"
          role="listbox"
          aria-label="Pieces in the order they are learned"
        >
          <li
            v-for="{ data: piece, index } in rows"
            :key="piece.id"
            role="option"
            :aria-selected="piece.id === chosen"
            :aria-posinset="index + 1"
            :aria-setsize="pieces.length"
            :data-piece="piece.id"
            :class="[
              'row',
              {
                chosen: piece.id === chosen,
                needed: related.needed.has(piece.id),
                waiting: related.waiting.has(piece.id),
                above: over === index,
                below: over === index + 1 && index === pieces.length - 1,
              },
            ]"
            @click="emit('choose', piece.id)"
            @pointerdown="grab($event, piece.id)"
          >
            <span class="number" title="Drag it up or down"
              >{{ index + 1 }}<span v-if="piece.fixed" title="put here by hand">•</span></span
            >
            <span class="form">
              <span :class="['bar', piece.kind, lookOf(piece)]" :style="barOf(piece, lane)"></span>
            </span>
            <span class="name">{{ nameOf(piece) }}</span>
            <span class="tempo">{{ piece.startBpm }} → {{ piece.targetBpm }}</span>
            <span :class="['standing', lookOf(piece)]"
              >{{ sayState(piece) }}<span v-if="related.needed.has(piece.id)" class="soft"> · needed</span
              ><span v-else-if="related.waiting.has(piece.id)" class="soft"> · waits for it</span></span
            >
          </li>
        </ol>
      </div>
    </div>
  </div>
</template>

<style scoped>
.plan {
  position: relative;
  background: var(--page);
  border-top: 2px solid var(--ink);
  border-bottom: 2px solid var(--ink);
  overflow-x: auto;
}
.head,
.row {
  display: grid;
  grid-template-columns: 2.6rem var(--lane) minmax(9rem, 1fr) 6rem minmax(7rem, 0.6fr);
  gap: 0 0.6rem;
  align-items: center;
  min-width: calc(var(--lane) + 27rem);
}
.frame {
  max-height: max(20rem, 76vh);
  min-width: calc(var(--lane) + 27rem);
}
.all {
  position: relative;
}
.shown {
  position: absolute;
  left: 0;
  right: 0;
}
.head {
  height: var(--head);
  border-bottom: 1px solid var(--ink);
  font-weight: 600;
}
.row {
  user-select: none;
  height: var(--row);
  border-bottom: 1px solid var(--rule);
  cursor: grab;
}
.row.chosen {
  background: var(--warm-wash);
  box-shadow: inset 3px 0 0 var(--warm);
}
.row.needed,
.row.waiting {
  background: var(--page-sunk);
}
.row.above {
  box-shadow: inset 0 2px 0 var(--cool);
}
.row.below {
  box-shadow: inset 0 -2px 0 var(--cool);
}
.number {
  cursor: grab;
  touch-action: none;
  text-align: right;
  color: var(--ink-soft);
  font-size: 0.88rem;
}
.form {
  position: relative;
  height: 100%;
}
.section {
  position: absolute;
  bottom: 2px;
  font-family: var(--type-book);
  border-left: 1px solid var(--ink);
  padding-left: 3px;
  overflow: hidden;
  white-space: nowrap;
}
.bar {
  position: absolute;
  top: calc(var(--row) * 0.22);
  height: calc(var(--row) * 0.56);
  border: 1.5px solid var(--ink-soft);
  background: var(--page);
  border-radius: 2px;
}
.bar.drill {
  border-style: dotted;
}
.bar.half {
  border-style: dashed;
}
.bar.join {
  border-radius: 999px;
}
.bar.run {
  border-top-width: 4px;
}
.bar.given {
  background: var(--cool-wash);
  border-color: var(--cool);
}
.bar.held {
  background: var(--cool);
}
.bar.stuck,
.bar.slipping {
  background: var(--warm-wash);
  border-color: var(--warm);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tempo {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.standing {
  font-size: 0.9rem;
  white-space: nowrap;
}
.standing.stuck,
.standing.slipping {
  color: var(--warm);
  font-weight: 600;
}
.lines {
  position: absolute;
  left: calc(2.6rem + 0.6rem);
  top: 0;
  pointer-events: none;
  z-index: 1;
}
.lines path {
  fill: none;
  stroke: var(--rule-strong);
  stroke-width: 1;
  opacity: 0.55;
}
.lines path.strong {
  stroke: var(--warm);
  stroke-width: 2;
  opacity: 1;
}
.lines .rule {
  stroke: var(--rule);
}
</style>
