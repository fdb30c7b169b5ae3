import { writeMeter, type ScoreBar } from '@jam-ledger/core/notation';
import { BarlineType, Formatter, Renderer, TabStave, Voice, type RenderContext } from 'vexflow/core';
import { footroom, headroom, SIZES, type SystemPlan } from './layout.ts';
import { drawEventMarks, drawLink, drawSpans, rowHeights, type DrawnEvent, type RowHeights } from './marks.ts';
import { notesOf } from './notes.ts';
import { Pen } from './pen.ts';

/** Where an event stands on its system, pixels from the system's top left. */
export interface EventBox {
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
  readonly width: number;
}

/** A system drawn: its height and the box of every event in order. */
export interface DrawnSystem {
  readonly height: number;
  readonly boxes: readonly EventBox[];
}

/** How a system is drawn. */
export interface SystemOptions {
  readonly width: number;
  readonly strings: number;
}

/** Draws one system into an empty element. The music font must be loaded. */
export function drawSystem(element: HTMLDivElement, plan: SystemPlan, { width, strings }: SystemOptions): DrawnSystem {
  const top = headroom(plan.rows);
  const staveHeight = (strings - 1) * SIZES.lineGap;
  const height = top + staveHeight + footroom(plan.rows);
  const renderer = new Renderer(element, Renderer.Backends.SVG);
  renderer.resize(width, height);
  const context = renderer.getContext();
  context.setFillStyle('var(--ink)');
  context.setStrokeStyle('var(--ink)');
  context.setBackgroundFillStyle('var(--page)');
  const heights = rowHeights(plan.rows, top, top + staveHeight);
  const pen = new Pen(context);
  const drawn = drawBars(context, pen, plan, { top, strings, heights });
  for (const [index, one] of drawn.entries()) {
    drawEventMarks(pen, context, one, heights);
    const before = drawn[index - 1];
    drawLink(pen, before ?? one, one, before === undefined);
  }
  drawSpans(pen, drawn, heights);
  return {
    height,
    boxes: drawn.map(({ x, endX }) => ({
      x: x - 9,
      top: heights.staveTop - 8,
      bottom: heights.staveBottom + 8,
      width: Math.max(14, Math.min(endX - x, 40)),
    })),
  };
}

interface Frame {
  readonly top: number;
  readonly strings: number;
  readonly heights: RowHeights;
}

function drawBars(context: RenderContext, pen: Pen, plan: SystemPlan, frame: Frame): readonly DrawnEvent[] {
  let x: number = SIZES.sidePadding;
  return plan.bars.flatMap((bar, index) => {
    const width = (plan.widths[index] ?? 0) + (index === 0 ? SIZES.clefWidth : 0);
    const stave = makeStave(bar, x, width, frame, index === 0);
    context.save();
    context.setStrokeStyle('var(--stave)');
    context.setFillStyle('var(--stave)');
    stave.setContext(context).draw();
    context.restore();
    if (index === 0) drawTabWord(pen, x, frame);
    if (bar.showMeter) drawMeter(pen, bar, stave.getX() + (index === 0 ? SIZES.clefWidth + 2 : 6), frame);
    drawBarWords(pen, bar, stave.getX(), width, frame.heights);
    const events = drawNotes(context, bar, stave);
    x += width;
    return events;
  });
}

function makeStave(bar: ScoreBar, x: number, width: number, { top, strings }: Frame, first: boolean): TabStave {
  const stave = new TabStave(x, top, width, {
    numLines: strings,
    spacingBetweenLinesPx: SIZES.lineGap,
    spaceAboveStaffLn: 0,
    spaceBelowStaffLn: 0,
  });
  stave.setBegBarType(bar.repeatStart ? BarlineType.REPEAT_BEGIN : first ? BarlineType.SINGLE : BarlineType.NONE);
  stave.setEndBarType(bar.repeatEnd ? BarlineType.REPEAT_END : bar.line ? BarlineType.SINGLE : BarlineType.NONE);
  const signs =
    (first ? SIZES.clefWidth : 0) + (bar.showMeter ? SIZES.meterWidth : 0) + (bar.repeatStart ? SIZES.repeatWidth : 0);
  stave.setNoteStartX(x + signs + SIZES.barPadding / 2 + firstExtra(bar));
  return stave;
}

/** Grace notes and slides into the first event stand before it. */
function firstExtra({ events }: ScoreBar): number {
  const first = events[0];
  return (
    (first?.graces.length ?? 0) * 18 + (first?.item?.slideIn ? 10 : 0) + (first?.item?.link || first?.tied ? 8 : 0)
  );
}

function drawNotes(context: RenderContext, bar: ScoreBar, stave: TabStave): readonly DrawnEvent[] {
  const { placed, beams, tuplets } = notesOf(bar);
  if (placed.length === 0) return [];
  const voice = new Voice({ numBeats: bar.meter.beats, beatValue: bar.meter.unit }).setMode(Voice.Mode.SOFT);
  voice.addTickables(placed.map(({ note }) => note));
  const endX = stave.getX() + stave.getWidth() - (bar.repeatEnd ? SIZES.repeatWidth : 4);
  new Formatter().joinVoices([voice]).format([voice], Math.max(20, endX - stave.getNoteStartX() - 10));
  voice.draw(context, stave);
  for (const beam of beams) beam.setContext(context).draw();
  for (const tuplet of tuplets) tuplet.setContext(context).draw();
  const xs = placed.map(({ note }) => note.getAbsoluteX());
  const yOf = (string: number) => stave.getYForLine(string - 1);
  const heads = placed.flatMap((one, index) => (placed[index - 1]?.event === one.event ? [] : [{ one, index }]));
  return heads.map(({ one, index }, order) => {
    const next = heads[order + 1]?.index;
    return { event: one.event, x: xs[index] ?? 0, endX: next === undefined ? endX : (xs[next] ?? endX), yOf };
  });
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

function drawMeter(pen: Pen, bar: ScoreBar, x: number, { top, strings }: Frame): void {
  const [beats = '', unit = ''] = writeMeter(bar.meter).split('/');
  const middle = top + ((strings - 1) * SIZES.lineGap) / 2;
  pen.text(beats, { x: x + 8, y: middle - 2 }, { anchor: 'middle', size: 22, weight: 700 });
  pen.text(unit, { x: x + 8, y: middle + 17 }, { anchor: 'middle', size: 22, weight: 700 });
}

function drawBarWords(pen: Pen, bar: ScoreBar, x: number, width: number, { passes: y }: RowHeights): void {
  const begins = [
    bar.tempo === undefined ? '' : `♩ = ${bar.tempo}`,
    bar.feel === 'swing' ? 'swing eighths' : bar.feel === 'straight' ? 'straight eighths' : '',
  ].filter(Boolean);
  if (begins.length > 0) pen.text(begins.join('  '), { x: x + 4, y }, { weight: 600 });
  if (bar.repeatEnd) {
    const { times, open } = bar.repeatEnd;
    const label = open ? `about ${times}×, to taste` : `${times}×`;
    pen.text(label, { x: x + width - label.length * 6 - 4, y }, { weight: 600 });
  }
  if (!bar.passes) return;
  const { label, begins: opens, ends } = bar.passes;
  const shift = begins.length > 0 ? 80 : 0;
  pen.line({ x: x + 3 + shift, y: y - 10 }, { x: x + width - 4, y: y - 10 });
  if (opens) {
    pen.line({ x: x + 3 + shift, y: y - 10 }, { x: x + 3 + shift, y: y + 3 });
    pen.text(label, { x: x + 7 + shift, y }, { weight: 600, size: SIZES.smallFont });
  }
  if (ends) pen.line({ x: x + width - 4, y: y - 10 }, { x: x + width - 4, y: y + 3 });
}
