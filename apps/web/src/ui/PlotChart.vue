<script setup lang="ts">
import type { Data, Layout } from 'plotly.js-basic-dist-min';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import { token } from './tokens.ts';

const props = defineProps<{
  data: Data[];
  layout: Partial<Layout>;
  /** What the chart says, in words. */
  label: string;
  height: number;
  dark: boolean;
}>();
const root = useTemplateRef('root');
let plot: typeof import('plotly.js-basic-dist-min') | undefined;

onMounted(async () => {
  plot = await import('plotly.js-basic-dist-min');
  await draw();
});
onBeforeUnmount(() => {
  if (plot && root.value) plot.purge(root.value);
});
watch(() => [props.data, props.layout, props.dark], draw);

async function draw(): Promise<void> {
  if (!plot || !root.value) return;
  const { xaxis, yaxis } = props.layout;
  const gridcolor = token('--rule');
  const layout: Partial<Layout> = {
    height: props.height,
    margin: { l: 46, r: 12, t: 30, b: 34 },
    paper_bgcolor: token('--page'),
    plot_bgcolor: token('--page'),
    font: { family: '"Source Sans 3 Variable"', color: token('--ink'), size: 13 },
    legend: { orientation: 'h', y: 1.02, yanchor: 'bottom' },
    ...props.layout,
    xaxis: { gridcolor, ...xaxis },
    yaxis: { gridcolor, ...yaxis },
  };
  await plot.react(root.value, props.data, layout, { displayModeBar: false, responsive: true });
}
</script>

<template>
  <div ref="root" role="img" :aria-label="label"></div>
</template>
