import {
  EVENT_MARKS,
  LINK_RECORDS,
  MARK_RECORDS,
  SURENESS_RECORDS,
  type Link,
  type ScoreBar,
  type ScoreEvent,
  type Sureness,
} from '@jam-ledger/core/notation';
import { drawGrace, textWidth } from './frets.ts';
import { ARM_WIDTH, closingWidth, WORDS_BETWEEN, wordsWidth, type RowHeights } from './layout.ts';
import { SIZES } from './sizes.ts';
import { MARK_DRAWINGS } from './markDrawings.ts';
import type { Pen, Point } from './pen.ts';

/** An event that has its place on the page. Pixels. */
export interface DrawnEvent {
  readonly event: ScoreEvent;
  readonly x: number;
  /** Where the next event, or the end of the bar, begins. */
  readonly endX: number;
  readonly yOf: (string: number) => number;
}

/** Draws everything around one event but what joins it to its neighbours. */
export function drawEventMarks(pen: Pen, drawn: DrawnEvent, heights: RowHeights, lineEnd: number): void {
  const { event, x } = drawn;
  if (typeof event.chord === 'string')
    pen.text(event.chord, { x: x - 4, y: heights.chords }, { weight: 650, size: 13 });
  if (event.chord === null) pen.text('N.C.', { x: x - 4, y: heights.chords }, { soft: true });
  if (event.words.length > 0) {
    const words = event.words.join(WORDS_BETWEEN);
    // Words that would reach over the end of the line end there instead.
    const isWide = x - 4 + wordsWidth(words) > lineEnd;
    const place = { x: isWide ? lineEnd : x - 4, y: heights.words };
    pen.text(words, place, { italic: true, ...(isWide && { anchor: 'end' as const }) });
  }
  drawGraces(pen, drawn);
  if (event.tied) return;
  drawSlidesToNowhere(pen, drawn);
  drawAboveStave(pen, drawn, heights);
  drawHands(pen, drawn, heights);
  if (event.degrees !== undefined)
    pen.text(event.degrees, { x, y: heights.degrees }, { anchor: 'middle', size: SIZES.smallFont, soft: true });
  const under = event.marks.filter((mark) => MARK_DRAWINGS[mark].at === 'stave');
  under.forEach((mark, index) => {
    pen.text(MARK_RECORDS[mark].sign, { x: x - 3 + 7 * index, y: heights.staveBottom + 11 }, { weight: 700 });
  });
}

/** Draws what stands behind the last event of a bar: words that end where the bar ends, a chord symbol before it. */
export function drawClosing(pen: Pen, bar: ScoreBar, endX: number, heights: RowHeights): void {
  const { closing } = bar;
  if (!closing) return;
  const chord = closing.chord === null ? 'N.C.' : closing.chord;
  const from = endX - closingWidth(bar);
  if (chord !== undefined) pen.text(chord, { x: from, y: heights.chords }, { weight: 650, size: 13 });
  if (closing.words.length > 0)
    pen.text(closing.words.join(WORDS_BETWEEN), { x: endX, y: heights.words }, { italic: true, anchor: 'end' });
}

function drawGraces(pen: Pen, { event, x, yOf }: DrawnEvent): void {
  event.graces.forEach((grace, index) => {
    const at = x - 18 * (event.graces.length - index);
    drawGrace(pen, grace, at, yOf);
    const top = Math.min(...grace.notes.map(({ string }) => yOf(string)));
    const main = Math.min(...(event.item?.notes ?? []).map(({ string }) => yOf(string)));
    if (event.item) pen.arc({ x: at, y: top - 6 }, { x: x - 2, y: main - 7 }, 6);
  });
}

function drawSlidesToNowhere(pen: Pen, { event, x, yOf }: DrawnEvent): void {
  const { item } = event;
  for (const { string, fret } of item?.notes ?? []) {
    const reach = textWidth(String(fret ?? 'x')) / 2 + 2;
    const y = yOf(string);
    if (item?.slideIn) {
      const rise = item.slideIn === 'below' ? 4 : -4;
      pen.line({ x: x - reach - 9, y: y + rise }, { x: x - reach, y: y - rise }, 1.3);
    }
    if (item?.slideOut) {
      const rise = item.slideOut === 'up' ? 4 : -4;
      pen.line({ x: x + reach, y: y + rise }, { x: x + reach + 10, y: y - rise }, 1.3);
    }
  }
}

/** Bends, then what may follow them on the same height: vibrato, trill, dip, harmonic. */
function drawAboveStave(pen: Pen, drawn: DrawnEvent, heights: RowHeights): void {
  const { event, x, endX, yOf } = drawn;
  const notes = event.item?.notes ?? [];
  let freeX = x - 3;
  let bent = 0;
  for (const note of notes) {
    if (!note.moves && note.preBend === undefined && note.again === undefined) continue;
    const start = { x: x + textWidth(String(note.fret ?? 'x')) / 2 + 2 + bent * 5, y: yOf(note.string) };
    freeX = drawBend(pen, note, start, endX - 8, heights);
    bent += 1;
  }
  const y = heights.staveTop - 9;
  const vibrato = notes.find((note) => note.vibrato)?.vibrato;
  if (vibrato)
    pen.wave({ x: Math.min(freeX + 4, endX - 18), y }, Math.max(endX - 6, freeX + 12), vibrato === 'wide' ? 5 : 3);
  const trill = notes.find((note) => note.trill !== undefined)?.trill;
  if (trill !== undefined) {
    pen.text(`tr(${trill})`, { x: x - 4, y: y + 3 }, { italic: true });
    pen.wave({ x: x + 28, y }, Math.max(endX - 6, x + 36), 2);
  }
  event.item?.arm?.forEach((steps, index) => drawArm(pen, { x: x + index * ARM_WIDTH, y }, steps));
  const harmonic = notes.find((note) => note.harmonic)?.harmonic;
  if (harmonic)
    pen.text(
      harmonic === 'pinch' ? 'P.H.' : 'Harm.',
      { x: x - 6, y: y + 2 - (vibrato ? 10 : 0) },
      { size: SIZES.smallFont },
    );
}

/** One move of the tremolo arm, down or up, and back. */
function drawArm(pen: Pen, { x, y }: Point, steps: number): void {
  const [rest, turn] = steps < 0 ? [y - 6, y + 3] : [y + 3, y - 6];
  pen.line({ x, y: rest }, { x: x + 5, y: turn }, 1.3);
  pen.line({ x: x + 5, y: turn }, { x: x + 10, y: rest }, 1.3);
  const size = `${steps < 0 ? '-' : '+'}${sizeText(Math.abs(steps))}`;
  pen.text(size, { x: x - 1, y: y - 9 }, { size: SIZES.smallFont });
}

type BendNote = NonNullable<ScoreEvent['item']>['notes'][number];

/** Where a bend of some height stands above the stave. */
function bendY(steps: number, { staveTop }: RowHeights): number {
  return staveTop - 8 - Math.min(2, steps) * 11;
}

/** A string that stands bent until its bend goes on: a dashed line from the bend, or from the edge of the page. */
export function drawHeld(pen: Pen, drawn: readonly DrawnEvent[], index: number, heights: RowHeights): void {
  const to = drawn[index];
  for (const { string, held, fret } of to?.event.item?.notes ?? []) {
    if (!to || !held) continue;
    const source = drawn
      .slice(0, index)
      .findLast(({ event }) => event.item?.notes.some((note) => note.string === string));
    const isUpright = source?.event.item?.notes.some(
      ({ again, preBend }) => again !== undefined || preBend !== undefined,
    );
    const from = source ? source.x + (isUpright ? UPRIGHT_BEHIND : BENT_BEHIND) : (drawn[0]?.x ?? to.x) - BENT_BEHIND;
    const y = bendY(held, heights);
    const end = to.x + textWidth(String(fret ?? 'x')) / 2 + 2;
    if (end > from) pen.dashes({ x: Math.min(from, end), y }, { x: end, y });
  }
}

/** About how far behind its fret a bend has reached its height. Pixels. */
const BENT_BEHIND = 30;
/** The same where it stands bent from the start. */
const UPRIGHT_BEHIND = 12;

/** Draws a chain of bends and releases; gives the x where it ends. */
function drawBend(pen: Pen, note: BendNote, start: Point, endX: number, heights: RowHeights): number {
  const moves = note.moves ?? [];
  const heightOf = (steps: number) => (steps <= 0 ? start.y : bendY(steps, heights));
  let at: Point = start;
  const upright = note.preBend ?? note.again;
  if (upright !== undefined) {
    at = { x: start.x + 2, y: heightOf(upright) };
    pen.line({ x: at.x, y: start.y - 3 }, at, 1.2);
    pen.head(at, true);
    pen.text(sizeText(upright), { x: at.x, y: at.y - 4 }, { anchor: 'middle', size: SIZES.smallFont });
  } else if (note.held) at = { x: start.x, y: heightOf(note.held) };
  const step = Math.max(12, (endX - at.x) / Math.max(1, moves.length + 0.4));
  for (const { kind, steps, unsized, upTo } of moves) {
    const to = { x: at.x + Math.min(step, 26), y: heightOf(steps) };
    const up = kind === 'bend';
    if (up) pen.sweep(at, to);
    else pen.sweep({ x: at.x, y: at.y }, { x: to.x, y: steps <= 0 ? to.y - 4 : to.y });
    pen.head(up || steps > 0 ? to : { x: to.x, y: to.y - 2 }, up);
    const label = unsized ? '?' : `${sizeText(steps)}${upTo === undefined ? '' : `–${sizeText(upTo)}`}`;
    if (up || steps > 0)
      pen.text(label, { x: to.x, y: up ? to.y - 4 : to.y + 10 }, { anchor: 'middle', size: SIZES.smallFont });
    at = to;
  }
  // A bend that is held as long as the note lasts says so.
  if (moves.at(-1)?.kind === 'bend' && endX - at.x > HOLD_FROM) {
    pen.dashes({ x: at.x + 4, y: at.y }, { x: endX - 2, y: at.y });
    return endX - 2;
  }
  return at.x;
}

/** A shorter hold is not drawn. Pixels. */
const HOLD_FROM = 16;

/** The size of a bend in whole steps, as players read it. */
export function sizeText(steps: number): string {
  const whole = Math.floor(steps + 1e-9);
  const rest = Math.round((steps - whole) * 100);
  const fraction = { 0: '', 25: '¼', 50: '½', 75: '¾' }[rest];
  if (fraction === undefined) return String(Math.round(steps * 100) / 100);
  return whole === 0 ? fraction || '0' : `${whole}${fraction}`;
}

/** Pick strokes, fingers, taps and rakes, in one row under the stems. */
function drawHands(pen: Pen, { event, x }: DrawnEvent, { hands: y }: RowHeights): void {
  const { marks, item } = event;
  const words: string[] = item?.link === 'tap' ? [LINK_RECORDS.tap.sign] : [];
  let isStroked = false;
  for (const mark of marks) {
    const drawing = MARK_DRAWINGS[mark];
    if (drawing.at !== 'hands') continue;
    if ('word' in drawing) words.push(drawing.word);
    else {
      drawing.shape(pen, { x, y });
      isStroked ||= drawing.isStroke;
    }
  }
  const notes = item?.notes ?? [];
  for (const { plucked } of notes) if (plucked) words.push(MARK_RECORDS[plucked].sign);
  // Fingers of a stack stand under one another, as its frets do.
  const [first = '', ...others] = [...notes]
    .sort((a, b) => a.string - b.string)
    .map(sayFinger)
    .filter(Boolean);
  const lines = [[...words, first].filter(Boolean).join(' '), ...others];
  const size = SIZES.smallFont;
  const at = x + (isStroked ? 9 : 0);
  lines.forEach((text, index) => {
    const place = { x: at, y: y + index * SIZES.fingerGap };
    if (text !== '') pen.text(text, place, isStroked ? { size } : { anchor: 'middle', size });
  });
}

/** The fretting finger of a note: with a helper behind it, or with another that will do as well. */
function sayFinger({ finger, fingerBehind, fingerOr }: BendNote): string {
  return `${finger ?? ''}${fingerBehind ? `+${fingerBehind}` : ''}${fingerOr ? `/${fingerOr}` : ''}`;
}

/** Draws what joins an event to the one before it: hammer-on, pull-off, slide, tie. */
export function drawLink(pen: Pen, before: DrawnEvent, drawn: DrawnEvent, broken: boolean): void {
  const { event, x, yOf } = drawn;
  const { item } = event;
  if (!item || (!item.link && !event.tied)) return;
  const fromX = broken ? x - 26 : before.x;
  const sliding = item.link === 'slide' || item.link === 'shift';
  const strings = item.notes.map(({ string }) => string);
  const isAcross = item.link === 'shift' && !strings.some((string) => isOn(before.event, string));
  if (isAcross) return drawAcross(pen, before, drawn);
  for (const string of strings) {
    const y = yOf(string);
    const from = before.event.item?.notes.find((note) => note.string === string);
    const reach = textWidth(String(from?.fret ?? '0')) / 2 + 2;
    if (sliding) {
      const to = item.notes.find((note) => note.string === string);
      const rise = (to?.fret ?? 0) >= (from?.fret ?? 0) ? 4 : -4;
      pen.line(
        { x: fromX + reach, y: y + rise },
        { x: x - textWidth(String(to?.fret ?? 0)) / 2 - 2, y: y - rise },
        1.3,
      );
    }
  }
  // Over a note that is bent its arrow stands, so that its arc goes under the frets.
  const isUnder = !broken && before.event.item?.notes.some(isBent) === true;
  const side = isUnder ? 1 : -1;
  const y = (isUnder ? Math.max(...strings.map(yOf)) : Math.min(...strings.map(yOf))) + side * 8;
  if (item.link !== 'shift') pen.arc({ x: fromX + 1, y }, { x: x - 1, y }, -side * (sliding ? 9 : 10));
  const isLettered = item.link && !event.tied && LETTERED_LINKS.includes(item.link);
  const letter = item.link && isLettered ? LINK_RECORDS[item.link].sign : '';
  if (letter)
    pen.text(
      letter,
      { x: (fromX + x) / 2, y: isUnder ? y + 14 : y - 7 },
      { anchor: 'middle', size: SIZES.smallFont, weight: 600 },
    );
}

/** Whether an arrow stands over a note. */
function isBent({ moves, preBend, again, held }: BendNote): boolean {
  return moves !== undefined || [preBend, again, held].some((steps) => steps !== undefined);
}

function isOn({ item }: ScoreEvent, string: number): boolean {
  return item?.notes.some((note) => note.string === string) ?? false;
}

/** A slide that goes on to another string: away from the one, into the other. */
function drawAcross(pen: Pen, before: DrawnEvent, { event, x, yOf }: DrawnEvent): void {
  const [from, to] = [before.event.item?.notes[0], event.item?.notes[0]];
  if (!from || !to) return;
  const rise = to.string < from.string ? 4 : -4;
  const [away, into] = [textWidth(String(from.fret ?? 'x')) / 2 + 2, textWidth(String(to.fret ?? 'x')) / 2 + 2];
  const [y, toY] = [yOf(from.string), yOf(to.string)];
  pen.line({ x: before.x + away, y: y + rise }, { x: before.x + away + 10, y: y - rise }, 1.3);
  pen.line({ x: x - into - 10, y: toY + rise }, { x: x - into, y: toY - rise }, 1.3);
}

/** Links whose sign is a letter over the arc; the others are lines. */
const LETTERED_LINKS: readonly Link[] = ['hammer', 'pull'];

/** Draws the spans that several events share: palm mute, let ring, barre, how sure, softer or louder. */
export function drawSpans(pen: Pen, events: readonly DrawnEvent[], heights: RowHeights): void {
  for (const mark of EVENT_MARKS) {
    const drawing = MARK_DRAWINGS[mark];
    if (drawing.at === 'span')
      for (const run of runs(events, ({ event }) => (event.marks.includes(mark) ? mark : undefined)))
        drawSpan(pen, run, drawing.word, heights.spans, false);
  }
  for (const run of runs(events, ({ event }) => (event.barre === null ? undefined : String(event.barre))))
    drawSpan(pen, run, `bar ${run[0]?.event.barre ?? ''}`, heights.chords, typeof run[0]?.event.chord === 'string');
  for (const run of runs(events, ({ event }) => event.sureness ?? undefined))
    drawSpan(pen, run, sureWord(run[0]?.event.sureness), heights.sure, false);
  for (const run of runs(events, ({ event }) => event.swell && String(event.swell.number)))
    drawSwell(pen, run, heights.swells);
}

/** A wedge under what grows softer or louder. */
function drawSwell(pen: Pen, run: readonly DrawnEvent[], y: number): void {
  const [first, last] = [run[0], run.at(-1)];
  const swell = first?.event.swell;
  if (!first || !last || !swell) return;
  const [from, to] = [first.x - 4, Math.max(last.x + 6, first.x + 14)];
  const [closed, open] = swell.to === 'louder' ? [from, to] : [to, from];
  for (const side of [-WEDGE, WEDGE]) pen.line({ x: closed, y: y - 4 }, { x: open, y: y - 4 + side }, 1.3);
}

/** Half the width of a wedge at its open end. Pixels. */
const WEDGE = 4;

function sureWord(sureness: Sureness | null | undefined): string {
  return sureness ? SURENESS_RECORDS[sureness].sign : '';
}

function drawSpan(pen: Pen, run: readonly DrawnEvent[], label: string, y: number, aside: boolean): void {
  const [first, last] = [run[0], run.at(-1)];
  if (!first || !last) return;
  const x = first.x - 4 + (aside ? (first.event.chord ?? '').length * 8 + 6 : 0);
  pen.text(label, { x, y }, { italic: true, soft: true, size: SIZES.smallFont });
  const from = x + label.length * 4.8 + 4;
  if (run.length < 2 || last.x <= from) return;
  pen.dashes({ x: from, y: y - 3 }, { x: last.x + 6, y: y - 3 });
  pen.line({ x: last.x + 6, y: y - 6 }, { x: last.x + 6, y });
}

/** Runs of neighbours with the same key; events without one part them. */
function runs(
  events: readonly DrawnEvent[],
  keyOf: (drawn: DrawnEvent) => string | undefined,
): readonly DrawnEvent[][] {
  const found: DrawnEvent[][] = [];
  let before: string | undefined;
  for (const drawn of events) {
    const key = drawn.event.item ? keyOf(drawn) : undefined;
    if (key !== undefined && key === before) found.at(-1)?.push(drawn);
    else if (key !== undefined) found.push([drawn]);
    before = key;
  }
  return found;
}
