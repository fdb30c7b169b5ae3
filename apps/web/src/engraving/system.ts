import { writeMeter, type ScoreBar } from '@jam-ledger/core/notation';
import { BarlineType, Renderer, TabStave, type RenderContext, type Stave } from 'vexflow/core';
import { drawFrets } from './frets.ts';
import { footroom, headroom, rowHeights, SIZES, type RowHeights, type SystemPlan } from './layout.ts';
import { drawEventMarks, drawLink, drawSpans, type DrawnEvent } from './marks.ts';
import { drawRhythm, placeValues } from './rhythm.ts';
import { Pen } from './pen.ts';
import { clefPixels, drawStaffNotes, makeStaff, staffRoom, type StaffRoom, type StaffSetUp } from './staff.ts';

/** Where an event stands on its system, pixels from the system's top left. */
export interface EventBox {
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
  readonly width: number;
}

/** A system drawn: the box of every event in order. */
export interface DrawnSystem {
  readonly boxes: readonly EventBox[];
}

/** How a system is drawn. */
export interface SystemOptions {
  readonly width: number;
  readonly strings: number;
  /** Standard notation above the tab. */
  readonly staff?: StaffSetUp | undefined;
}

interface Frame {
  /** Heights of the first line of the tab and, where there is one, of the notation stave. */
  readonly top: number;
  readonly staffTop: number;
  readonly strings: number;
  readonly heights: RowHeights;
  readonly staff: StaffSetUp | undefined;
}

/** Where the parts of a system stand. Pixels from its top. */
interface Heights {
  readonly staffTop: number;
  readonly room: StaffRoom;
  readonly top: number;
  readonly bottom: number;
  readonly height: number;
}

function heightsOf(plan: SystemPlan, { strings, staff }: SystemOptions): Heights {
  const room: StaffRoom = staff ? staffRoom(plan.bars, staff) : { above: 0, height: 0 };
  const head = headroom(plan.rows);
  const top = head + room.height;
  const bottom = top + (strings - 1) * SIZES.lineGap;
  const staffTop = head - (plan.rows.bends ? SIZES.bendSpace : 0) + room.above;
  return { room, top, bottom, staffTop, height: bottom + footroom(plan.rows) };
}

/** How high a system will be, without drawing it. Pixels. */
export function systemHeight(plan: SystemPlan, options: SystemOptions): number {
  return heightsOf(plan, options).height;
}

/** Draws one system into an empty element. The music font must be loaded. */
export function drawSystem(element: HTMLDivElement, plan: SystemPlan, options: SystemOptions): DrawnSystem {
  const { width, strings, staff } = options;
  const { room, top, bottom, staffTop, height } = heightsOf(plan, options);
  const renderer = new Renderer(element, Renderer.Backends.SVG);
  renderer.resize(width, height);
  const context = renderer.getContext();
  context.setFillStyle('var(--ink)');
  context.setStrokeStyle('var(--ink)');
  context.setBackgroundFillStyle('var(--page)');
  const heights = rowHeights(plan.rows, top, bottom, room.height);
  const pen = new Pen();
  const drawn = drawBars(context, pen, plan, { top, staffTop, strings, heights, staff });
  for (const [index, one] of drawn.entries()) {
    drawEventMarks(pen, one, heights);
    const before = drawn[index - 1];
    drawLink(pen, before ?? one, one, before === undefined);
  }
  drawSpans(pen, drawn, heights);
  element.querySelector('svg')?.insertAdjacentHTML('beforeend', pen.markup());
  return {
    boxes: drawn.map(({ x, endX }) => ({
      x: x - 9,
      top: heights.staveTop - 8,
      bottom: heights.staveBottom + 8,
      width: Math.max(14, Math.min(endX - x, 40)),
    })),
  };
}

function drawBars(context: RenderContext, pen: Pen, plan: SystemPlan, frame: Frame): readonly DrawnEvent[] {
  const head = frame.staff ? clefPixels(frame.staff) : SIZES.clefWidth;
  let x: number = SIZES.sidePadding;
  return plan.bars.flatMap((bar, index) => {
    const width = (plan.widths[index] ?? 0) + (index === 0 ? head : 0);
    const stave = makeStave(bar, x, width, frame, index === 0 ? head : 0);
    const staff = frame.staff && makeStaff({ x, y: frame.staffTop, width }, frame.staff, index === 0);
    if (staff) {
      staff.setEndBarType(endOf(bar));
      staff.setNoteStartX(stave.getNoteStartX());
    }
    context.save();
    context.setStrokeStyle('var(--stave)');
    context.setFillStyle('var(--stave)');
    stave.setContext(context).draw();
    staff?.setContext(context).draw();
    context.restore();
    if (index === 0) {
      drawTabWord(pen, x, frame);
      if (staff) pen.line({ x, y: staff.getYForLine(0) }, { x, y: frame.heights.staveBottom });
    }
    if (bar.repeatStart) drawRepeatStart(pen, x + (index === 0 ? head : 0), frame);
    if (bar.showMeter)
      drawMeter(pen, bar, x + (index === 0 ? head + 2 : 6) + (bar.repeatStart ? SIZES.repeatWidth : 0), frame);
    drawBarWords(pen, bar, stave.getX(), width, frame.heights);
    const events = drawNotes(context, pen, { bar, stave, staff, frame });
    x += width;
    return events;
  });
}

function makeStave(bar: ScoreBar, x: number, width: number, { top, strings }: Frame, head: number): TabStave {
  const stave = new TabStave(x, top, width, {
    numLines: strings,
    spacingBetweenLinesPx: SIZES.lineGap,
    spaceAboveStaffLn: 0,
    spaceBelowStaffLn: 0,
  });
  const first = head > 0;
  stave.setBegBarType(first ? BarlineType.SINGLE : BarlineType.NONE);
  stave.setEndBarType(endOf(bar));
  const signs = head + (bar.showMeter ? SIZES.meterWidth : 0) + (bar.repeatStart ? SIZES.repeatWidth : 0);
  stave.setNoteStartX(x + signs + SIZES.barPadding / 2 + firstExtra(bar));
  return stave;
}

function endOf(bar: ScoreBar): BarlineType {
  if (bar.repeatEnd) return BarlineType.REPEAT_END;
  return bar.line ? BarlineType.SINGLE : BarlineType.NONE;
}

/** Grace notes and slides into the first event stand before it. */
function firstExtra({ events }: ScoreBar): number {
  const first = events[0];
  return (
    (first?.graces.length ?? 0) * 18 + (first?.item?.slideIn ? 10 : 0) + (first?.item?.link || first?.tied ? 8 : 0)
  );
}

interface BarFrame {
  readonly bar: ScoreBar;
  readonly stave: TabStave;
  readonly staff: Stave | undefined;
  readonly frame: Frame;
}

function drawNotes(context: RenderContext, pen: Pen, { bar, stave, staff, frame }: BarFrame): readonly DrawnEvent[] {
  const { heights } = frame;
  const endX = stave.getX() + stave.getWidth() - (bar.repeatEnd ? SIZES.repeatWidth : 4);
  const placed = placeValues(bar, stave.getNoteStartX() + NOTE_GAP, endX + NOTE_GAP - SIZES.barPadding / 2);
  const yOf = (string: number) => heights.staveTop + (string - 1) * SIZES.lineGap;
  for (const one of placed) drawFrets(pen, one, yOf);
  drawRhythm(pen, bar, placed, heights);
  if (staff && frame.staff) drawStaffNotes(context, pen, { bar, placed, stave: staff, setUp: frame.staff });
  const heads = placed.filter((one, index) => placed[index - 1]?.event !== one.event);
  return heads.map(({ event, x }, order) => ({ event, x, endX: heads[order + 1]?.x ?? endX, yOf }));
}

/** From where notes may start to the centre of the first fret. Pixels. */
const NOTE_GAP = 12;

/** A thick and a thin line with two dots, right of clef and tab word where a system begins with it. */
function drawRepeatStart(pen: Pen, x: number, { top, strings, staff, staffTop }: Frame): void {
  const height = (strings - 1) * SIZES.lineGap;
  for (const [from, size, gap] of [
    [top, height, SIZES.lineGap] as const,
    ...(staff ? [[staffTop, 40, 10] as const] : []),
  ]) {
    pen.line({ x: x + 2, y: from }, { x: x + 2, y: from + size }, 3.5);
    pen.line({ x: x + 6, y: from }, { x: x + 6, y: from + size }, 1);
    for (const turn of [-1, 1]) pen.dot({ x: x + 10.5, y: from + size / 2 + (turn * gap) / 2 }, 2);
  }
}

function drawTabWord(pen: Pen, x: number, { top, strings }: Frame): void {
  const middle = top + ((strings - 1) * SIZES.lineGap) / 2;
  ['t', 'a', 'b'].forEach((letter, index) =>
    pen.text(
      letter,
      { x: x + 13, y: middle + (index - 1) * 14 + 4 },
      { anchor: 'middle', size: 15, weight: 600, soft: true },
    ),
  );
}

function drawMeter(pen: Pen, bar: ScoreBar, x: number, { top, strings, staff, staffTop }: Frame): void {
  const [beats = '', unit = ''] = writeMeter(bar.meter).split('/');
  const middle = top + ((strings - 1) * SIZES.lineGap) / 2;
  for (const y of staff ? [middle, staffTop + 20] : [middle]) {
    pen.text(beats, { x: x + 8, y: y - 2 }, { anchor: 'middle', size: 22, weight: 700 });
    pen.text(unit, { x: x + 8, y: y + 17 }, { anchor: 'middle', size: 22, weight: 700 });
  }
}

function drawBarWords(pen: Pen, bar: ScoreBar, x: number, width: number, { passes: y }: RowHeights): void {
  const begins = [
    bar.tempo === undefined ? '' : `♩ = ${bar.tempo}`,
    bar.feel === 'swing' ? 'swing eighths' : bar.feel === 'straight' ? 'straight eighths' : '',
  ].filter(Boolean);
  if (begins.length > 0) pen.text(begins.join('  '), { x: x + 4, y }, { weight: 600 });
  const repeats = bar.repeatEnd?.open ? `about ${bar.repeatEnd.times}×, to taste` : `${bar.repeatEnd?.times ?? ''}×`;
  const labelWidth = repeats.length * 6;
  if (bar.repeatEnd) pen.text(repeats, { x: x + width - labelWidth - 4, y }, { weight: 600 });
  if (!bar.passes) return;
  const { label, begins: opens, ends } = bar.passes;
  const shift = begins.length > 0 ? 80 : 0;
  const end = x + width - 4 - (bar.repeatEnd ? labelWidth + 6 : 0);
  pen.line({ x: x + 3 + shift, y: y - 10 }, { x: end, y: y - 10 });
  if (opens) {
    pen.line({ x: x + 3 + shift, y: y - 10 }, { x: x + 3 + shift, y: y + 3 });
    pen.text(label, { x: x + 7 + shift, y }, { weight: 600, size: SIZES.smallFont });
  }
  if (ends) pen.line({ x: end, y: y - 10 }, { x: end, y: y + 3 });
}
