import { describe, expect, test } from '@jest/globals';
import { useLessonClock } from '../src/lessons/useLessonClock.ts';

describe('the clock of a lesson', () => {
  test('counts while it runs, halts, goes on, and never back', () => {
    let now = 1_000_000;
    const clock = useLessonClock(() => now);
    expect(clock.text.value).toBe('0:00');
    clock.toggle();
    now += 65_000;
    clock.toggle();
    expect([clock.text.value, clock.runs.value]).toEqual(['1:05', false]);
    now += 500_000;
    clock.toggle();
    now -= 700_000;
    clock.toggle();
    expect(clock.text.value).toBe('1:05');
  });
});
