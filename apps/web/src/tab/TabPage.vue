<script setup lang="ts">
import type { ScoreBar, Span } from '@jam-ledger/core/notation';
import { computed, onBeforeUnmount, onMounted, ref, useId, useTemplateRef, watch } from 'vue';
import { shownLegends } from '../ui/index.ts';
import { legendOf } from './legend.ts';
import { usePageWidth } from '../ui/index.ts';
import { loadMusicFont, loadNotation, notation, TabView, type StaffSetUp, type TabFlag } from './engraving/index.ts';

const props = defineProps<{
  bars: readonly ScoreBar[];
  strings: number;
  caret?: Span | undefined;
  playing?: Span | undefined;
  /** What stands at some events whatever plays. */
  flags?: readonly TabFlag[];
  /** Standard notation above the tab, where it is asked for. */
  staff?: StaffSetUp | undefined;
  /** On one line that is scrolled along, or wrapped into systems. */
  strip?: boolean;
  /** What it says in words, a sentence a bar, for whoever does not see it. */
  said?: readonly string[];
  /** Size against that on the desk; for the page, where nothing is picked. */
  scale?: number;
}>();
const emit = defineEmits<{ pick: [span: Span]; drawn: [] }>();

const root = useTemplateRef('root');
const paper = useTemplateRef('paper');
const width = usePageWidth(root);
const ready = ref(false);
/** Whether anything was drawn here. */
let hasDrawn = false;
let view: TabView | undefined;

onMounted(async () => {
  await loadMusicFont();
  if (!paper.value) return;
  view = new TabView(paper.value);
  ready.value = true;
  show();
});

onBeforeUnmount(() => view?.close());

/** What draws notation comes when it is first shown; while the line is cut the tab stands alone, until it is asked for again. */
let isMissing = false;

function show(): void {
  if (!view || width.value < 60) return;
  const { bars, strings, strip } = props;
  if (props.staff && !notation() && !isMissing) return void bringNotation();
  const staff = notation() ? props.staff : undefined;
  view.show({ bars, width: Math.floor(width.value / (props.scale ?? 1)), strings, staff, strip });
  if (!hasDrawn) emit('drawn');
  hasDrawn = true;
  mark();
  view.flag(props.flags ?? []);
}

async function bringNotation(): Promise<void> {
  await loadNotation().catch(() => (isMissing = true));
  show();
  isMissing = false;
}

function mark(): void {
  if (props.playing) view?.mark(props.playing, 'playing');
  else view?.mark(props.caret, 'caret');
}

watch([() => props.bars, () => props.strings, () => props.staff, () => props.strip, width], show);
watch(
  () => props.flags,
  (flags) => view?.flag(flags ?? []),
);
watch([() => props.caret, () => props.playing], mark);

// The help of the page has the legend of what is shown.
const id = useId();
watch(
  () => props.bars,
  (bars) => shownLegends.set(id, legendOf(bars)),
  { immediate: true },
);
onBeforeUnmount(() => shownLegends.delete(id));

const says = computed(() => (props.bars.length === 1 ? 'Tab of one bar' : `Tab of ${props.bars.length} bars`));

function pick(event: MouseEvent): void {
  const span = view?.spanAt(event.clientX, event.clientY);
  if (span) emit('pick', span);
}
</script>

<script lang="ts">
// The font comes while what is to be drawn is fetched.
void loadMusicFont();
</script>

<template>
  <div class="tab" :data-ready="ready">
    <div ref="root" class="measure">
      <!-- One long line is scrolled by the keyboard, too. -->
      <div
        ref="paper"
        :class="['systems', { strip }]"
        :style="{ zoom: scale }"
        role="img"
        :aria-label="says"
        :tabindex="strip ? 0 : undefined"
        @click="pick"
      ></div>
    </div>
    <ol v-if="said" class="unseen" aria-label="The tab in words">
      <li v-for="(sentence, at) in said" :key="at">{{ sentence }}</li>
    </ol>
    <p v-if="bars.length === 0" class="soft empty"><slot /></p>
  </div>
</template>

<style scoped>
.tab {
  background: var(--page);
  border: 1px solid var(--rule);
  padding: 0.75rem 0.5rem;
  min-height: 9rem;
  position: relative;
  overflow-x: clip;
}
.strip {
  overflow-x: auto;
}
/* On one line each and for itself: broken into a column of words it is laid out with every key, longer than all else. */
.unseen {
  position: absolute;
  top: 0;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
  contain: strict;
}
.empty {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  text-align: center;
  padding: 1rem;
}
</style>
