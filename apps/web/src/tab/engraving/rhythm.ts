import {
  barTicks,
  ticksOfTimed,
  TUPLET_TIMES,
  type ScoreBar,
  type ScoreEvent,
  type TimedValue,
} from '@jam-ledger/core/notation';
import { chordWidth, roomBefore, roomBehind, valueWidth, type RowHeights } from './layout.ts';
import { SIZES } from './sizes.ts';
import type { Pen } from './pen.ts';

/** One written value on the page: an event, or the part of it tied on. */
export interface Placed {
  readonly event: ScoreEvent;
  readonly value: TimedValue;
  /** Place in the bar, ticks. */
  readonly at: number;
  /** False for the tied-on parts of an event. */
  readonly head: boolean;
  /** Where its frets are centred, pixels. */
  readonly x: number;
}

/** Spreads the values of a bar between two places, by their lengths and by what is drawn beside them. */
export function placeValues(bar: ScoreBar, from: number, to: number): readonly Placed[] {
  const values = bar.events.flatMap(valuesOf);
  const wants = values.map(({ event, value, head }) => {
    const before = head ? roomBefore(event) : 0;
    const behind = valueWidth(value) + (head ? roomBehind(event) : 0);
    return { before, behind: head ? Math.max(behind, chordWidth(event) - before) : behind };
  });
  const scale = (to - from) / wants.reduce((sum, { before, behind }) => sum + before + behind, 0);
  let x = from;
  return values.map((one, index) => {
    const { before = 0, behind = 0 } = wants[index] ?? {};
    const placed = { ...one, x: x + before * scale };
    x += (before + behind) * scale;
    return placed;
  });
}

function valuesOf(event: ScoreEvent): readonly Omit<Placed, 'x'>[] {
  let at = event.at;
  return event.values.map((value, index) => {
    const one = { event, value, at, head: index === 0 && !event.tied };
    at += ticksOfTimed(value);
    return one;
  });
}

/** Length of a stem under the tab, and of a half note's, which is the way to tell it from a quarter. Pixels. */
const STEM = 35;
const HALF_STEM = 16;
const STEM_GAP = 6;
const BEAM_GAP = 7;
const BEAM_WIDTH = 4.5;

/** Signs of the music font. Source: SMuFL, the tables “Individual notes” (flags) and “Rests”. */
const FLAGS: Readonly<Partial<Record<number, string>>> = { 8: '\uE241', 16: '\uE243', 32: '\uE245', 64: '\uE247' };
const RESTS: Readonly<Record<number, string>> = {
  1: '\uE4E3',
  2: '\uE4E4',
  4: '\uE4E5',
  8: '\uE4E6',
  16: '\uE4E7',
  32: '\uE4E8',
  64: '\uE4E9',
};

/** Draws stems, beams, flags, rests and tuplet numbers of one bar. A whole note has no stem. */
export function drawRhythm(pen: Pen, bar: ScoreBar, placed: readonly Placed[], heights: RowHeights): void {
  const { staveTop, staveBottom } = heights;
  const top = staveBottom + STEM_GAP;
  const groups = beamGroups(bar, placed);
  const beamed = new Set(groups.flat());
  for (const one of placed) {
    const { event, value, x } = one;
    if (!event.timed) continue;
    if (!event.item) drawRest(pen, one, (staveTop + staveBottom) / 2);
    else if (value.base >= 2) {
      const length = value.base === 2 ? HALF_STEM : STEM;
      pen.line({ x, y: top }, { x, y: top + length }, 1.4);
      const flag = beamed.has(one) ? undefined : FLAGS[value.base];
      if (flag) pen.glyph(flag, { x: x - 0.7, y: top + STEM });
    }
  }
  for (const group of groups) drawBeams(pen, group, top + STEM);
  for (const group of tupletGroups(placed)) drawTupletNumber(pen, group, heights);
}

function drawRest(pen: Pen, { value, x }: Placed, middle: number): void {
  pen.glyph(RESTS[value.base] ?? '', { x: x - 5, y: value.base === 1 ? middle - SIZES.lineGap / 2 : middle });
  for (let dot = 0; dot < value.dots; dot += 1) pen.dot({ x: x + 10 + dot * 4, y: middle - 4 }, 1.4);
}

/** Beams from the lowest up, one for each halving; a value alone in its level has a stub. */
function drawBeams(pen: Pen, group: readonly Placed[], bottom: number): void {
  const levels = group.map(({ value }) => Math.log2(value.base) - 2);
  for (let level = 1; level <= Math.max(...levels); level += 1) {
    const y = bottom - (level - 1) * BEAM_GAP - BEAM_WIDTH / 2;
    group.forEach(({ x }, index) => {
      if ((levels[index] ?? 0) < level) return;
      const next = group[index + 1];
      if (next && (levels[index + 1] ?? 0) >= level) pen.line({ x, y }, { x: next.x, y }, BEAM_WIDTH);
      else if ((levels[index - 1] ?? 0) < level) {
        const toward = next ? next.x : (group[index - 1]?.x ?? x);
        pen.line({ x, y }, { x: x + Math.sign(toward - x) * 7, y }, BEAM_WIDTH);
      }
    });
  }
}

function drawTupletNumber(pen: Pen, group: readonly Placed[], { tuplets: y }: RowHeights): void {
  const [first, last] = [group[0], group.at(-1)];
  if (!first || !last) return;
  const middle = (first.x + last.x) / 2;
  pen.text(String(first.value.tuplet ?? 3), { x: middle, y }, { anchor: 'middle', italic: true, weight: 650 });
  const isBeamed = group.every(({ value, event }) => value.base >= 8 && event.item !== null);
  if (isBeamed || group.length < 2) return;
  for (const [x, turn] of [
    [first.x - 4, 1],
    [last.x + 4, -1],
  ] as const) {
    pen.line({ x, y: y - 9 }, { x, y: y - 4 });
    pen.line({ x, y: y - 4 }, { x: middle - turn * 8, y: y - 4 });
  }
}

/** Runs of one tuplet number, closed whenever they fill the time they stand for. */
export function tupletGroups<One extends Placed>(placed: readonly One[]): readonly (readonly One[])[] {
  const groups: One[][] = [];
  let filled = 0;
  let before: TimedValue | undefined;
  for (const one of placed) {
    const { value } = one;
    if (value.tuplet === undefined) {
      before = undefined;
      continue;
    }
    const group = groups.at(-1);
    const full = before ? filled >= groupTicks(groups.at(-1)?.[0]?.value ?? value) : true;
    if (!group || full || before?.tuplet !== value.tuplet) {
      groups.push([one]);
      filled = 0;
    } else group.push(one);
    filled += ticksOfTimed(value);
    before = value;
  }
  return groups;
}

function groupTicks(value: TimedValue): number {
  const times = value.tuplet === undefined ? 1 : TUPLET_TIMES[value.tuplet];
  return times * ticksOfTimed({ base: value.base, dots: 0 });
}

/** Runs of eighths and shorter inside one beat. */
export function beamGroups<One extends Placed>(bar: ScoreBar, placed: readonly One[]): readonly (readonly One[])[] {
  const beat = beatTicks(bar);
  const groups: One[][] = [];
  let before: One | undefined;
  for (const one of placed) {
    const beamed = one.event.item !== null && one.event.timed && one.value.base >= 8;
    const sameBeat = before && Math.floor(before.at / beat) === Math.floor(one.at / beat);
    if (beamed && sameBeat) groups.at(-1)?.push(one);
    else if (beamed) groups.push([one]);
    before = beamed ? one : undefined;
  }
  return groups.filter((group) => group.length > 1);
}

/** What a beam may span: a beat, or three eighths in compound meters. */
function beatTicks({ meter }: ScoreBar): number {
  const unit = barTicks({ beats: 1, unit: meter.unit });
  const compound = meter.unit >= 8 && meter.beats % 3 === 0;
  return Math.max(compound ? unit * 3 : unit, barTicks({ beats: 1, unit: 4 }));
}
