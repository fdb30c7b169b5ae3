import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chanceOfAll, dueAgain, dueOn, forecastFresh, TOGETHER, type DatedResult } from '../src/progress/index.ts';
import { estimateWork, type DoneWork, type WorkRequest } from '../src/desk/index.ts';
import { linear } from 'regression';

const chance = fc.double({ min: 0.02, max: 0.98, noNaN: true });

describe('the chance that all of it is ready', () => {
  test('lies between each its own way and all as one', () => {
    fc.assert(
      fc.property(fc.array(chance, { minLength: 2, maxLength: 8 }), (chances) => {
        const all = chanceOfAll(chances);
        const product = chances.reduce((sum, one) => sum * one, 1);
        expect(all).toBeGreaterThanOrEqual(product - 1e-3);
        expect(all).toBeLessThanOrEqual(Math.min(...chances) + 1e-3);
      }),
    );
  });
  test('is the product where nothing is shared, and the smallest where all is', () => {
    expect(chanceOfAll([0.5, 0.4, 0.9], 0)).toBeCloseTo(0.18, 3);
    expect(chanceOfAll([0.5, 0.4, 0.9], 1)).toBeCloseTo(0.4, 2);
  });
  // Two even chances with a shared half: 1/4 + asin(ρ)/(2π), Sheppard 1899 (from memory).
  test('of two even chances is what the bivariate normal distribution has', () =>
    expect(chanceOfAll([0.5, 0.5])).toBeCloseTo(0.25 + Math.asin(TOGETHER) / (2 * Math.PI), 4));
  test('is not changed by what is certain, is none with what cannot be, and certain for nothing', () => {
    expect(chanceOfAll([0.3, 1, 1])).toBe(0.3);
    expect(chanceOfAll([0.3, 0, 1])).toBe(0);
    expect(chanceOfAll([])).toBe(1);
    expect(() => chanceOfAll([1.2])).toThrow(RangeError);
  });
});

describe('a piece nobody has played yet', () => {
  const fresh = (more: object = {}) =>
    forecastFresh({ start: 60, target: 120, begins: '2026-03-14', prior: { perDay: 0.012, spread: 0.006 }, ...more });
  test('takes about its gap divided by the pace of others, and more is always later', () => {
    const { early, middle, late, chanceBy } = fresh();
    expect([early < middle, middle < late]).toEqual([true, true]);
    // ln 2 ÷ 0.012 is 58 days.
    expect(middle > '2026-05-01' && middle < '2026-06-01').toBe(true);
    expect(chanceBy('2026-03-14')).toBe(0);
    expect(chanceBy('2026-05-01')).toBeLessThan(chanceBy('2026-07-01'));
    expect(fresh({ begins: '2026-04-14' }).middle > middle).toBe(true);
  });
  test('that begins at its target is there', () => expect(fresh({ start: 120 }).middle).toBe('2026-03-14'));
});

describe('what is remembered', () => {
  test('is the same whether computed from the results or from what was kept of them', () => {
    const day = (index: number) => `2026-03-${String(index).padStart(2, '0')}`;
    const history = [1, 3, 7].map((index): DatedResult => ({
      bpm: 120,
      outcome: 'clean',
      medium: 'ink',
      percent: 100,
      day: day(index),
    }));
    const due = dueAgain(history, 120, '2026-03-30');
    if (!due) throw new Error('a piece clean at its target is due some day');
    const { recall, ...memory } = due;
    expect(dueOn(memory, '2026-03-30').recall).toBe(recall);
    expect(dueOn(memory, '2026-04-30').recall).toBeLessThan(recall);
  });
});

describe('minutes of work from the studio’s own past', () => {
  const request = (parts: number): WorkRequest => ({ parts, layers: 1, seconds: null, density: null, certainty: null });
  const done = (parts: number, minutes: number): DoneWork => ({ request: request(parts), minutes });

  test('without a past a part takes the plain minutes, in a wide range', () =>
    expect(estimateWork(request(2))).toMatchObject({ minutes: 90, from: 0 }));

  test('with much of a past it is the least-squares line through its logarithms', () => {
    // The package regression is the other computing; priors weigh nothing against five hundred requests.
    const past = Array.from({ length: 500 }, (_, index) => {
      const parts = 1 + (index % 6);
      return done(parts, 45 * parts * 1.4 * (parts / 2) ** 0.3 * (index % 2 === 0 ? 1.1 : 1 / 1.1));
    });
    const points = past.map(({ request: { parts }, minutes }): [number, number] => [
      Math.log(45 * parts),
      Math.log(minutes),
    ]);
    const line = linear(points, { precision: 9 });
    for (const parts of [1, 3, 6]) {
      const [, height] = line.predict(Math.log(45 * parts));
      expect(estimateWork(request(parts), past).minutes / Math.exp(height)).toBeCloseTo(1, 1);
    }
  });

  test('its range holds about 8 in 10 of what comes next', () => {
    let seed = 7;
    const random = () => {
      seed = (seed * 48271) % 2147483647;
      return seed / 2147483647;
    };
    const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
    let inside = 0;
    const rounds = 1500;
    for (let round = 0; round < rounds; round += 1) {
      const bias = 0.4 * normal();
      const take = (parts: number) => 45 * parts * Math.exp(bias + 0.45 * normal());
      const past = Array.from({ length: 4 }, (_, index) => done(1 + index, take(1 + index)));
      const { low, high } = estimateWork(request(2), past);
      const actual = take(2);
      if (actual >= low && actual <= high) inside += 1;
    }
    expect(inside / rounds).toBeGreaterThan(0.72);
    expect(inside / rounds).toBeLessThan(0.88);
  });

  test('a request nobody has listened to is compared to the past as it looked before', () => {
    const heard: WorkRequest = { parts: 2, layers: 1, seconds: 20, density: 8, certainty: 0.5 };
    expect(estimateWork(request(2), [{ request: heard, minutes: 90 }]).minutes).toBe(90);
  });
});
