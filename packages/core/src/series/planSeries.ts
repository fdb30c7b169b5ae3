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

/**
 * Spreads pieces over lessons in their order, each at least a lesson after what it needs, those put by hand where they are
 * (whatever the order), so that the sum of the squared distances from an even load, of what is over the room, and of moves from
 * lessons accepted before is least. Undefined where hand-made places leave no way, or there is no lesson.
 *
 * Exact: dynamic programming over the pieces in order; a piece is never begun before the one in front of it, unless one of them
 * was put by hand. O(pieces² × lessons).
 */
export function planSeries(pieces: readonly SeriesPiece[], lessons: readonly SeriesLesson[]): SeriesPlan | undefined {
  const placed = placedByHand(pieces, lessons.length);
  if (lessons.length === 0 || !placed) return undefined;
  const even = pieces.reduce((sum, { minutes }) => sum + minutes, 0) / lessons.length;
  const { free, base } = placed;
  const blocks = new Blocks(free);
  /** The least cost of putting the first so many free pieces into the lessons so far, and from where the last lesson's begin. */
  let best: (Way | undefined)[] = [{ cost: placed.cost, starts: [] }, ...free.map(() => undefined)];
  for (let lesson = 0; lesson < lessons.length; lesson += 1) {
    const room = lessons[lesson]?.roomMinutes ?? 0;
    best = best.map((_, end) => {
      let least: Way | undefined;
      for (let start = end; start >= 0 && blocks.mayShare(start, end); start -= 1) {
        const before = best[start];
        if (!before || !blocks.mayBeIn(lesson, start, end)) continue;
        const load = blocks.minutes(start, end) + (base[lesson] ?? 0);
        const cost = before.cost + costOf(load, { even, room }) + blocks.moved(lesson, start, end);
        if (!least || cost < least.cost - 1e-9) least = { cost, starts: [...before.starts, start] };
      }
      return least;
    });
  }
  const way = best[free.length];
  if (!way) return undefined;
  const lessonOf = new Map(placed.lessonOf);
  free.forEach(({ id }, index) =>
    lessonOf.set(
      id,
      way.starts.findLastIndex((start) => start <= index),
    ),
  );
  const loads = way.starts.map(
    (start, lesson) => blocks.minutes(start, way.starts[lesson + 1] ?? free.length) + (base[lesson] ?? 0),
  );
  const over = loads.flatMap((load, lesson) => (load > (lessons[lesson]?.roomMinutes ?? 0) ? [lesson] : []));
  return { lessonOf, loads, cost: way.cost, over };
}

/** A piece that nobody put by hand, and the lessons it may be begun in for those that somebody did. */
type FreePiece = SeriesPiece & { readonly earliest: number; readonly latest: number };

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
      return {
        ...piece,
        earliest: Math.max(piece.earliest ?? 0, ...after),
        latest: latest.get(piece.id) ?? count - 1,
      };
    });
  return { lessonOf, base, cost, free };
}

interface Way {
  readonly cost: number;
  /** For each lesson so far, the index of its first piece. */
  readonly starts: readonly number[];
}

/** What a load costs in a lesson. */
export function costOf(load: number, { even, room }: { readonly even: number; readonly room: number }): number {
  return (load - even) ** 2 + OVER_WEIGHT * Math.max(0, load - room) ** 2;
}

/** Runs of pieces that could share a lesson. */
class Blocks {
  readonly #pieces: readonly FreePiece[];
  readonly #sums: readonly number[];
  readonly #index: ReadonlyMap<string, number>;

  constructor(pieces: readonly FreePiece[]) {
    this.#pieces = pieces;
    const sums = [0];
    for (const { minutes } of pieces) sums.push((sums.at(-1) ?? 0) + minutes);
    this.#sums = sums;
    this.#index = new Map(pieces.map(({ id }, index) => [id, index]));
  }

  minutes(start: number, end: number): number {
    return (this.#sums[end] ?? 0) - (this.#sums[start] ?? 0);
  }

  /** Whether none of the pieces from `start` to before `end` needs another of them. */
  mayShare(start: number, end: number): boolean {
    const first = this.#pieces[start];
    if (!first || start >= end) return true;
    return this.#pieces
      .slice(start, end)
      .every(({ needs }) => !needs.some((id) => (this.#index.get(id) ?? -1) >= start));
  }

  mayBeIn(lesson: number, start: number, end: number): boolean {
    return this.#pieces.slice(start, end).every(({ earliest, latest }) => earliest <= lesson && lesson <= latest);
  }

  /** What it costs that pieces are not in the lesson they were accepted for. */
  moved(lesson: number, start: number, end: number): number {
    const moved = this.#pieces.slice(start, end).filter(({ prefer = null }) => prefer !== null && prefer !== lesson);
    return moved.length * MOVED_COST;
  }
}
