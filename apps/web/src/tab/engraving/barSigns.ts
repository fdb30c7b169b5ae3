import { writeMeter, type ScoreBar } from '@jam-ledger/core/notation';
import { BEFORE_PASSES, sayTimes, type RowHeights } from './layout.ts';
import { SIZES } from './sizes.ts';
import type { Pen } from './pen.ts';
import type { StaffSetUp } from './staff.ts';

/** What the bars of a system share. Pixels. */
export interface Frame {
  /** Heights of the first line of the tab and, where there is one, of the notation stave. */
  readonly top: number;
  readonly staffTop: number;
  readonly strings: number;
  readonly heights: RowHeights;
  readonly staff: StaffSetUp | undefined;
}

/** A thick and a thin line with two dots, right of clef and tab word where a system begins with it. */
export function drawRepeatStart(pen: Pen, x: number, frame: Frame): void {
  for (const { from, size, gap } of staves(frame)) {
    pen.line({ x: x + 2, y: from }, { x: x + 2, y: from + size }, 3.5);
    pen.line({ x: x + 6, y: from }, { x: x + 6, y: from + size }, 1);
    drawDots(pen, x + 10.5, { from, size, gap });
  }
}

/** What ends a bar: nothing, a line, or the sign that it is repeated. */
export function drawBarLine(pen: Pen, bar: ScoreBar, x: number, frame: Frame): void {
  for (const { from, size, gap } of staves(frame))
    if (bar.repeatEnd) {
      pen.line({ x: x - 2, y: from }, { x: x - 2, y: from + size }, 3.5);
      pen.line({ x: x - 6, y: from }, { x: x - 6, y: from + size }, 1);
      drawDots(pen, x - 10.5, { from, size, gap });
    } else if (bar.line) pen.rule({ x: x - 0.5, y: from }, { x: x - 0.5, y: from + size });
}

/** A stave of a system: its top, its height, and the gap between its lines. Pixels. */
interface StaveLines {
  readonly from: number;
  readonly size: number;
  readonly gap: number;
}

function staves({ top, strings, staff, staffTop }: Frame): readonly StaveLines[] {
  const tab = { from: top, size: (strings - 1) * SIZES.lineGap, gap: SIZES.lineGap };
  return staff ? [tab, { from: staffTop, size: 40, gap: 10 }] : [tab];
}

function drawDots(pen: Pen, x: number, { from, size, gap }: StaveLines): void {
  for (const turn of [-1, 1]) pen.dot({ x, y: from + size / 2 + (turn * gap) / 2 }, 2);
}

/** The word “tab” at the head of a system. */
export function drawTabWord(pen: Pen, x: number, { top, strings }: Frame): void {
  const middle = top + ((strings - 1) * SIZES.lineGap) / 2;
  ['t', 'a', 'b'].forEach((letter, index) =>
    pen.text(
      letter,
      { x: x + 13, y: middle + (index - 1) * 14 + 4 },
      { anchor: 'middle', size: 15, weight: 600, soft: true },
    ),
  );
}

/** The meter, on every stave of the system. */
export function drawMeter(pen: Pen, bar: ScoreBar, x: number, { top, strings, staff, staffTop }: Frame): void {
  const [beats = '', unit = ''] = writeMeter(bar.meter).split('/');
  const middle = top + ((strings - 1) * SIZES.lineGap) / 2;
  for (const y of staff ? [middle, staffTop + 20] : [middle]) {
    pen.text(beats, { x: x + 8, y: y - 2 }, { anchor: 'middle', size: 22, weight: 700 });
    pen.text(unit, { x: x + 8, y: y + 17 }, { anchor: 'middle', size: 22, weight: 700 });
  }
}

/** What stands over a bar: tempo, feel, how often it is repeated, and on which passes it is heard. */
export function drawBarWords(pen: Pen, bar: ScoreBar, x: number, width: number, { passes: y }: RowHeights): void {
  const begins = [
    bar.tempo === undefined ? '' : `♩ = ${bar.tempo}`,
    bar.feel === 'swing' ? 'swing eighths' : bar.feel === 'straight' ? 'straight eighths' : '',
  ].filter(Boolean);
  if (begins.length > 0) pen.text(begins.join('  '), { x: x + 4, y }, { weight: 600 });
  const repeats = sayTimes(bar);
  const labelWidth = repeats.length * 6;
  if (bar.repeatEnd) pen.text(repeats, { x: x + width - labelWidth - 4, y }, { weight: 600 });
  if (!bar.passes) return;
  const { label, begins: opens, ends } = bar.passes;
  const shift = begins.length > 0 ? BEFORE_PASSES : 0;
  const end = x + width - 4 - (bar.repeatEnd ? labelWidth + 6 : 0);
  pen.line({ x: x + 3 + shift, y: y - 10 }, { x: end, y: y - 10 });
  if (opens) {
    pen.line({ x: x + 3 + shift, y: y - 10 }, { x: x + 3 + shift, y: y + 3 });
    pen.text(label, { x: x + 7 + shift, y }, { weight: 600, size: SIZES.smallFont });
  }
  if (ends) pen.line({ x: end, y: y - 10 }, { x: end, y: y + 3 });
}
