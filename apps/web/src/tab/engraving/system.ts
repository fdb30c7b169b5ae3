import type { ScoreBar } from '@jam-ledger/core/notation';
import { drawBarLine, drawBarWords, drawMeter, drawRepeatStart, drawTabWord, type Frame } from './barSigns.ts';
import { drawFrets } from './frets.ts';
import { closingWidth, footroom, headroom, rowHeights, type SystemPlan } from './layout.ts';
import { SIZES } from './sizes.ts';
import { drawClosing, drawEventMarks, drawHeld, drawLink, drawSpans, type DrawnEvent } from './marks.ts';
import { drawRhythm, placeValues } from './rhythm.ts';
import { Pen } from './pen.ts';
import { notation } from './notation.ts';
import { clefPixels, staffRoom, type StaffRoom, type StaffSetUp } from './staff.ts';
import type { RenderContext, Stave } from './staffDrawing.ts';

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

/** Draws one system into an empty element. The music font must be loaded, and for a stave what draws notation. */
export function drawSystem(element: HTMLDivElement, plan: SystemPlan, options: SystemOptions): DrawnSystem {
  const { width, strings, staff } = options;
  const { room, top, bottom, staffTop, height } = heightsOf(plan, options);
  const context = staff && notation()?.contextOf(element, width, height);
  const heights = rowHeights(plan.rows, top, bottom, room.height);
  const pen = new Pen();
  const drawn = drawBars(context, pen, plan, { top, staffTop, strings, heights, staff });
  for (const [index, one] of drawn.entries()) {
    drawEventMarks(pen, one, heights, width - SIZES.sidePadding);
    const before = drawn[index - 1];
    drawLink(pen, before ?? one, one, before === undefined);
    drawHeld(pen, drawn, index, heights);
  }
  drawSpans(pen, drawn, heights);
  const markup = tabLines(staveWidth(plan, staff), top, strings) + pen.markup();
  if (context) element.querySelector('svg')?.insertAdjacentHTML('beforeend', markup);
  else element.innerHTML = `<svg width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${markup}</svg>`;
  return {
    boxes: drawn.map(({ x, endX }) => ({
      x: x - 9,
      top: heights.staveTop - 8,
      bottom: heights.staveBottom + 8,
      width: Math.max(14, Math.min(endX - x, 40)),
    })),
  };
}

function headWidth(staff: StaffSetUp | undefined): number {
  return staff ? clefPixels(staff) : SIZES.clefWidth;
}

function staveWidth({ widths }: SystemPlan, staff: StaffSetUp | undefined): number {
  return widths.reduce((sum, width) => sum + width, headWidth(staff));
}

function drawBars(context: RenderContext | undefined, pen: Pen, plan: SystemPlan, frame: Frame): readonly DrawnEvent[] {
  const head = headWidth(frame.staff);
  const widths = plan.bars.map((_, index) => (plan.widths[index] ?? 0) + (index === 0 ? head : 0));
  drawTabWord(pen, SIZES.sidePadding, frame);
  let x: number = SIZES.sidePadding;
  return plan.bars.flatMap((bar, index) => {
    const width = widths[index] ?? 0;
    const from = x + (index === 0 ? head : 0);
    const place: BarPlace = { x, width, notesFrom: notesFrom(bar, from) };
    const staff =
      context &&
      frame.staff &&
      notation()?.drawStave(context, { ...place, y: frame.staffTop }, frame.staff, index === 0);
    if (staff && index === 0) pen.line({ x, y: frame.staffTop }, { x, y: frame.heights.staveBottom });
    drawBarLine(pen, bar, x + width, frame);
    if (bar.repeatStart) drawRepeatStart(pen, from, frame);
    if (bar.showMeter)
      drawMeter(pen, bar, from + (index === 0 ? 2 : 6) + (bar.repeatStart ? SIZES.repeatWidth : 0), frame);
    drawBarWords(pen, bar, x, width, frame.heights);
    drawClosing(pen, bar, x + width - (bar.repeatEnd ? SIZES.repeatWidth : 4), frame.heights);
    x += width;
    return drawNotes(context, pen, { bar, place, staff, frame });
  });
}

/** Where a bar stands on its system, and where its notes may begin. Pixels. */
interface BarPlace {
  readonly x: number;
  readonly width: number;
  readonly notesFrom: number;
}

function notesFrom(bar: ScoreBar, from: number): number {
  const signs = (bar.showMeter ? SIZES.meterWidth : 0) + (bar.repeatStart ? SIZES.repeatWidth : 0);
  return from + signs + SIZES.barPadding / 2 + firstExtra(bar);
}

/** The lines of the tab, one stave for the whole system, as markup; what parts the bars is drawn over it. */
function tabLines(width: number, top: number, strings: number): string {
  const lines = Array.from({ length: strings }, (_, string) => {
    return `M${SIZES.sidePadding} ${top + string * SIZES.lineGap + 0.5}h${width}`;
  });
  const edge = `<rect x="${SIZES.sidePadding}" y="${top}" width="1" height="${(strings - 1) * SIZES.lineGap + 1}" fill="var(--stave)"/>`;
  return `<path d="${lines.join('')}" stroke="var(--stave)" fill="none"/>${edge}`;
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
  readonly place: BarPlace;
  readonly staff: Stave | undefined;
  readonly frame: Frame;
}

function drawNotes(
  context: RenderContext | undefined,
  pen: Pen,
  { bar, place, staff, frame }: BarFrame,
): readonly DrawnEvent[] {
  const { heights } = frame;
  const endX = place.x + place.width - (bar.repeatEnd ? SIZES.repeatWidth : 4) - closingWidth(bar);
  const placed = placeValues(bar, place.notesFrom + NOTE_GAP, endX + NOTE_GAP - SIZES.barPadding / 2);
  const yOf = (string: number) => heights.staveTop + (string - 1) * SIZES.lineGap;
  for (const one of placed) drawFrets(pen, one, yOf);
  drawRhythm(pen, bar, placed, heights);
  if (context && staff && frame.staff)
    notation()?.drawStaffNotes(context, pen, { bar, placed, stave: staff, setUp: frame.staff });
  const heads = placed.filter((one, index) => placed[index - 1]?.event !== one.event);
  return heads.map(({ event, x }, order) => ({ event, x, endX: heads[order + 1]?.x ?? endX, yOf }));
}

/** From where notes may start to the centre of the first fret. Pixels. */
const NOTE_GAP = 12;
