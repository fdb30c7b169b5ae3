import type { Struck } from './strokes.ts';

/** How the pick gets from one string to another. */
export interface Crossing {
  /** The stroke that comes after it. */
  readonly to: Struck;
  /**
   * Outside: round the two strings, down on the thicker and up on the thinner. Inside: between them, up on the thicker and
   * down on the thinner. With: the stroke goes on the way it was going. Against: the same stroke, but back over the string.
   */
  readonly way: 'outside' | 'inside' | 'with' | 'against';
  /** Strings passed over; 0 for neighbours. */
  readonly skipped: number;
}

/** What each way costs against an outside one, and each string passed over. Our choice. */
const COST = { outside: 1, inside: 1.3, with: 0.4, against: 2, skipped: 0.5 } as const;

/** What a crossing costs; 1 is an outside one to the next string. */
export function crossingCost({ way, skipped }: Crossing): number {
  return COST[way] + skipped * COST.skipped;
}

/** How many there are of each. */
export interface CrossingCount {
  readonly outside: number;
  readonly inside: number;
  readonly with: number;
  readonly against: number;
  readonly list: readonly Crossing[];
}

/**
 * The string changes of the pick, in playing order; what fingers pluck or hammers sound is none.
 * Source: common practice for outside and inside.
 */
export function crossings(strokes: readonly Struck[]): CrossingCount {
  const picked = strokes.filter(({ stroke }) => stroke === 'down' || stroke === 'up');
  const list = picked.flatMap((to, index) => crossingBetween(picked[index - 1], to) ?? []);
  const count = (way: Crossing['way']) => list.filter((one) => one.way === way).length;
  return { outside: count('outside'), inside: count('inside'), with: count('with'), against: count('against'), list };
}

/** The change between two strokes; undefined on the same string. */
export function crossingBetween(from: Struck | undefined, to: Struck): Crossing | undefined {
  if (!from) return undefined;
  const [left, entered] = [leaves(from), enters(to)];
  if (left === entered) return undefined;
  return {
    to,
    way: wayOf(from.stroke === 'down', to.stroke === 'down', entered < left),
    skipped: Math.abs(entered - left) - 1,
  };
}

function wayOf(down: boolean, thenDown: boolean, toThinner: boolean): Crossing['way'] {
  if (down === thenDown) return down === toThinner ? 'with' : 'against';
  return down === toThinner ? 'outside' : 'inside';
}

/** The string a stroke ends on: a down-stroke over a stack goes to its thinnest. */
function leaves({ strings, stroke }: Struck): number {
  return stroke === 'down' ? Math.min(...strings) : Math.max(...strings);
}

function enters({ strings, stroke }: Struck): number {
  return stroke === 'down' ? Math.max(...strings) : Math.min(...strings);
}
