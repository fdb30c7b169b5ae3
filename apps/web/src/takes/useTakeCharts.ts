import type { JudgedTake, NoteVerdict } from '@jam-ledger/core/listen';
import type { Data, Layout } from 'plotly.js-basic-dist-min';
import { computed, type ComputedRef } from 'vue';
import { token } from '../ui/index.ts';
import { VERDICTS } from './takeWords.ts';

/** A chart as the plotting library takes it. */
interface Chart {
  readonly data: Data[];
  readonly layout: Partial<Layout>;
}

/** Shapes of the points, so that nobody needs their colours. */
const SHAPES: Readonly<Partial<Record<NoteVerdict, string>>> = {
  right: 'circle',
  early: 'triangle-left',
  late: 'triangle-right',
  wrong: 'x',
};
/** Room for the words below. */
const LOOK: Partial<Layout> = { showlegend: true, margin: { l: 52, r: 12, t: 30, b: 48 } };
/** Between one bend and the next, seconds of the drawing. */
const GAP_SECONDS = 0.25;

/** The charts of a take: early and late note by note, and its bends against what is written. */
export function useTakeCharts(judged: () => JudgedTake): {
  readonly timing: ComputedRef<Chart>;
  readonly bends: ComputedRef<Chart>;
} {
  const timing = computed((): Chart => {
    const timed = judged().events.flatMap((event, index) =>
      event.offSeconds === null
        ? []
        : [{ note: index + 1, ms: Math.round(1000 * event.offSeconds), verdict: event.verdict }],
    );
    const kinds = (Object.keys(SHAPES) as NoteVerdict[]).filter((kind) =>
      timed.some(({ verdict }) => verdict === kind),
    );
    return {
      data: kinds.map((kind) => {
        const own = timed.filter(({ verdict }) => verdict === kind);
        return {
          ...{ type: 'scatter', mode: 'markers', name: VERDICTS[kind].says },
          ...{ x: own.map(({ note }) => note), y: own.map(({ ms }) => ms) },
          hovertemplate: 'note %{x}: %{y} ms<extra></extra>',
          marker: { size: 10, symbol: SHAPES[kind] ?? 'circle', color: token(kind === 'right' ? '--cool' : '--warm') },
        };
      }),
      layout: {
        ...LOOK,
        xaxis: { title: { text: 'note' }, dtick: timed.length > 20 ? 4 : 1 },
        yaxis: { title: { text: 'ms late' }, zeroline: true, rangemode: 'tozero' },
      },
    };
  });

  const bends = computed((): Chart => {
    const written: Point[] = [];
    const heard: Point[] = [];
    let from = 0;
    for (const { bend } of judged().events) {
      if (!bend) continue;
      const place = ({ seconds, cents }: { seconds: number; cents: number }): Point => [from + seconds, cents];
      written.push(...bend.written.map(place), [from, null]);
      heard.push(...bend.heard.map(place), [from, null]);
      from += Math.max(0, ...[...bend.written, ...bend.heard].map(({ seconds }) => seconds)) + GAP_SECONDS;
    }
    return {
      data: [
        { ...lineOf(written), name: 'written', line: { color: token('--pencil'), width: 2, dash: 'dot' } },
        { ...lineOf(heard), name: 'heard', line: { color: token('--cool'), width: 3 } },
      ],
      layout: {
        ...LOOK,
        xaxis: { title: { text: 'seconds, bend after bend' } },
        yaxis: { title: { text: 'cents above the fret' } },
      },
    };
  });
  return { timing, bends };
}

type Point = readonly [seconds: number, cents: number | null];

function lineOf(points: readonly Point[]): Partial<Data> & { readonly type: 'scatter' } {
  return {
    ...{ type: 'scatter', mode: 'lines', connectgaps: false },
    ...{ x: points.map(([seconds]) => seconds), y: points.map(([, cents]) => cents) },
  };
}
