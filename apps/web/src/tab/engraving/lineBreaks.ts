import type { ScoreBar } from '@jam-ledger/core/notation';
import { breakLines } from './layout.ts';

/** The bars of a page as broken into lines, and what each bar looks like in a text that can be compared. */
export interface Broken {
  readonly lines: readonly (readonly ScoreBar[])[];
  readonly keys: readonly string[];
}

/** Two bars with the same key look the same; where they stand in the text does not count. */
export function keyOfBar({ events, ...bar }: ScoreBar): string {
  // Picked field by field: a replacer that leaves the spans out takes five times as long, at every keystroke.
  const looks = events.map(({ item, span: _span, graces, ...event }) => [
    event,
    item && [item.notes, item.link, item.slideIn, item.slideOut, item.arm],
    graces.map((grace) => grace.notes),
  ]);
  return JSON.stringify([bar, looks]);
}

/**
 * Breaks bars into lines. Where the lines before are given, only those that a change touched are broken anew:
 * the ones before and behind it keep their bars, so that a keystroke redraws a line and not the page.
 */
export function breakAgain(bars: readonly ScoreBar[], room: number, before: Broken | undefined): Broken {
  const keys = bars.map(keyOfBar);
  if (!before) return { keys, lines: breakLines(bars, room) };
  const prefix = commonPrefix(keys, before.keys);
  const suffix = Math.min(commonPrefix([...keys].reverse(), [...before.keys].reverse()), keys.length - prefix);
  const head = linesWithin(before, prefix);
  const kept = Math.min(suffix, before.keys.length - head.bars);
  const tail = linesBehind(before, kept, keys.length - head.bars);
  const middle = bars.slice(head.bars, bars.length - tail.bars);
  let at = 0;
  const take = (counts: readonly number[], from: number) => {
    at = from;
    return counts.map((count) => bars.slice(at, (at += count)));
  };
  return {
    keys,
    lines: [...take(head.counts, 0), ...breakLines(middle, room), ...take(tail.counts, bars.length - tail.bars)],
  };
}

interface Counts {
  readonly counts: readonly number[];
  readonly bars: number;
}

/** The first lines that hold no more than so many bars. */
function linesWithin({ lines }: Broken, max: number): Counts {
  const counts: number[] = [];
  let bars = 0;
  for (const { length } of lines) {
    if (bars + length > max) break;
    counts.push(length);
    bars += length;
  }
  return { counts, bars };
}

/** The last lines that hold no more than so many bars, and leave the rest to others. */
function linesBehind({ lines }: Broken, max: number, rest: number): Counts {
  const counts: number[] = [];
  let bars = 0;
  for (const { length } of [...lines].reverse()) {
    if (bars + length > max || bars + length > rest) break;
    counts.unshift(length);
    bars += length;
  }
  return { counts, bars };
}

function commonPrefix(a: readonly string[], b: readonly string[]): number {
  const length = Math.min(a.length, b.length);
  for (let index = 0; index < length; index += 1) if (a[index] !== b[index]) return index;
  return length;
}
