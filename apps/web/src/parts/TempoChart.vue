<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import type { Data, Layout } from 'plotly.js-basic-dist-min';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';

const props = defineProps<{ piece: Piece; dark: boolean }>();
const root = useTemplateRef('root');
let plot: typeof import('plotly.js-basic-dist-min') | undefined;

onMounted(async () => {
  plot = await import('plotly.js-basic-dist-min');
  await draw();
});
onBeforeUnmount(() => {
  if (plot && root.value) plot.purge(root.value);
});
watch(() => [props.piece, props.dark], draw);

function token(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(name).trim();
}

function traces(): Data[] {
  const counted = props.piece.entries.filter(({ struck }) => !struck);
  return (['pencil', 'ink'] as const).map((medium) => {
    const own = counted.filter((entry) => entry.medium === medium);
    const colour = token(medium === 'ink' ? '--cool' : '--pencil');
    return {
      type: 'scatter',
      mode: medium === 'ink' ? 'lines+markers' : 'markers',
      name: medium,
      x: own.map(({ postedAt }) => postedAt),
      y: own.map(({ bpm }) => bpm),
      text: own.map(({ outcome }) => (outcome === 'clean' ? 'clean' : 'not yet')),
      hovertemplate: '%{y} bpm, %{text}<extra></extra>',
      line: { color: colour, width: 2 },
      marker: {
        color: own.map(({ outcome }) => (outcome === 'clean' ? colour : token('--page'))),
        line: { color: colour, width: 2 },
        size: 9,
        symbol: medium === 'ink' ? 'circle' : 'diamond',
      },
    };
  });
}

async function draw(): Promise<void> {
  if (!plot || !root.value) return;
  const line = token('--rule');
  const { targetBpm } = props.piece;
  const layout: Partial<Layout> = {
    height: 230,
    margin: { l: 46, r: 12, t: 8, b: 34 },
    paper_bgcolor: token('--page'),
    plot_bgcolor: token('--page'),
    font: { family: '"Source Sans 3 Variable"', color: token('--ink'), size: 13 },
    xaxis: { type: 'date', gridcolor: line },
    yaxis: { title: { text: 'tempo, bpm' }, gridcolor: line },
    legend: { orientation: 'h', y: 1.12 },
    shapes: [
      {
        type: 'line',
        xref: 'paper',
        x0: 0,
        x1: 1,
        y0: targetBpm,
        y1: targetBpm,
        line: { color: token('--warm'), width: 2, dash: 'dash' },
      },
    ],
  };
  await plot.react(root.value, traces(), layout, { displayModeBar: false, responsive: true });
}
</script>

<template>
  <div
    ref="root"
    role="img"
    :aria-label="`Tempo of ${piece.phrase.name} over the days, target ${piece.targetBpm}`"
  ></div>
</template>
