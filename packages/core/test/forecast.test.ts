import { describe, expect, test } from '@jest/globals';
import {
  daysBetween,
  forecast,
  learningRateOf,
  priorOf,
  type DatedResult,
  type Forecast,
} from '../src/progress/index.ts';
import { learner, randomFrom, TARGET } from './learners.ts';

const on = (day: string, bpm: number): DatedResult => ({ day, bpm, outcome: 'clean', medium: 'pencil' });
const climbing = ['2026-03-01', '2026-03-03', '2026-03-05', '2026-03-08', '2026-03-10'].map((day, index) =>
  on(day, 60 + 6 * index),
);
const says = (history: readonly DatedResult[], today: string, target = 100): Forecast => {
  const found = forecast(history, { target, today });
  if ('tooLittle' in found) throw new Error(found.tooLittle);
  return found.says;
};

describe('when the target will be reached', () => {
  /**
   * Learners of four curves, two of them published forms, with plateaus, lucky takes and weeks left out; asked at a chance
   * moment. Other learners than those the constants were chosen on.
   */
  test('the range of 80 in 100 holds for 75 to 85 in 100 simulated learners, and its middle is the middle', () => {
    const random = randomFrom(4711);
    const where = { before: 0, within: 0, after: 0, earlier: 0 };
    for (let seed = 1; seed <= 1200; seed += 1) {
      const { results, reached } = learner(seed);
      const days = [...new Set(results.map(({ day }) => day))];
      const today = days[Math.floor(days.length * (0.2 + 0.7 * random()))];
      if (today === undefined || reached === null || today >= reached) continue;
      const found = forecast(
        results.filter(({ day }) => day <= today),
        { target: TARGET, today },
      );
      if ('tooLittle' in found) continue;
      const { early, middle, late } = found.says;
      if (reached < early) where.before += 1;
      else if (reached > late) where.after += 1;
      else where.within += 1;
      if (reached < middle) where.earlier += 1;
    }
    const all = where.before + where.within + where.after;
    expect(all).toBeGreaterThan(800);
    expect(where.within / all).toBeGreaterThanOrEqual(0.75);
    expect(where.within / all).toBeLessThanOrEqual(0.85);
    expect(where.earlier / all).toBeGreaterThan(0.42);
    expect(where.earlier / all).toBeLessThan(0.58);
  });

  test('the range is in order, and the chance rises with the days to it', () => {
    const { early, middle, late, chanceBy } = says(climbing, '2026-03-10');
    expect(early < middle && middle < late).toBe(true);
    expect(chanceBy('2026-03-10')).toBe(0);
    expect(chanceBy(early)).toBeGreaterThan(0.05);
    expect(chanceBy(middle)).toBeCloseTo(0.5, 1);
    expect(chanceBy(late)).toBeGreaterThan(0.85);
    expect(chanceBy('2030-01-01')).toBeGreaterThan(0.999);
  });

  test('a higher target is reached later; the same history always gives the same answer', () => {
    expect(says(climbing, '2026-03-10', 140).middle > says(climbing, '2026-03-10').middle).toBe(true);
    expect(says(climbing, '2026-03-10').late).toBe(says(climbing, '2026-03-10').late);
  });

  test('days without practice push it on', () =>
    expect(says(climbing, '2026-03-24').middle > says(climbing, '2026-03-10').middle).toBe(true));

  test('what is reached is reached', () =>
    expect(says([...climbing, on('2026-03-12', 130)], '2026-03-12', 80).early).toBe('2026-03-12'));

  test('too little to say is said, and so is standing still', () => {
    expect(forecast(climbing.slice(0, 3), { target: 100, today: '2026-03-10' })).toEqual({
      tooLittle: 'Too little to say: 3 days with a clean take, and 4 are needed.',
    });
    const slow = { perDay: 0.0001, spread: 0.0001 };
    const still = ['2026-03-01', '2026-03-09', '2026-03-17', '2026-03-25'].map((day) => on(day, 60));
    expect(forecast(still, { target: 100, today: '2026-03-25', prior: slow })).toEqual({
      tooLittle: expect.stringContaining('stood still'),
    });
  });
});

describe('the pace of other pieces', () => {
  const learningRate = (history: readonly DatedResult[]) => learningRateOf(history) ?? NaN;
  const nobody = { perDay: 0, spread: 0, count: 0 };
  const studio = { perDay: 0.01, spread: 0.004, count: 40 };
  test('is the rise of the logarithm of tempo a day', () =>
    // From 60 to 84 in nine days.
    expect(learningRate(climbing)).toBeCloseTo(Math.log(84 / 60) / daysBetween('2026-03-01', '2026-03-10'), 9));
  test('nothing where too little is posted or nothing was gained', () => {
    expect(learningRateOf(climbing.slice(0, 3))).toBeUndefined();
    expect(learningRateOf(climbing.map((one) => ({ ...one, bpm: 60 })))).toBeUndefined();
    expect(learningRateOf(climbing.map((one) => ({ ...one, percent: 50 })))).toBeUndefined();
  });
  test('nothing is known where fewer than two pieces say anything', () => {
    expect(priorOf([], nobody)).toBeUndefined();
    expect(priorOf([0.02], nobody)).toBeUndefined();
    expect(priorOf([0.02, 0.04], nobody)?.perDay).toBeCloseTo(0.03, 9);
  });
  test('a new student comes along as the studio does, and the more of their own there is, the less', () => {
    expect(priorOf([], studio)).toEqual({ perDay: 0.01, spread: 0.004 });
    const few = priorOf([0.03], studio)?.perDay ?? NaN;
    const many =
      priorOf(
        Array.from({ length: 20 }, () => 0.03),
        studio,
      )?.perDay ?? NaN;
    expect(few).toBeGreaterThan(0.01);
    expect(few).toBeLessThan(0.02);
    expect(many).toBeGreaterThan(0.025);
    expect(many).toBeLessThan(0.03);
  });
  test('a slow studio makes a later forecast', () => {
    const slow = forecast(climbing.slice(0, 4), {
      target: 140,
      today: '2026-03-10',
      prior: { perDay: 0.002, spread: 0.001 },
    });
    const fast = forecast(climbing.slice(0, 4), {
      target: 140,
      today: '2026-03-10',
      prior: { perDay: 0.05, spread: 0.01 },
    });
    if ('tooLittle' in slow || 'tooLittle' in fast) throw new Error('both have enough to say');
    expect(slow.says.middle > fast.says.middle).toBe(true);
  });
});
