/** A point of practice: the how-many-eth practice, from 1, and what was measured then, above 0. */
export interface PracticePoint {
  readonly practice: number;
  readonly value: number;
}

/** A fitted curve. */
export interface LearningCurve {
  readonly form: 'power' | 'exponential';
  /** `scale × practice^rate` for the power law, `scale × e^(rate × practice)` for the exponential. */
  readonly scale: number;
  readonly rate: number;
  /** Share of the scatter of the logarithms that the curve explains, 0 to 1. */
  readonly fit: number;
  readonly at: (practice: number) => number;
}

/** Fewest points that a curve is laid through. Our choice. */
export const FEWEST_POINTS = 4;

/**
 * The power law of practice through some points, by least squares on both logarithms; undefined for fewer than `FEWEST_POINTS`.
 *
 * Source: Newell & Rosenbloom 1981, the log-log linear law of practice (without its asymptote).
 */
export function fitPower(points: readonly PracticePoint[]): LearningCurve | undefined {
  const line = straight(points.map(({ practice, value }) => [Math.log(practice), Math.log(value)]));
  if (!line) return undefined;
  const { height, slope, fit } = line;
  const scale = Math.exp(height);
  return { form: 'power', scale, rate: slope, fit, at: (practice) => scale * practice ** slope };
}

/**
 * The exponential through some points, by least squares on the logarithm of the value; undefined for fewer than `FEWEST_POINTS`.
 *
 * Source: Heathcote, Brown & Mewhort 2000, the exponential law of practice (without its asymptote).
 */
export function fitExponential(points: readonly PracticePoint[]): LearningCurve | undefined {
  const line = straight(points.map(({ practice, value }) => [practice, Math.log(value)]));
  if (!line) return undefined;
  const { height, slope, fit } = line;
  const scale = Math.exp(height);
  return { form: 'exponential', scale, rate: slope, fit, at: (practice) => scale * Math.exp(slope * practice) };
}

/** Of both forms the one that fits better; undefined where there are too few points. */
export function fitLearning(points: readonly PracticePoint[]): LearningCurve | undefined {
  const [power, exponential] = [fitPower(points), fitExponential(points)];
  return (exponential?.fit ?? 0) > (power?.fit ?? 0) ? exponential : power;
}

function straight(points: readonly (readonly [x: number, y: number])[]) {
  if (points.length < FEWEST_POINTS) return undefined;
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [x, y] = [mean(points.map(([one]) => one)), mean(points.map(([, one]) => one))];
  const sum = (of: (dx: number, dy: number) => number) => points.reduce((all, [px, py]) => all + of(px - x, py - y), 0);
  const wide = sum((dx) => dx * dx);
  if (wide === 0) return undefined;
  const slope = sum((dx, dy) => dx * dy) / wide;
  const scatter = sum((_, dy) => dy * dy);
  const left = sum((dx, dy) => (dy - slope * dx) ** 2);
  return { slope, height: y - slope * x, fit: scatter === 0 ? 1 : 1 - left / scatter };
}
