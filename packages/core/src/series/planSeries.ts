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
 * Spreads pieces over lessons in their order, each at least a lesson after what it needs, those put by hand where they are, so
 * that the sum of the squared distances from an even load, of what is over the room, and of moves from lessons accepted before is
 * least. Undefined where hand-made
 * places leave no way, or there is no lesson.
 *
 * Exact: dynamic programming over the pieces in order; a piece is never begun before the one in front of it. O(pieces² × lessons).
 */
export function planSeries(pieces: readonly SeriesPiece[], lessons: readonly SeriesLesson[]): SeriesPlan | undefined {
  if (lessons.length === 0) return undefined;
  const even = pieces.reduce((sum, { minutes }) => sum + minutes, 0) / lessons.length;
  const blocks = new Blocks(pieces);
  /** The least cost of putting the first so many pieces into the lessons so far, and from where the last lesson's begin. */
  let best: (Way | undefined)[] = [{ cost: 0, starts: [] }, ...pieces.map(() => undefined)];
  for (let lesson = 0; lesson < lessons.length; lesson += 1) {
    const room = lessons[lesson]?.roomMinutes ?? 0;
    best = best.map((_, end) => {
      let least: Way | undefined;
      for (let start = end; start >= 0 && blocks.mayShare(start, end); start -= 1) {
        const before = best[start];
        if (!before || !blocks.mayBeIn(lesson, start, end)) continue;
        const cost =
          before.cost + costOf(blocks.minutes(start, end), { even, room }) + blocks.moved(lesson, start, end);
        if (!least || cost < least.cost - 1e-9) least = { cost, starts: [...before.starts, start] };
      }
      return least;
    });
  }
  const way = best[pieces.length];
  if (!way) return undefined;
  const lessonOf = new Map(pieces.map(({ id }, index) => [id, way.starts.findLastIndex((start) => start <= index)]));
  const loads = way.starts.map((start, lesson) => blocks.minutes(start, way.starts[lesson + 1] ?? pieces.length));
  const over = loads.flatMap((load, lesson) => (load > (lessons[lesson]?.roomMinutes ?? 0) ? [lesson] : []));
  return { lessonOf, loads, cost: way.cost, over };
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
  readonly #pieces: readonly SeriesPiece[];
  readonly #sums: readonly number[];
  readonly #index: ReadonlyMap<string, number>;

  constructor(pieces: readonly SeriesPiece[]) {
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
    return this.#pieces
      .slice(start, end)
      .every(({ fixed, earliest = 0 }) => (fixed === null || fixed === lesson) && lesson >= earliest);
  }

  /** What it costs that pieces are not in the lesson they were accepted for. */
  moved(lesson: number, start: number, end: number): number {
    const moved = this.#pieces.slice(start, end).filter(({ prefer = null }) => prefer !== null && prefer !== lesson);
    return moved.length * MOVED_COST;
  }
}
