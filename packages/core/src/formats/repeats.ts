import type { BroughtBar } from './brought.ts';

/**
 * Bars with each repeat said once: it begins where the sign stands, or after the one before; endings belong to it, the last one too,
 * and it is played as often as they count.
 */
export function settledBars(bars: readonly BroughtBar[]): readonly BroughtBar[] {
  const settled = [...bars];
  let begin = 0;
  for (let at = 0; at < settled.length; at += 1) {
    const bar = settled[at];
    if (!bar) break;
    if (bar.isRepeatStart) begin = at;
    if (!bar.repeatEnd && !(bar.ending && !settled[at + 1]?.ending)) continue;
    let last = at;
    while (bar.ending && settled[last + 1]?.ending && !settled[last + 1]?.isRepeatStart) last += 1;
    const inside = settled.slice(begin, last + 1);
    const times = Math.max(bar.repeatEnd?.times ?? 1, ...inside.flatMap(({ ending }) => ending?.passes ?? []));
    inside.forEach(({ repeatEnd: _, ...one }, index) => {
      const isLast = begin + index === last;
      settled[begin + index] = {
        ...one,
        isRepeatStart: index === 0,
        ...(isLast && { repeatEnd: { times: Math.max(2, times), isOpen: bar.repeatEnd?.isOpen ?? false } }),
      };
    });
    at = last;
    begin = last + 1;
  }
  // A sign that begins a repeat which nothing ends is none.
  const ends = settled.map(({ repeatEnd }) => repeatEnd !== undefined);
  let isOpen = false;
  for (let at = settled.length - 1; at >= 0; at -= 1) {
    if (ends[at]) isOpen = true;
    const bar = settled[at];
    if (!bar?.isRepeatStart) continue;
    if (!isOpen) settled[at] = { ...bar, isRepeatStart: false };
    isOpen = false;
  }
  return settled;
}
