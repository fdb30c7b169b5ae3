/** Times in milliseconds, of many runs. */
export interface Timing {
  readonly median: number;
  /** 95th percentile. */
  readonly p95: number;
}

/** One line of the figures: what was measured, what it should be, and a yardstick from the same run. */
export interface Figure {
  readonly what: string;
  readonly measured: string;
  readonly target: string;
  readonly met: boolean | null;
  readonly yardstick: string;
  readonly ratio: string;
}

/** A line of the figures. */
export function figure(
  what: string,
  measured: string,
  target: string,
  met: boolean,
  yardstick: string,
  ratio = '',
): Figure {
  return { what, measured, target, met, yardstick, ratio };
}

/** A share as it is printed. */
export const share = (value: number, digits = 1) => `${(100 * value).toFixed(digits)} %`;

/** Runs something often enough to be sure of it, after warming up, and tells how long it took. */
export async function time(work: () => unknown, runs = 60): Promise<Timing> {
  for (let run = 0; run < Math.min(20, runs); run += 1) await work();
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  return timingOf(times);
}

/** Median milliseconds of two things that take turns, so that a machine that is slow for a while is so for both. */
export async function inTurn(one: () => unknown, other: () => unknown, turns = 21): Promise<readonly [number, number]> {
  const times: [number[], number[]] = [[], []];
  for (let turn = -5; turn < turns; turn += 1)
    for (const [index, work] of [one, other].entries()) {
      const from = performance.now();
      await work();
      if (turn >= 0) times[index]?.push(performance.now() - from);
    }
  return [timingOf(times[0]).median, timingOf(times[1]).median];
}

/** The median and the 95th percentile of some times. */
export function timingOf(times: readonly number[]): Timing {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? 0;
  return { median: at(0.5), p95: at(0.95) };
}

/** Milliseconds as they are read. */
export function ms(value: number): string {
  return `${value < 10 ? value.toFixed(2) : value.toFixed(0)} ms`;
}

/** How many times longer or more one number is than another. */
export function ratio(value: number, yardstick: number): string {
  return `${(value / yardstick).toPrecision(2)} ×`;
}
