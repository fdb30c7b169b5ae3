import { describe, expect, test } from '@jest/globals';
import regression from 'regression';
import { createEmptyCard, fsrs, Rating, type Grade } from 'ts-fsrs';
import { fitExponential, fitLearning, fitPower, type PracticePoint } from '../src/progress/index.ts';
import { randomFrom } from './learners.ts';

/** Times of practice with some scatter, the same each time. */
function practised(of: (practice: number) => number, seed: number): readonly PracticePoint[] {
  const random = randomFrom(seed);
  return Array.from({ length: 40 }, (_, index) => ({
    practice: index + 1,
    value: of(index + 1) * (0.95 + 0.1 * random()),
  }));
}
const pairs = (points: readonly PracticePoint[]): [number, number][] =>
  points.map(({ practice, value }) => [practice, value]);

describe('learning curves', () => {
  // Source of the reference: the package regression 2.0, which fits the power law by least squares on both logarithms.
  test.each([1, 2, 3])('the power law is the one of the reference package (%d)', (seed) => {
    const points = practised((n) => 12 * n ** -0.32, seed);
    const [scale, rate] = regression.power(pairs(points), { precision: 9 }).equation;
    const own = fitPower(points);
    expect(own?.scale).toBeCloseTo(scale ?? NaN, 6);
    expect(own?.rate).toBeCloseTo(rate ?? NaN, 6);
  });

  // The reference weighs its exponential by the values, so the line through the logarithms is asked of it instead.
  test.each([4, 5, 6])('the exponential is the line of the reference package through the logarithms (%d)', (seed) => {
    const points = practised((n) => 12 * Math.exp(-0.05 * n), seed);
    const logs = points.map(({ practice, value }): [number, number] => [practice, Math.log(value)]);
    const { equation, r2 } = regression.linear(logs, { precision: 9 });
    const own = fitExponential(points);
    expect(own?.rate).toBeCloseTo(equation[0] ?? NaN, 6);
    expect(Math.log(own?.scale ?? NaN)).toBeCloseTo(equation[1] ?? NaN, 6);
    expect(own?.fit).toBeCloseTo(r2, 6);
  });

  test('what was made by a law is told by its form', () => {
    expect(fitLearning(practised((n) => 12 * n ** -0.4, 7))?.form).toBe('power');
    expect(fitLearning(practised((n) => 12 * Math.exp(-0.08 * n), 8))?.form).toBe('exponential');
  });

  test('the curve goes through what it was made of', () => {
    const exact = Array.from({ length: 10 }, (_, index) => ({ practice: index + 1, value: 3 * (index + 1) ** -0.5 }));
    const curve = fitPower(exact);
    expect(curve?.at(4)).toBeCloseTo(1.5, 9);
    expect(curve?.fit).toBeCloseTo(1, 9);
    expect(fitExponential(exact)?.at(1)).toBeGreaterThan(0);
  });

  test('too few points, or all at one time, say nothing', () => {
    expect(fitLearning([])).toBeUndefined();
    expect(fitPower([{ practice: 1, value: 2 }])).toBeUndefined();
    expect(fitExponential(Array.from({ length: 5 }, () => ({ practice: 2, value: 3 })))).toBeUndefined();
  });
});

describe('the review scheduler', () => {
  // Source: the interval history in the published tests of FSRS 6 (py-fsrs and ts-fsrs), from memory.
  test('gives the intervals published with it', () => {
    const scheduler = fsrs({ enable_fuzz: false });
    const grades: readonly Grade[] = [
      ...Array.from({ length: 6 }, (): Grade => Rating.Good),
      Rating.Again,
      Rating.Again,
      ...Array.from({ length: 5 }, (): Grade => Rating.Good),
    ];
    let card = createEmptyCard(new Date('2022-11-29T12:30:00Z'));
    let now = card.due;
    const intervals: number[] = [];
    for (const grade of grades) {
      card = scheduler.next(card, now, grade).card;
      intervals.push(card.scheduled_days);
      now = card.due;
    }
    expect(intervals).toEqual([0, 2, 11, 46, 163, 498, 0, 0, 2, 4, 7, 12, 21]);
  });
});
