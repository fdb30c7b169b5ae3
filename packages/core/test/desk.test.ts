import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  estimateWork,
  promiseDate,
  scheduleByDue,
  scheduleInOrder,
  weekLoads,
  type QueuedWork,
  type WorkRequest,
} from '../src/desk/index.ts';
import { randomFrom } from './learners.ts';

const request = (more: Partial<WorkRequest> = {}): WorkRequest => ({
  parts: 2,
  layers: 1,
  seconds: null,
  density: null,
  certainty: null,
  ...more,
});

describe('minutes a request will take', () => {
  test('by plain computing where the studio has no past', () => {
    const { minutes, low, high, from } = estimateWork(request());
    expect([minutes, from]).toEqual([90, 0]);
    expect(low).toBeLessThan(minutes);
    expect(high).toBeGreaterThan(minutes);
  });
  test('more for two guitars, for more notes, for what is not sure', () => {
    const plain = estimateWork(request({ seconds: 60, density: 4, certainty: 1 })).minutes;
    expect(estimateWork(request({ seconds: 60, density: 4, certainty: 1, layers: 2 })).minutes).toBeGreaterThan(plain);
    expect(estimateWork(request({ seconds: 60, density: 9, certainty: 1 })).minutes).toBeGreaterThan(plain);
    expect(estimateWork(request({ seconds: 60, density: 4, certainty: 0.2 })).minutes).toBeGreaterThan(plain);
    expect(estimateWork(request({ seconds: 120, density: 4, certainty: 1 })).minutes).toBeGreaterThan(plain);
  });
  test('a studio that takes twice as long is believed, the more the oftener', () => {
    const past = (count: number) => Array.from({ length: count }, () => ({ request: request(), minutes: 180 }));
    const minutes = [0, 2, 20].map((count) => estimateWork(request(), past(count)).minutes);
    expect(minutes[0]).toBe(90);
    expect(minutes[1]).toBeGreaterThan(90);
    expect(minutes[2]).toBeGreaterThan(minutes[1] ?? 0);
    expect(minutes[2]).toBeLessThanOrEqual(180);
  });
  test('the range narrows with a steady past', () => {
    const steady = Array.from({ length: 30 }, () => ({ request: request(), minutes: 95 }));
    const width = ({ low, high }: { low: number; high: number }) => high / low;
    expect(width(estimateWork(request(), steady))).toBeLessThan(width(estimateWork(request())));
  });
  test('8 in 10 fall into the range, of simulated studios with a past of twenty', () => {
    const random = randomFrom(97);
    const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
    let inside = 0;
    for (let studio = 0; studio < 600; studio += 1) {
      const [bias, spread] = [0.4 * normal(), 0.3 + 0.3 * random()];
      const take = () => 90 * Math.exp(bias + spread * normal());
      const past = Array.from({ length: 20 }, () => ({ request: request(), minutes: take() }));
      const { low, high } = estimateWork(request(), past);
      const next = take();
      if (next >= low && next <= high) inside += 1;
    }
    expect(inside / 600).toBeGreaterThan(0.75);
    expect(inside / 600).toBeLessThan(0.87);
  });
  test('a request without parts is a mistake', () => expect(() => estimateWork(request({ parts: 0 }))).toThrow('0'));
});

const work = (id: string, minutes: number, due: number): QueuedWork => ({ id, minutes, due });
const hourADay = () => 60;
const permutations = <One>(list: readonly One[]): readonly (readonly One[])[] =>
  list.length < 2
    ? [list]
    : list.flatMap((one, index) =>
        permutations([...list.slice(0, index), ...list.slice(index + 1)]).map((rest) => [one, ...rest]),
      );

const queues = fc.array(
  fc.record({ minutes: fc.integer({ min: 10, max: 200 }), due: fc.integer({ min: 0, max: 9 }) }),
  { minLength: 1, maxLength: 5 },
);
const queueOf = (made: readonly { readonly minutes: number; readonly due: number }[]) =>
  made.map(({ minutes, due }, index) => work(`w${index}`, minutes, due));

describe('work by the day it is promised', () => {
  test('fills the minutes of each day', () => {
    const { done } = scheduleByDue([work('b', 90, 3), work('a', 60, 1)], 0, hourADay);
    expect([...done]).toEqual([
      ['a', 0],
      ['b', 2],
    ]);
  });
  test('days without hours are left out', () =>
    expect(scheduleByDue([work('a', 90, 9)], 0, (day) => (day % 7 === 5 ? 60 : 0)).done.get('a')).toBe(12));

  // Source: Jackson 1955, earliest due date first is optimal for the greatest lateness.
  test('no other order makes the latest less late', () =>
    fc.assert(
      fc.property(queues, (made) => {
        const queue = queueOf(made);
        const min = Math.min(...permutations(queue).map((order) => scheduleInOrder(order, 0, hourADay).lateDays));
        expect(scheduleByDue(queue, 0, hourADay).lateDays).toBe(min);
      }),
    ));
});

describe('the earliest honest promise', () => {
  const options = { today: 0, minutesOn: hourADay };
  test('is when it would be done, where nothing stands in its way', () =>
    expect(promiseDate([], { id: 'new', minutes: 150 }, options)).toBe(2));
  test('waits behind what was promised tightly, and goes before what has time', () => {
    expect(promiseDate([work('a', 60, 0)], { id: 'new', minutes: 60 }, options)).toBe(1);
    expect(promiseDate([work('a', 60, 5)], { id: 'new', minutes: 60 }, options)).toBe(0);
  });
  test('there is none without hours', () =>
    expect(promiseDate([], { id: 'new', minutes: 60 }, { today: 0, minutesOn: () => 0 })).toBeUndefined());

  test('no earlier day could be promised, whatever the order', () =>
    fc.assert(
      fc.property(queues, fc.integer({ min: 10, max: 200 }), (made, minutes) => {
        // Only queues whose promises can be kept: what is late already is another matter.
        const queue = queueOf(made).map((one, _, all) => {
          const end = scheduleByDue(all, 0, hourADay).done.get(one.id) ?? 0;
          return { ...one, due: Math.max(one.due, end) };
        });
        if (scheduleByDue(queue, 0, hourADay).lateDays > 0) return;
        const promised = promiseDate(queue, { id: 'new', minutes }, options);
        const can = (due: number) =>
          permutations([...queue, work('new', minutes, due)]).some(
            (order) => scheduleInOrder(order, 0, hourADay).lateDays === 0,
          );
        let earliest = 0;
        while (!can(earliest)) earliest += 1;
        expect(promised).toBe(earliest);
      }),
      { numRuns: 60 },
    ));
});

describe('how full the weeks are', () => {
  test('what is overdue counts to the first, and what is over is to move, the latest promised first', () => {
    const queue = [work('late', 60, -3), work('a', 300, 2), work('b', 200, 5), work('c', 100, 9)];
    const weeks = weekLoads(queue, { today: 0, weeks: 2, minutesOn: hourADay });
    expect(weeks).toEqual([
      { from: 0, minutes: 560, room: 420, over: ['b'] },
      { from: 7, minutes: 100, room: 420, over: [] },
    ]);
  });
});
