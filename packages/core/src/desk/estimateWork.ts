/** What of a request the work hangs on, as far as it is known before it is begun. */
export interface WorkRequest {
  /** Parts of the song that are wanted. */
  readonly parts: number;
  /** Guitars blended into one, or told apart. */
  readonly layers: 1 | 2;
  /** Seconds of music to be worked out; null where nobody said. */
  readonly seconds: number | null;
  /** Notes a second, where somebody listened; null else. */
  readonly density: number | null;
  /** Share of it that is sure, 0 to 1; null where nobody listened. */
  readonly certainty: number | null;
}

/** A request that was worked out: what was known before, and what it took. */
export interface DoneWork {
  readonly request: WorkRequest;
  readonly minutes: number;
}

/** Minutes of work: what is likely, with a range that holds 8 in 10; and from how many of the studio’s own it was learned. */
export interface WorkEstimate {
  readonly minutes: number;
  readonly low: number;
  readonly high: number;
  readonly from: number;
}

/** Where the studio has no past: minutes a part, and a second of music of middling density. Our choice, to be corrected by its past. */
const PLAIN = { partMinutes: 45, secondMinutes: 1.4, density: 4, secondLayer: 1.6, unsure: 1.5 } as const;

/** How far single requests stray from the plain computing, as the logarithm of minutes, before anything is known. Our choice. */
const STRAY = 0.5;

/** The plain computing counts as so many requests of the studio’s own. Our choice. */
const PLAIN_WEIGHT = 3;

/** How far the slope over length strays from none, before anything is known. Our choice. */
const SLOPE_STRAY = 0.3;

/** Plain minutes from which length is counted. Our choice: about a part. */
const MIDDLING_MINUTES = 60;

/** Standard normal quantile of 0.9. */
const Z90 = 1.2816;

/**
 * Minutes that a request will take, with the range that one more request falls into 8 times in 10. They are computed from its
 * length, density, layers and certainty, then corrected by how the studio’s past stands to that. The past is a straight line through
 * the logarithm of minutes taken ÷ minutes computed, over the logarithm of length: how much more everything takes here, and how
 * much more so what is long; drawn toward none the fewer there are. A request nobody has listened to is compared to the past as
 * it looked before anybody had. Linear in the past.
 *
 * Source: Bayesian linear regression, its posterior and predictive variance as in any textbook (ridge regression with priors of
 * known weight); log-normal times as common practice for work; constants our choice.
 */
export function estimateWork(request: WorkRequest, past: readonly DoneWork[] = []): WorkEstimate {
  const plain = plainMinutes(request);
  const points = past
    .filter(({ minutes }) => minutes > 0)
    .map(({ minutes, request: done }) => {
      const computed = plainMinutes(request.seconds === null ? { ...done, ...UNHEARD } : done);
      return { length: lengthOf(computed), off: Math.log(minutes / computed) };
    });
  const { offset, slope, spreadAt } = lineThrough(points);
  const length = lengthOf(plain);
  const middle = Math.log(plain) + offset + slope * length;
  const spread = spreadAt(length);
  return {
    minutes: Math.round(Math.exp(middle)),
    low: Math.round(Math.exp(middle - Z90 * spread)),
    high: Math.round(Math.exp(middle + Z90 * spread)),
    from: points.length,
  };
}

/** What is not known before anybody has listened. */
const UNHEARD = { seconds: null, density: null, certainty: null } as const;

function lengthOf(minutes: number): number {
  return Math.log(minutes / MIDDLING_MINUTES);
}

/** The line through points, and how far one more strays from it at a length. */
function lineThrough(points: readonly { readonly length: number; readonly off: number }[]): {
  readonly offset: number;
  readonly slope: number;
  readonly spreadAt: (length: number) => number;
} {
  const sum = (of: (point: { readonly length: number; readonly off: number }) => number) =>
    points.reduce((total, point) => total + of(point), 0);
  // The normal equations of two unknowns, the priors as so many points more at none.
  const [a, b, d] = [
    points.length + PLAIN_WEIGHT,
    sum(({ length }) => length),
    sum(({ length }) => length ** 2) + (STRAY / SLOPE_STRAY) ** 2,
  ];
  const [y, xy] = [sum(({ off }) => off), sum(({ length, off }) => length * off)];
  const determinant = a * d - b * b;
  const offset = (d * y - b * xy) / determinant;
  const slope = (a * xy - b * y) / determinant;
  const scatter = sum(({ length, off }) => (off - offset - slope * length) ** 2) + PLAIN_WEIGHT * STRAY ** 2;
  const variance = scatter / (points.length + PLAIN_WEIGHT);
  const leverage = (length: number) => (d - 2 * b * length + a * length ** 2) / determinant;
  return { offset, slope, spreadAt: (length) => Math.sqrt(variance * (1 + leverage(length))) };
}

/** @throws RangeError for a request without parts. */
function plainMinutes({ parts, layers, seconds, density, certainty }: WorkRequest): number {
  if (!(parts > 0)) throw new RangeError(`a request has parts, not ${parts}`);
  const length = seconds === null ? parts * PLAIN.partMinutes : seconds * PLAIN.secondMinutes;
  const dense = density === null ? 1 : Math.sqrt(density / PLAIN.density);
  const unsure = certainty === null ? 1 : 1 + (1 - certainty) * (PLAIN.unsure - 1);
  return Math.max(5, length * dense * unsure * (layers === 2 ? PLAIN.secondLayer : 1));
}
