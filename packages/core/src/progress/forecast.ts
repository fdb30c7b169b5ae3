import { isWhole } from '../pieces/index.ts';
import { dayAfter, daysBetween, type DatedResult } from './mastery.ts';

/** How fast pieces come along, as the logarithm of tempo a day, and how much that differs. */
export interface LearningRate {
  readonly perDay: number;
  readonly spread: number;
}

/** When the target will be reached. */
export interface Forecast {
  /** Days on which it will be reached with a chance of 10, 50 and 90 in 100, `2026-03-14`. */
  readonly early: string;
  readonly middle: string;
  readonly late: string;
  /** The chance to reach it by a day, 0 to 1. */
  readonly chanceBy: (day: string) => number;
}

/** A forecast, or why there is too little to say, in words. */
export type Forecasted = { readonly says: Forecast } | { readonly tooLittle: string };

/** What is asked. */
export interface ForecastOptions {
  readonly target: number;
  readonly today: string;
  /** How the studio’s other pieces come along. */
  readonly prior?: LearningRate;
}

/** Fewest days with a clean take that are worth a forecast, and how many of the newest count. Our choice. */
const DAYS = { fewest: 4, max: 8 } as const;

/** Learning rate where no other piece says anything: from half the tempo to all of it in about eight weeks. Our choice. */
const USUAL_LEARNING_RATE: LearningRate = { perDay: 0.012, spread: 0.012 };

/** How far one day’s best clean tempo strays, as the logarithm of tempo: about a rung. Our choice. */
const STRAY = 0.05;

/** A learning rate below this is no progress to compute from, the logarithm of tempo a day. Our choice. */
const MIN_PACE = 0.0008;

/**
 * How the true time relates to the gap divided by the learning rate: middle, and how far to each side ten in a hundred lie, as
 * logarithms; so much more for what is not known of it. Chosen on simulated learners, other ones than in the tests; `npm run learn`
 * prints how they fit both.
 */
const SHAPE = { middle: 0.06, below: 1.05, above: 1.1, unknown: 0.6 } as const;

/** Standard normal quantile of 0.9. */
const Z90 = 1.2816;

/**
 * The day on which a piece will be clean at its target. A straight line follows the logarithm of the best clean tempo of each
 * day; it is Bayesian, with the rates of other pieces as its prior. The time to the target is split log-normal around gap ÷ rate,
 * later rather than sooner, since practice slows down.
 *
 * Source: the slowing of practice, Newell & Rosenbloom 1981 and Heathcote, Brown & Mewhort 2000; the split log-normal form and
 * its constants are our choice, held by a simulation in the tests. Linear in the results.
 */
export function forecast(
  history: readonly DatedResult[],
  { target, today, prior = USUAL_LEARNING_RATE }: ForecastOptions,
): Forecasted {
  const best = bestByDay(history);
  const days = [...best.keys()].sort().slice(-DAYS.max);
  if (days.length < DAYS.fewest)
    return { tooLittle: `Too little to say: ${days.length} days with a clean take, and ${DAYS.fewest} are needed.` };
  const line = follow(
    days.map((day) => ({ at: daysBetween(today, day), height: Math.log((best.get(day) ?? target) / target) })),
    prior,
  );
  const gap = -line.now;
  if (gap <= 0) return { says: reachedAt(today) };
  if (line.perDay < MIN_PACE) return { tooLittle: 'No progress to reckon from just now; the tempo has stood still.' };
  return { says: timeTo(gap, { perDay: line.perDay, doubt: line.doubt, from: today }) };
}

/**
 * The day on which a piece will be clean at its target that nobody has played yet: from its start tempo, at the pace of other
 * pieces, counted from the day it is begun. Source: as `forecast`; all that is known of its rate is the prior.
 */
export function forecastFresh({
  start,
  target,
  begins,
  prior = USUAL_LEARNING_RATE,
}: {
  readonly start: number;
  readonly target: number;
  readonly begins: string;
  readonly prior?: LearningRate;
}): Forecast {
  const gap = Math.log(target / start);
  return gap <= 0 ? reachedAt(begins) : timeTo(gap, { perDay: prior.perDay, doubt: prior.spread, from: begins });
}

/** The time a gap takes at a learning rate, split log-normal around gap ÷ rate. */
function timeTo(
  gap: number,
  { perDay, doubt: unsure, from }: { readonly perDay: number; readonly doubt: number; readonly from: string },
): Forecast {
  const doubt = (unsure / perDay) * SHAPE.unknown;
  const middle = Math.log(gap / perDay) + SHAPE.middle;
  const below = Math.hypot(SHAPE.below, doubt * Z90);
  const above = Math.hypot(SHAPE.above, doubt * Z90);
  const after = (time: number) => dayAfter(from, Math.ceil(Math.min(MAX_DAYS, time)));
  return {
    early: after(Math.exp(middle - below)),
    middle: after(Math.exp(middle)),
    late: after(Math.exp(middle + above)),
    chanceBy: (day) => {
      const time = daysBetween(from, day);
      if (time <= 0) return 0;
      const far = Math.log(time) - middle;
      return normal((far / (far < 0 ? below : above)) * Z90);
    },
  };
}

/** How many pieces came along, and how. */
export interface LearningRateSummary extends LearningRate {
  readonly count: number;
}

/** How fast a piece came along, as the logarithm of tempo a day; undefined where too little is posted or nothing was gained. */
export function learningRateOf(history: readonly DatedResult[]): number | undefined {
  const best = bestByDay(history);
  const days = [...best.keys()].sort();
  const [first, last] = [days[0], days.at(-1)];
  if (first === undefined || last === undefined || days.length < DAYS.fewest) return undefined;
  const long = daysBetween(first, last);
  const rise = Math.log((best.get(last) ?? 1) / (best.get(first) ?? 1));
  return long > 0 && rise > 0 ? rise / long : undefined;
}

/** So many pieces of their own count as much as the whole studio. Our choice. */
const OWN_AGAINST_STUDIO = 4;

/**
 * What to expect of a piece before it is begun: how the student’s other pieces came along, drawn toward the studio’s pieces the
 * fewer there are. Undefined where fewer than two say anything.
 *
 * Source: shrinkage toward the mean of a group, as in any partial pooling; the weight is our choice.
 */
export function priorOf(own: readonly number[], studio: LearningRateSummary): LearningRate | undefined {
  const known = studio.count >= 2;
  if (own.length === 0) return known ? { perDay: studio.perDay, spread: studio.spread } : undefined;
  if (!known && own.length < 2) return undefined;
  const mean = own.reduce((sum, learningRate) => sum + learningRate, 0) / own.length;
  const weight = known ? own.length / (own.length + OWN_AGAINST_STUDIO) : 1;
  const perDay = weight * mean + (1 - weight) * studio.perDay;
  const variance = own.reduce((sum, learningRate) => sum + (learningRate - mean) ** 2, 0) / Math.max(1, own.length - 1);
  const spread = known ? studio.spread : Math.sqrt(variance);
  return { perDay, spread: Math.max(perDay / 4, spread) };
}

function bestByDay(history: readonly DatedResult[]): ReadonlyMap<string, number> {
  const best = new Map<string, number>();
  for (const result of history) {
    const { day, bpm, outcome } = result;
    if (outcome === 'clean' && isWhole(result)) best.set(day, Math.max(best.get(day) ?? 0, bpm));
  }
  return best;
}

interface Line {
  /** Height today, and its rise a day with its standard deviation. */
  readonly now: number;
  readonly perDay: number;
  readonly doubt: number;
}

/** A straight line through heights over days, its slope drawn toward the prior. Source: Bayesian linear regression. */
function follow(points: readonly { readonly at: number; readonly height: number }[], prior: LearningRate): Line {
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [at, height] = [mean(points.map((point) => point.at)), mean(points.map((point) => point.height))];
  const spread = points.reduce((sum, point) => sum + (point.at - at) ** 2, 0);
  const rise = points.reduce((sum, point) => sum + (point.at - at) * (point.height - height), 0);
  const precision = spread / STRAY ** 2 + 1 / prior.spread ** 2;
  const perDay = (rise / STRAY ** 2 + prior.perDay / prior.spread ** 2) / precision;
  const newest = Math.max(...points.map((point) => point.at));
  // Nothing is gained on days without practice: the line is read where practice ended.
  return { now: height + perDay * (newest - at), perDay, doubt: 1 / Math.sqrt(precision) };
}

function reachedAt(today: string): Forecast {
  return { early: today, middle: today, late: today, chanceBy: (day) => (day >= today ? 1 : 0) };
}

/** Later than this nobody plans, days. */
const MAX_DAYS = 3650;

/** The standard normal distribution. Source: Abramowitz & Stegun 26.2.17, error under 7.5e-8. */
export function normal(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}
