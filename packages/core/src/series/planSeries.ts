/** A piece to be begun in some lesson. Pieces stand in the order they are learned. */
export interface SeriesPiece {
  readonly id: string;
  /** What showing it takes in the lesson, minutes. */
  readonly minutes: number;
  /** Pieces that must have been begun in an earlier lesson. */
  readonly needs: readonly string[];
  /** The lesson a teacher put it into, from 0; null where none did. */
  readonly fixed: number | null;
  /** The lesson it was accepted for, from 0; null or left out where none was. Another one costs `MOVED_COST`. */
  readonly prefer?: number | null;
  /** Not before this lesson, from 0. */
  readonly earliest?: number;
}

/** A lesson that pieces are spread over. */
export interface SeriesLesson {
  /** Minutes there are for something new: the lesson without hearing again, joins and the run from the top. */
  readonly roomMinutes: number;
}

/** Which lesson each piece is begun in, and how full the lessons are. */
export interface SeriesPlan {
  readonly lessonOf: ReadonlyMap<string, number>;
  readonly loads: readonly number[];
  /** The sum of the squares of how far each load is from an even one, and of what is over the room, weighed; and of moves. */
  readonly cost: number;
  /** Lessons with more than their room, from 0. */
  readonly over: readonly number[];
}

/** A piece that leaves the lesson it was accepted for costs as much as a load two minutes from even. Our choice. */
export const MOVED_COST = 4;

/** A minute over the room weighs as so many of unevenness. Our choice: full is worse than uneven. */
const OVER_WEIGHT = 10;

/** What planning tells while it goes on. */
export interface PlanningOptions {
  /** Told after each lesson how many are done. */
  readonly onLesson?: (done: number) => void;
}

/**
 * Spreads pieces over lessons in their order, each at least a lesson after what it needs. Those put by hand stay where they are,
 * whatever the order. Least is a sum of squares: distances from an even load, what is over the room, moves from accepted lessons.
 * Undefined where hand-made places leave no way, or there is no lesson.
 *
 * Exact: dynamic programming over the pieces in order; a piece is never begun before the one in front of it, unless one of them
 * was put by hand. O(lessons × pieces × log pieces): the cost of a load is convex, so that the cheapest place for a lesson to begin
 * never falls while its end rises, and one place halves the search for all others.
 *
 * Source: the divide-and-conquer optimisation of dynamic programs with the quadrangle inequality (after Yao 1980, from memory).
 */
export function planSeries(
  pieces: readonly SeriesPiece[],
  lessons: readonly SeriesLesson[],
  { onLesson }: PlanningOptions = {},
): SeriesPlan | undefined {
  const placed = placedByHand(pieces, lessons.length);
  if (lessons.length === 0 || !placed) return undefined;
  const even = pieces.reduce((sum, { minutes }) => sum + minutes, 0) / lessons.length;
  const { free, base } = placed;
  const runs: Runs = { free, first: firstOfRuns(free), minutes: summed(free.map(({ minutes }) => minutes)) };
  /** The least cost of putting the first so many free pieces into the lessons so far; no way is endless. */
  let best: Float64Array = new Float64Array(free.length + 1).fill(Infinity);
  best[0] = placed.cost;
  /** For each lesson and so many pieces, where the pieces of that lesson begin. */
  const starts: Int32Array[] = [];
  for (const [lesson, { roomMinutes: room }] of lessons.entries()) {
    const filled = fillLesson(runs, { best, lesson, ground: { even, room, minutes: base[lesson] ?? 0 } });
    best = filled.costs;
    starts.push(filled.starts);
    onLesson?.(lesson + 1);
  }
  const cost = best[free.length] ?? Infinity;
  if (cost === Infinity) return undefined;
  const lessonOf = new Map(placed.lessonOf);
  const loads = [...base];
  let end = free.length;
  for (let lesson = lessons.length - 1; lesson >= 0; lesson -= 1) {
    const start = starts[lesson]?.[end] ?? 0;
    for (const { id, minutes } of free.slice(start, end)) {
      lessonOf.set(id, lesson);
      loads[lesson] = (loads[lesson] ?? 0) + minutes;
    }
    end = start;
  }
  const over = loads.flatMap((load, lesson) => (load > (lessons[lesson]?.roomMinutes ?? 0) ? [lesson] : []));
  return { lessonOf, loads, cost, over };
}

/** The pieces that nobody put by hand, for so many of them the first that may share a lesson with the last, and their minutes. */
interface Runs {
  readonly free: readonly FreePiece[];
  readonly first: readonly number[];
  readonly minutes: Float64Array;
}

/** What the first so many of some numbers come to, none at all first. */
function summed(numbers: readonly number[]): Float64Array {
  const sums = new Float64Array(numbers.length + 1);
  numbers.forEach((number, index) => (sums[index + 1] = (sums[index] ?? 0) + number));
  return sums;
}

/** For a lesson that ends before each of the pieces, the cheapest place for it to begin, and what all up to there costs then; endless where none is. */
function fillLesson(
  { free, first, minutes }: Runs,
  {
    best,
    lesson,
    ground,
  }: {
    readonly best: Float64Array;
    readonly lesson: number;
    readonly ground: { readonly even: number; readonly room: number; readonly minutes: number };
  },
): { readonly costs: Float64Array; readonly starts: Int32Array } {
  const costs = new Float64Array(best.length).fill(Infinity);
  const starts = Int32Array.from(best, (_, end) => end);
  const moved = summed(free.map(({ prefer }) => (prefer === null || prefer === lesson ? 0 : MOVED_COST)));
  const { lowest, ends } = endsOf(free, { best, lesson, first });
  /** The cheapest beginning of a lesson that ends there, within bounds; of equals the last. */
  const search = (end: number, from: number, to: number): void => {
    for (let at = Math.min(end, to); at >= Math.max(lowest[end] ?? 0, from); at -= 1) {
      const load = ground.minutes + (minutes[end] ?? 0) - (minutes[at] ?? 0);
      const here = (best[at] ?? Infinity) + costOf(load, ground) + (moved[end] ?? 0) - (moved[at] ?? 0);
      if (here < (costs[end] ?? Infinity) - 1e-9) {
        costs[end] = here;
        starts[end] = at;
      }
    }
  };
  const halve = (low: number, high: number, from: number, to: number): void => {
    if (low > high) return;
    const middle = (low + high) >> 1;
    const end = ends[middle] ?? 0;
    search(end, from, to);
    // Rounding may have taken a neighbour a hair too far.
    if (costs[end] === Infinity) search(end, 0, end);
    const start = starts[end] ?? end;
    halve(low, middle - 1, from, start);
    halve(middle + 1, high, start, to);
  };
  halve(0, ends.length - 1, 0, free.length);
  return { costs, starts };
}

/** For so many pieces, the first from which on all may be in a lesson; and for how many there is a way to begin it that costs anything finite. */
function endsOf(
  free: readonly FreePiece[],
  { best, lesson, first }: { readonly best: Float64Array; readonly lesson: number; readonly first: readonly number[] },
): { readonly lowest: Int32Array; readonly ends: readonly number[] } {
  const lowest = new Int32Array(best.length);
  const ends: number[] = [];
  let barred = 0;
  /** The last place so far that there is a way to. */
  let reached = -1;
  for (let end = 0; end < best.length; end += 1) {
    const last = free[end - 1];
    if (last && (lesson < last.earliest || lesson > last.latest)) barred = end;
    lowest[end] = Math.max(first[end] ?? 0, barred);
    if ((best[end] ?? Infinity) < Infinity) reached = end;
    if (reached >= (lowest[end] ?? 0)) ends.push(end);
  }
  return { lowest, ends };
}

/**
 * For so many pieces, the first piece from which on all of them may share a lesson: none of them needs another. Never falls, since
 * what may not be shared by few may not be by more. Linear in the pieces and their needs.
 */
function firstOfRuns(pieces: readonly FreePiece[]): readonly number[] {
  const index = new Map(pieces.map(({ id }, at) => [id, at]));
  const first = [0];
  for (const { needs } of pieces) {
    const needed = needs.reduce((last, id) => Math.max(last, index.get(id) ?? -1), -1);
    first.push(Math.max(first.at(-1) ?? 0, needed + 1));
  }
  return first;
}

/** A piece that nobody put by hand, and the lessons it may be begun in for those that somebody did. */
interface FreePiece extends Pick<SeriesPiece, 'id' | 'minutes' | 'needs'> {
  readonly prefer: number | null;
  readonly earliest: number;
  readonly latest: number;
}

/**
 * What was put by hand, its minutes in each lesson, and what that means for the others. Undefined where it is put into no lesson
 * that is there, or before what it needs.
 */
function placedByHand(pieces: readonly SeriesPiece[], count: number) {
  const lessonOf = new Map(pieces.flatMap(({ id, fixed }) => (fixed === null ? [] : [[id, fixed] as const])));
  const base = Array.from({ length: count }, () => 0);
  let cost = 0;
  const latest = new Map<string, number>();
  for (const { fixed, minutes, needs, prefer = null, earliest = 0 } of pieces) {
    if (fixed === null) continue;
    const isLate = needs.every((id) => (lessonOf.get(id) ?? -1) < fixed);
    if (fixed >= count || fixed < earliest || !isLate) return undefined;
    base[fixed] = (base[fixed] ?? 0) + minutes;
    if (prefer !== null && prefer !== fixed) cost += MOVED_COST;
    for (const id of needs) latest.set(id, Math.min(latest.get(id) ?? count, fixed - 1));
  }
  const free = pieces
    .filter(({ fixed }) => fixed === null)
    .map((piece): FreePiece => {
      const after = piece.needs.map((id) => (lessonOf.get(id) ?? -1) + 1);
      // Every field is named, so that all pieces are laid out alike in memory; the computing is fifty times as quick for it.
      return {
        id: piece.id,
        minutes: piece.minutes,
        needs: piece.needs,
        prefer: piece.prefer ?? null,
        earliest: Math.max(piece.earliest ?? 0, ...after),
        latest: latest.get(piece.id) ?? count - 1,
      };
    });
  return { lessonOf, base, cost, free };
}

/** What a load costs in a lesson. */
export function costOf(load: number, { even, room }: { readonly even: number; readonly room: number }): number {
  const uneven = load - even;
  const over = load > room ? load - room : 0;
  return uneven * uneven + OVER_WEIGHT * over * over;
}
