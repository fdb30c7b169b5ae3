import { ticksOfTimed, TUPLET_TIMES, type TimedValue } from '../../notation/index.ts';
import type { WrittenEvent } from '../bars.ts';

/** Where a bracket over a tuplet begins or ends. */
export type TupletSign = 'start' | 'stop';

/**
 * The brackets of a bar: for each event, for each of its tied values, what begins and ends there. A bracket ends where its values make
 * up whole ones of the shortest kind in it, where another kind follows, and at the end of the bar.
 */
export function tupletSigns(events: readonly WrittenEvent[]): readonly TupletSign[][][] {
  const signs = events.map(({ values }) => values.map((): TupletSign[] => []));
  let open: { kind: number; ticks: number; shortest: number; last: TupletSign[] } | undefined;
  const close = () => {
    open?.last.push('stop');
    open = undefined;
  };
  events.forEach(({ values }, at) => {
    values.forEach((value, index) => {
      const here = signs[at]?.[index] ?? [];
      if (value.tuplet === undefined || (open && open.kind !== value.tuplet)) close();
      if (value.tuplet === undefined) return;
      if (!open) {
        open = { kind: value.tuplet, ticks: 0, shortest: Infinity, last: here };
        here.push('start');
      }
      open.ticks += ticksOfTimed(value);
      open.shortest = Math.min(open.shortest, plainTicks(value));
      open.last = here;
      if (open.ticks % (open.shortest * TUPLET_TIMES[value.tuplet]) === 0) close();
    });
  });
  close();
  return signs;
}

function plainTicks({ base }: TimedValue): number {
  return ticksOfTimed({ base, dots: 0 });
}
