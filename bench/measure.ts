import { readFile } from 'node:fs/promises';

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
  const [first, second] = await timesInTurn([one, other], turns, 10);
  return [first?.median ?? NaN, second?.median ?? NaN];
}

/** Times of some things that take turns; the first turns are to warm up and do not count. */
export async function timesInTurn(
  works: readonly (() => unknown)[],
  turns: number,
  warm: number,
): Promise<readonly Timing[]> {
  const times = works.map((): number[] => []);
  for (let turn = -warm; turn < turns; turn += 1)
    for (const [index, work] of works.entries()) {
      const from = performance.now();
      await work();
      if (turn >= 0) times[index]?.push(performance.now() - from);
    }
  return times.map(timingOf);
}

/** Bytes that a process has for itself, as the system counts them. */
export async function bytesOf(pid: number): Promise<number> {
  const status = await readFile(`/proc/${pid}/status`, 'utf8');
  return 1024 * Number(/RssAnon:\s+(\d+)/.exec(status)?.[1] ?? 0);
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
