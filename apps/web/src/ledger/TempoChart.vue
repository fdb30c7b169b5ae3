<script setup lang="ts">
import type { Piece } from '@jam-ledger/contract';
import type { Data, Layout, Shape } from 'plotly.js-basic-dist-min';
import { fitLearning } from '@jam-ledger/core/progress';
import { countingOf } from '../playing/index.ts';
import { sayExpected } from './expected.ts';
import { computed } from 'vue';
import { PlotChart, token, chartDay } from '../ui/index.ts';

const props = defineProps<{ piece: Piece; dark: boolean }>();
function traces(): Data[] {
  const counted = countingOf(props.piece);
  return (['pencil', 'ink'] as const).map((medium) => {
    const own = counted.filter((entry) => entry.medium === medium);
    const colour = token(medium === 'ink' ? '--cool' : '--pencil');
    return {
      type: 'scatter',
      mode: medium === 'ink' ? 'lines+markers' : 'markers',
      name: medium,
      x: own.map((entry) => ('postedAt' in entry ? entry.postedAt : `${entry.day}T12:00:00Z`)),
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

/** The learning curve through the best clean take of each day, as far as it is expected to go. */
function curve(): Data[] {
  const best = new Map<string, number>();
  for (const { outcome, percent, bpm, day } of countingOf(props.piece))
    if (outcome === 'clean' && percent === 100) best.set(day, Math.max(best.get(day) ?? 0, bpm));
  const days = [...best.keys()].sort();
  const law = fitLearning(days.map((day, index) => ({ practice: index + 1, value: best.get(day) ?? 1 })));
  if (!law) return [];
  const form = law.form === 'power' ? 'power law' : 'exponential';
  return [
    {
      type: 'scatter',
      mode: 'lines',
      name: `${form} of practice, ${Math.round(law.fit * 100)} % explained`,
      x: days.map((day) => `${day}T12:00:00`),
      y: days.map((_, index) => law.at(index + 1)),
      line: { color: token('--warm'), width: 1.5, dash: 'dot', shape: 'spline' },
      hoverinfo: 'skip',
    },
  ];
}

/** The range of days on which the target is expected, at the target; its middle as a line. */
function band(): Partial<Shape>[] {
  const { expected } = props.piece;
  if (!expected || 'tooLittle' in expected) return [];
  const { early, middle, late } = expected;
  const high = { yref: 'paper', y0: 0, y1: 1 } as const;
  const colour = token('--cool');
  return [
    { type: 'rect', x0: early, x1: late, ...high, fillcolor: colour, opacity: 0.12, line: { width: 0 } },
    { type: 'line', x0: middle, x1: middle, ...high, line: { color: colour, width: 2, dash: 'dot' } },
  ];
}

/** From the first entry to some days past the middle of what is expected, at most as far again as has been played. */
function span(): [string, string] | undefined {
  const { entries, expected } = props.piece;
  const [first] = entries;
  if (!first || !expected || 'tooLittle' in expected) return undefined;
  const from = Date.parse(first.postedAt);
  const played = Date.now() - from;
  const to = Math.min(Date.parse(expected.late), Date.now() + Math.max(played, 14 * 86_400_000));
  return [new Date(from - played * 0.03).toISOString(), new Date(to).toISOString()];
}

/** Computed anew when the look changes, since its colours are read from it. */
function themed<One>(make: () => One): One {
  void props.dark;
  return make();
}
const data = computed(() => themed(() => [...traces(), ...curve()]));
const layout = computed((): Partial<Layout> =>
  themed(() => {
    const { targetBpm } = props.piece;
    const range = span();
    return {
      // Far days would squeeze what was played into a corner.
      xaxis: { type: 'date', tickformat: chartDay(), ...(range && { range }) },
      yaxis: { title: { text: 'tempo, bpm' } },
      shapes: [
        ...band(),
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
  }),
);
</script>

<template>
  <PlotChart
    :data="data"
    :layout="layout"
    :height="230"
    :dark="dark"
    :label="`Tempo of ${piece.phrase.name} over the days, target ${piece.targetBpm}. ${piece.expected ? sayExpected(piece.expected) : ''}`"
  />
</template>
