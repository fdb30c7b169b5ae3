import {
  isPicked,
  TICKS_PER_QUARTER,
  unroll,
  type EventItem,
  type EventMark,
  type Phrase,
  type TimedEvent,
} from '../notation/index.ts';
import { crossingBetween, crossingCost } from './crossings.ts';
import type { Stroke, Struck } from './strokes.ts';

/** The ways to pick that can be asked for. Source: common practice. */
export const PICKING_POLICIES = [
  'as given',
  'alternate from down',
  'alternate from up',
  'economy',
  'toward the next string',
  'all down',
  'sweep',
  'hybrid',
  'cheapest',
] as const;
/** One of the `PICKING_POLICIES`. */
export type PickingPolicy = (typeof PICKING_POLICIES)[number];

/** A plan for a whole phrase. */
export interface StrokePlan {
  readonly strokes: readonly Struck[];
  /** What its string changes and repeated strokes cost, by `crossingCost` and `PICK_COST`. */
  readonly cost: number;
}

/** What is known besides the policy. */
export interface StrokeOptions {
  /** The first stroke, where the policy leaves it open. */
  readonly start?: 'down' | 'up';
}

/** What the pick pays besides its crossings, in the same measure. Our choice. */
const PICK_COST = {
  /** The same stroke twice on one string. */
  repeated: 1.6,
  /** An up-stroke on the beat. */
  upOnBeat: 0.25,
} as const;

/**
 * A stroke for every event as played: legato, taps and plucked notes take none, given strokes are always kept.
 * `cheapest` is the plan whose crossings cost least, found exactly by dynamic programming. Linear.
 */
export function planStrokes(phrase: Phrase, policy: PickingPolicy, { start }: StrokeOptions = {}): StrokePlan {
  const blank = unroll(phrase).events.flatMap((event) => blankOf(event) ?? []);
  const strokes =
    policy === 'cheapest'
      ? cheapest(blank, start)
      : policy === 'toward the next string'
        ? towardNext(blank, start)
        : inOrder(blank, policy, start);
  return { strokes, cost: costOf(strokes) };
}

/** The events whose mark differs from what a plan says, and the marks they would bear; repeats take their first pass. */
export function strokeMarks({ strokes }: StrokePlan): ReadonlyMap<EventItem, EventItem> {
  const changes = new Map<EventItem, EventItem>();
  for (const { item, stroke } of strokes) {
    if (changes.has(item)) continue;
    const rest = item.marks.filter((mark) => mark !== 'down' && mark !== 'up');
    const marks: readonly EventMark[] = stroke === 'down' || stroke === 'up' ? [...rest, stroke] : item.marks;
    changes.set(item, { ...item, marks });
  }
  for (const [item, { marks }] of changes) if (marks.join() === item.marks.join()) changes.delete(item);
  return changes;
}

function blankOf({ item, span, at, marks }: TimedEvent): Struck | undefined {
  if (!item) return undefined;
  const strings = item.notes.map(({ string }) => string);
  const given = marks.includes('down') ? 'down' : marks.includes('up') ? 'up' : undefined;
  const byFinger = marks.some((mark) => mark.startsWith('plucked'));
  const sounding = !isPicked(item);
  const stroke: Stroke = sounding ? 'legato' : byFinger ? 'plucked' : (given ?? 'open');
  return { item, span, at, strings, stroke, given: given !== undefined, plucked: [] };
}

function inOrder(blank: readonly Struck[], policy: PickingPolicy, start: StrokeOptions['start']): readonly Struck[] {
  let last: Struck | undefined;
  return blank.map((struck) => {
    if (struck.stroke === 'legato' || struck.stroke === 'plucked') return struck;
    const done = policy === 'hybrid' ? split(struck) : struck;
    const stroke = struck.given ? struck.stroke : strokeFor(done, last, { policy, start });
    const set = { ...done, stroke };
    if (stroke !== 'open') last = set;
    return set;
  });
}

/** The stroke a policy wants after another. */
function strokeFor(
  struck: Struck,
  last: Struck | undefined,
  { policy, start }: { readonly policy: PickingPolicy; readonly start: StrokeOptions['start'] },
): Stroke {
  if (policy === 'as given') return 'open';
  if (isBrushed(struck)) return 'down';
  if (policy === 'all down') return 'down';
  const first = start ?? (policy === 'alternate from up' ? 'up' : 'down');
  if (!last) return first;
  const other = last.stroke === 'down' ? 'up' : 'down';
  if (policy !== 'economy' && policy !== 'sweep') return other;
  const [from, to] = [last.strings[0] ?? 0, struck.strings[0] ?? 0];
  if (from === to) return other;
  const near = policy === 'sweep' || Math.abs(from - to) === 1;
  // Toward a thinner string the pick is already moving with a down-stroke.
  const onward = to < from ? 'down' : 'up';
  return near ? onward : other;
}

/**
 * Each stroke before a string change goes toward the string that comes next, down to a thinner one; on one string strokes alternate
 * up to it. Behind the last change they alternate on. Source: common practice.
 */
function towardNext(blank: readonly Struck[], start: StrokeOptions['start']): readonly Struck[] {
  const picked = blank.filter(({ stroke }) => stroke !== 'legato' && stroke !== 'plucked');
  const strokes = new Map<Struck, Stroke>();
  const stringOf = (struck: Struck | undefined) => struck?.strings[0] ?? 0;
  const settle = (struck: Struck, stroke: Stroke) =>
    strokes.set(struck, struck.given ? struck.stroke : isBrushed(struck) ? 'down' : stroke);
  const lastRun = picked.findLastIndex((struck, index) => stringOf(struck) !== stringOf(picked[index - 1]));
  for (let index = lastRun - 1; index >= 0; index -= 1) {
    const [struck, next] = [picked[index], picked[index + 1]];
    if (!struck || !next) continue;
    const [from, to] = [stringOf(struck), stringOf(next)];
    settle(struck, from === to ? otherThan(strokes.get(next)) : to < from ? 'down' : 'up');
  }
  picked.slice(Math.max(0, lastRun)).forEach((struck, index, run) => {
    const before = index > 0 ? run[index - 1] : picked[lastRun - 1];
    settle(struck, before ? otherThan(strokes.get(before)) : (start ?? 'down'));
  });
  return blank.map((struck) => ({ ...struck, stroke: strokes.get(struck) ?? struck.stroke }));
}

const otherThan = (stroke: Stroke | undefined): Stroke => (stroke === 'down' ? 'up' : 'down');

/** Rakes and rolled chords go from the thick strings to the thin. */
function isBrushed({ item }: Struck): boolean {
  return item.marks.includes('rake') || item.marks.includes('rolled');
}

/** A stack with a gap between its strings: the pick takes the thickest, fingers the rest. */
function split(struck: Struck): Struck {
  const sorted = [...struck.strings].sort((a, b) => b - a);
  const gap = sorted.some((string, index) => index > 0 && (sorted[index - 1] ?? string) - string > 1);
  if (!gap) return struck;
  return { ...struck, strings: sorted.slice(0, 1), plucked: sorted.slice(1) };
}

/** Every stroke two ways, the cheaper past of each kept. Source: shortest path in a layered graph, common practice. */
function cheapest(blank: readonly Struck[], start: StrokeOptions['start']): readonly Struck[] {
  interface Link {
    readonly struck: Struck;
    readonly before: Link | undefined;
  }
  let ways: readonly { readonly link: Link | undefined; readonly last: Struck | undefined; readonly cost: number }[] = [
    { link: undefined, last: undefined, cost: 0 },
  ];
  for (const struck of blank) {
    const fixed = struck.stroke !== 'open';
    const isFirst = start !== undefined && ways.every(({ last }) => last === undefined);
    const options: readonly Stroke[] = fixed
      ? [struck.stroke]
      : isBrushed(struck)
        ? ['down']
        : isFirst
          ? [start]
          : ['down', 'up'];
    ways = options.flatMap((stroke) => {
      const set = { ...struck, stroke };
      const picks = stroke === 'down' || stroke === 'up';
      const reached = ways.map(({ link, last, cost }) => ({
        link: { struck: set, before: link },
        last: picks ? set : last,
        cost: cost + (picks ? stepCost(last, set) : 0),
      }));
      if (!picks) return reached;
      return [reached.reduce((a, b) => (b.cost < a.cost ? b : a))];
    });
  }
  const best = ways.reduce((a, b) => (b.cost < a.cost ? b : a));
  const strokes: Struck[] = [];
  for (let link = best.link; link; link = link.before) strokes.unshift(link.struck);
  return strokes;
}

function costOf(strokes: readonly Struck[]): number {
  const picked = strokes.filter(({ stroke }) => stroke === 'down' || stroke === 'up');
  return picked.reduce((sum, struck, index) => sum + stepCost(picked[index - 1], struck), 0);
}

function stepCost(last: Struck | undefined, struck: Struck): number {
  const onBeat = struck.at % TICKS_PER_QUARTER === 0 && struck.stroke === 'up' ? PICK_COST.upOnBeat : 0;
  const crossing = crossingBetween(last, struck);
  if (crossing) return onBeat + crossingCost(crossing);
  return onBeat + (last?.stroke === struck.stroke ? PICK_COST.repeated : 0);
}
