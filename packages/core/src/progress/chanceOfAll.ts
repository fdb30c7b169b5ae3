import { normal } from './forecast.ts';

/**
 * How much the pieces of one student go together, 0 each its own way to 1 all as one. Our choice: half of what speeds a piece up
 * or holds it back (practice, health, school) does so to all.
 */
export const TOGETHER = 0.5;

/** Points of the sum over what all have in common, and how far it goes, standard deviations. Our choice: error under 1e-4. */
const POINTS = 161;
const FARTHEST = 6;

/**
 * The chance that all of some things happen, from the chance of each, where they share one common cause; between the product of
 * the chances (each its own way) and the smallest (all as one). 1 for none. Linear in the chances.
 *
 * Source: the one-factor Gaussian copula (Vasicek 1987, from memory), its integral by the trapezoid rule.
 *
 * @throws RangeError for a chance outside 0 to 1
 */
export function chanceOfAll(chances: readonly number[], together: number = TOGETHER): number {
  const wrong = chances.find((chance) => !(chance >= 0 && chance <= 1));
  if (wrong !== undefined) throw new RangeError(`a chance lies between 0 and 1, not at ${wrong}`);
  const unsure = chances.filter((chance) => chance < 1);
  if (unsure.includes(0)) return 0;
  if (unsure.length < 2) return unsure[0] ?? 1;
  const thresholds = unsure.map(quantile);
  const [shared, own] = [Math.sqrt(together), Math.sqrt(Math.max(1e-9, 1 - together))];
  const step = (2 * FARTHEST) / (POINTS - 1);
  let sum = 0;
  for (let point = 0; point < POINTS; point += 1) {
    const common = -FARTHEST + point * step;
    const density = Math.exp((-common * common) / 2) / Math.sqrt(2 * Math.PI);
    sum += density * thresholds.reduce((all, threshold) => all * normal((threshold - shared * common) / own), 1);
  }
  return Math.min(1, sum * step);
}

/** Where the standard normal distribution reaches a chance, by halving; error under 1e-9. */
function quantile(chance: number): number {
  let [low, high] = [-9, 9];
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = (low + high) / 2;
    if (normal(middle) < chance) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
