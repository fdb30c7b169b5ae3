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

/** How far single requests stray from the plain reckoning, as the logarithm of minutes, before anything is known. Our choice. */
const STRAY = 0.5;

/** The plain reckoning counts as so many requests of the studio’s own. Our choice. */
const PLAIN_WEIGHT = 3;

/** Standard normal quantile of 0.9. */
const Z90 = 1.2816;

/**
 * Minutes that a request will take: a plain reckoning from its length, density, layers and certainty, corrected by how the
 * studio’s past stands to it (regression of the logarithm of minutes, its offset drawn toward none the fewer there are), with the
 * range that one more request falls into 8 times in 10.
 *
 * Source: log-normal times as common practice for work; the shrinkage as in any partial pooling; constants our choice.
 */
export function estimateWork(request: WorkRequest, past: readonly DoneWork[] = []): WorkEstimate {
  const plain = plainMinutes(request);
  const off = past
    .filter(({ minutes }) => minutes > 0)
    .map((done) => Math.log(done.minutes / plainMinutes(done.request)));
  const offset = off.reduce((sum, one) => sum + one, 0) / (off.length + PLAIN_WEIGHT);
  const scatter = off.reduce((sum, one) => sum + (one - offset) ** 2, 0) + PLAIN_WEIGHT * STRAY ** 2;
  const spread = Math.sqrt((scatter / (off.length + PLAIN_WEIGHT)) * (1 + 1 / (off.length + PLAIN_WEIGHT)));
  const middle = Math.log(plain) + offset;
  return {
    minutes: Math.round(Math.exp(middle)),
    low: Math.round(Math.exp(middle - Z90 * spread)),
    high: Math.round(Math.exp(middle + Z90 * spread)),
    from: off.length,
  };
}

/** @throws RangeError for a request without parts. */
function plainMinutes({ parts, layers, seconds, density, certainty }: WorkRequest): number {
  if (!(parts > 0)) throw new RangeError(`a request has parts, not ${parts}`);
  const length = seconds === null ? parts * PLAIN.partMinutes : seconds * PLAIN.secondMinutes;
  const dense = density === null ? 1 : Math.sqrt(density / PLAIN.density);
  const unsure = certainty === null ? 1 : 1 + (1 - certainty) * (PLAIN.unsure - 1);
  return Math.max(5, length * dense * unsure * (layers === 2 ? PLAIN.secondLayer : 1));
}
