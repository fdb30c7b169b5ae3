import type { WrittenNote } from './model.ts';
import { TICKS_PER_QUARTER } from './values.ts';

/** A point of a pitch contour: seconds from the note's start, cents above its plain pitch. */
export interface ContourPoint {
  readonly seconds: number;
  readonly cents: number;
}

/** Vibrato: turns a second, and cents to each side. Our choice, within common practice (5-7 Hz). */
export const VIBRATO = { hz: 5.5, narrowCents: 30, wideCents: 60 } as const;

/** Note changes a second in a trill. Our choice, within common practice (8-14). */
export const TRILL_CHANGES_HZ = 12;

/** Longest glide of a bend or slide: a sixteenth, ticks. */
const LONGEST_GLIDE = TICKS_PER_QUARTER / 4;

/** Frets a slide from nowhere starts away, and a slide to nowhere ends away. */
const SLIDE_IN_FRETS = 2;
const SLIDE_OUT_FRETS = 5;

/** Cents in a whole step. */
export const STEP_CENTS = 200;
const FRET_CENTS = 100;

/** Straight pieces to a turn of the vibrato sine: under 0.3 cents off at 30 cents. Our choice. */
const POINTS_PER_TURN = 24;

/** A trill changes pitch over this time, seconds; an instant jump would click. Our choice. */
const TRILL_CHANGE_SECONDS = 0.002;

/** A tick inside the note, and a height there in cents. */
interface Bend {
  readonly tick: number;
  readonly cents: number;
}

/** Moves of the tremolo arm, one after the other over a time; ticks from the start of a note, whole steps, negative down. */
export interface ArmMove {
  readonly from: number;
  readonly length: number;
  readonly steps: readonly number[];
}

/** What shapes one note. Ticks count from the note's start. */
export interface ContourPlan {
  readonly note: WrittenNote;
  /** Sounding length of the event that carries the gestures, ticks. */
  readonly length: number;
  /** Height the note starts from when it is tapped on a bent string, cents. */
  readonly standing: number;
  readonly slideIn?: 'below' | 'above';
  readonly slideOut?: 'up' | 'down';
  /** Frets up (or down) to the note slid to. */
  readonly slideToFrets?: number;
  /** What the tremolo arm does while the note sounds. */
  readonly arms?: readonly ArmMove[];
  readonly secondsAt: (tick: number) => number;
}

/** A contour, and the height the bend stands at when it ends (cents). */
export interface Contour {
  readonly points: readonly ContourPoint[];
  readonly endCents: number;
}

/** The pitch contour of one note: straight pieces in time order, starting at 0 seconds. */
export function contourOf(plan: ContourPlan): Contour {
  const bends = bendCurve(plan);
  const endCents = bends.at(-1)?.cents ?? 0;
  const lines = [bends, slideInCurve(plan), slideAwayCurve(plan, endCents), armCurve(plan)]
    .filter((line) => line.length > 0)
    .map((line) => line.map(({ tick, cents }) => ({ seconds: plan.secondsAt(tick), cents })));
  const waves = [vibratoCurve(plan, bends), trillCurve(plan)].filter((line) => line.length > 0);
  return { points: sum([...lines, ...waves]), endCents };
}

function bendCurve({ note, length, standing }: ContourPlan): readonly Bend[] {
  let height = startHeight(note, standing);
  const curve: Bend[] = [{ tick: 0, cents: height }];
  const moves = note.moves ?? [];
  const part = length / Math.max(1, moves.length);
  moves.forEach(({ steps, slow }, index) => {
    const start = index * part;
    const glide = glideTicks(part, slow === true);
    curve.push({ tick: start, cents: height });
    height = steps * STEP_CENTS;
    curve.push({ tick: start + glide, cents: height });
  });
  return curve;
}

/** How high a note is struck, cents: a pre-bend says so itself, whatever stands bent before it. */
export function startHeight({ preBend }: WrittenNote, standing: number): number {
  return preBend === undefined ? standing : preBend * STEP_CENTS;
}

/** How long a move of a bend takes of its part, ticks. */
export function glideTicks(part: number, slow: boolean): number {
  return slow ? part : Math.min(part / 2, LONGEST_GLIDE);
}

function slideInCurve({ note, length, slideIn }: ContourPlan): readonly Bend[] {
  if (!slideIn) return [];
  const frets = slideIn === 'above' ? SLIDE_IN_FRETS : -Math.min(SLIDE_IN_FRETS, note.fret ?? 0);
  return [
    { tick: 0, cents: frets * FRET_CENTS },
    { tick: length / 4, cents: 0 },
  ];
}

/** A slide to a note ends where that note begins, however high the string stands bent meanwhile. */
function slideAwayCurve({ note, length, slideOut, slideToFrets }: ContourPlan, bentCents: number): readonly Bend[] {
  const down = -Math.min(SLIDE_OUT_FRETS, note.fret ?? 0);
  const away = slideOut && (slideOut === 'up' ? SLIDE_OUT_FRETS : down);
  const cents = slideToFrets === undefined ? (away ?? 0) * FRET_CENTS : slideToFrets * FRET_CENTS - bentCents;
  if (cents === 0) return [];
  const glide = slideToFrets === undefined ? length / 4 : Math.min(length / 4, LONGEST_GLIDE);
  return [
    { tick: length - glide, cents: 0 },
    { tick: length, cents },
  ];
}

/** Each move of the arm there and back, in the first half of its part of the time. */
function armCurve({ arms }: ContourPlan): readonly Bend[] {
  return (arms ?? []).flatMap(({ from, length, steps }) => {
    const part = length / steps.length;
    return steps.flatMap((step, index) => [
      { tick: from + index * part, cents: 0 },
      { tick: from + index * part + part / 4, cents: step * STEP_CENTS },
      { tick: from + index * part + part / 2, cents: 0 },
    ]);
  });
}

function vibratoCurve({ note, length, secondsAt }: ContourPlan, bends: readonly Bend[]): readonly ContourPoint[] {
  if (!note.vibrato) return [];
  const depth = note.vibrato === 'wide' ? VIBRATO.wideCents : VIBRATO.narrowCents;
  const start = secondsAt(bends.at(-1)?.tick ?? 0);
  const end = secondsAt(length);
  const step = 1 / (VIBRATO.hz * POINTS_PER_TURN);
  const points: ContourPoint[] = [];
  for (let index = 0; start + index * step < end; index += 1)
    points.push({
      seconds: start + index * step,
      cents: depth * Math.sin((2 * Math.PI * index) / POINTS_PER_TURN),
    });
  points.push({ seconds: end, cents: 0 });
  return points;
}

function trillCurve({ note, length, secondsAt }: ContourPlan): readonly ContourPoint[] {
  if (note.trill === undefined || note.fret === null) return [];
  const interval = (note.trill - note.fret) * FRET_CENTS;
  const end = secondsAt(length);
  const points: ContourPoint[] = [{ seconds: 0, cents: 0 }];
  for (let change = 1; change / TRILL_CHANGES_HZ < end; change += 1) {
    const at = change / TRILL_CHANGES_HZ;
    const [before, after] = change % 2 === 1 ? [0, interval] : [interval, 0];
    points.push({ seconds: at, cents: before }, { seconds: at + TRILL_CHANGE_SECONDS, cents: after });
  }
  return points;
}

/** Adds piecewise straight curves; outside its points each keeps its first or last height. */
function sum(curves: readonly (readonly ContourPoint[])[]): readonly ContourPoint[] {
  const times = [...new Set(curves.flatMap((curve) => curve.map(({ seconds }) => seconds)))].sort((a, b) => a - b);
  const cursors = curves.map(() => 0);
  return times.map((seconds) => {
    let cents = 0;
    curves.forEach((curve, index) => {
      while ((curve[(cursors[index] ?? 0) + 1]?.seconds ?? Infinity) <= seconds)
        cursors[index] = (cursors[index] ?? 0) + 1;
      cents += heightAt(curve, cursors[index] ?? 0, seconds);
    });
    return { seconds, cents };
  });
}

function heightAt(curve: readonly ContourPoint[], from: number, seconds: number): number {
  const a = curve[from];
  const b = curve[from + 1];
  if (!a) return 0;
  if (!b || seconds <= a.seconds) return a.cents;
  return a.cents + ((b.cents - a.cents) * (seconds - a.seconds)) / (b.seconds - a.seconds);
}

/** The height of a contour at a time, cents; before its first point the first height, after its last the last. */
export function centsAt(points: readonly ContourPoint[], seconds: number): number {
  // The last point at or before the time, by halves: sound asks for it thousands of times a second.
  let [index, behind] = [0, points.length];
  while (behind - index > 1) {
    const middle = (index + behind) >> 1;
    if ((points[middle]?.seconds ?? Infinity) <= seconds) index = middle;
    else behind = middle;
  }
  return heightAt(points, index, seconds);
}
