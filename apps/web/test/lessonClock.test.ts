import { describe, expect, test } from '@jest/globals';
import { nextTick, ref } from 'vue';
import { useLessonClock } from '../src/lessons/useLessonClock.ts';

describe('the clock of a lesson', () => {
  test('counts while it runs, halts, goes on, and never back', () => {
    let now = 1_000_000;
    const clock = useLessonClock(
      () => 'ines today',
      () => now,
    );
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

  test('of another lesson begins at nothing; while none is known nothing runs', async () => {
    let now = 1_000_000;
    const lesson = ref('');
    const clock = useLessonClock(
      () => lesson.value,
      () => now,
    );
    clock.toggle();
    expect(clock.runs.value).toBe(false);
    lesson.value = 'ines today';
    await nextTick();
    clock.toggle();
    now += 65_000;
    lesson.value = '';
    await nextTick();
    lesson.value = 'ines today';
    await nextTick();
    expect(clock.runs.value).toBe(true);
    lesson.value = 'pia today';
    await nextTick();
    expect([clock.text.value, clock.runs.value]).toEqual(['0:00', false]);
  });
});
