import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createEmptyCard, fsrs, Rating } from 'ts-fsrs';
import { dueAgain, lastLesson, masteryOf, sinceLesson, songProgress, type DatedResult } from '../src/progress/index.ts';

const TARGET = 100;
const on = (
  day: string,
  bpm: number,
  outcome: DatedResult['outcome'] = 'clean',
  medium: DatedResult['medium'] = 'pencil',
) => ({
  day,
  bpm,
  outcome,
  medium,
});
const state = (...history: readonly DatedResult[]) => masteryOf(history, TARGET).state;

describe('what is really held', () => {
  test.each([
    ['nothing posted', [], 'not begun'],
    ['on the way', [on('2026-03-01', 80)], 'building'],
    ['at the target at home', [on('2026-03-01', 100)], 'at target in pencil'],
    ['at the target in a lesson', [on('2026-03-01', 100, 'clean', 'ink')], 'at target in ink'],
    [
      'again the day after',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-02', 100, 'clean', 'ink')],
      'at target in ink',
    ],
    [
      'again in a lesson after days away',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-08', 100, 'clean', 'ink')],
      'held',
    ],
    [
      'again once at home after days away',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-08', 100)],
      'at target in ink',
    ],
    [
      'again twice at home',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-08', 100), on('2026-03-10', 101)],
      'held',
    ],
    ['at home first, then in a lesson', [on('2026-03-01', 100), on('2026-03-06', 100, 'clean', 'ink')], 'held'],
    ['only ever at home', [on('2026-03-01', 100), on('2026-03-06', 100), on('2026-03-12', 100)], 'at target in pencil'],
    [
      'missed at the target since',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-08', 99, 'not-yet')],
      'slipping',
    ],
    [
      'missed slower since',
      [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-08', 70, 'not-yet')],
      'at target in ink',
    ],
  ] as const)('%s', (_, history, is) => expect(state(...history)).toBe(is));

  test('it says since when', () =>
    expect(masteryOf([on('2026-03-01', 100), on('2026-03-06', 100, 'clean', 'ink')], TARGET).heldSince).toBe(
      '2026-03-06',
    ));

  test('one more clean take at the target never makes it worse', () => {
    const order = ['not begun', 'building', 'slipping', 'at target in pencil', 'at target in ink', 'held'];
    const result = fc.record({
      day: fc.integer({ min: 1, max: 28 }).map((day) => `2026-03-${String(day).padStart(2, '0')}`),
      bpm: fc.integer({ min: 50, max: 110 }),
      outcome: fc.constantFrom('clean' as const, 'not-yet' as const),
      medium: fc.constantFrom('ink' as const, 'pencil' as const),
    });
    fc.assert(
      fc.property(fc.array(result, { maxLength: 12 }), (results) => {
        const history = results.toSorted((a, b) => (a.day < b.day ? -1 : 1));
        const before = order.indexOf(state(...history));
        const after = order.indexOf(state(...history, on('2026-03-31', 100, 'clean', 'ink')));
        expect(after).toBeGreaterThanOrEqual(before);
      }),
    );
  });
});

describe('due again', () => {
  test('not before the target was reached', () => {
    expect(dueAgain([], TARGET, '2026-03-01')).toBeNull();
    expect(dueAgain([on('2026-03-01', 90)], TARGET, '2026-03-02')).toBeNull();
    expect(dueAgain([on('2026-03-01', 100, 'not-yet')], TARGET, '2026-03-02')).toBeNull();
  });

  // Source: the package ts-fsrs 5.4 itself, asked directly for the same reviews.
  test('as the scheduler of the package says', () => {
    const scheduler = fsrs({ enable_fuzz: false, enable_short_term: false });
    const days = ['2026-03-01', '2026-03-05', '2026-03-20'];
    let card = createEmptyCard(new Date('2026-03-01T12:00:00Z'));
    for (const day of days) card = scheduler.next(card, new Date(`${day}T12:00:00Z`), Rating.Good).card;
    const history = days.map((day) => on(day, 100, 'clean', 'ink'));
    expect(dueAgain(history, TARGET, '2026-03-21')?.day).toBe(card.due.toISOString().slice(0, 10));
  });

  // Source: what spaced review is for, common practice.
  test('intervals grow while it stays clean, shrink after a miss, and ink lasts longer than pencil', () => {
    const interval = (...history: readonly DatedResult[]) => dueAgain(history, TARGET, '2026-04-30')?.intervalDays ?? 0;
    const ink = (day: string) => on(day, 100, 'clean', 'ink');
    const once = interval(ink('2026-03-01'));
    const twice = interval(ink('2026-03-01'), ink('2026-03-04'));
    const thrice = interval(ink('2026-03-01'), ink('2026-03-04'), ink('2026-03-14'));
    expect(once).toBeGreaterThanOrEqual(1);
    expect(twice).toBeGreaterThan(once);
    expect(thrice).toBeGreaterThan(twice);
    const missed = interval(ink('2026-03-01'), ink('2026-03-04'), on('2026-03-14', 100, 'not-yet', 'ink'));
    expect(missed).toBeLessThan(twice);
    expect(interval(on('2026-03-01', 100), on('2026-03-04', 100))).toBeLessThan(twice);
  });

  test('it fades with the days, and the same history always gives the same answer', () => {
    const history = [on('2026-03-01', 100, 'clean', 'ink'), on('2026-03-06', 100, 'clean', 'ink')];
    const recall = (today: string) => dueAgain(history, TARGET, today)?.recall ?? 0;
    expect(recall('2026-03-07')).toBeGreaterThan(recall('2026-03-20'));
    expect(recall('2026-03-20')).toBeGreaterThan(recall('2026-06-20'));
    expect(dueAgain(history, TARGET, '2026-03-20')).toEqual(dueAgain(history, TARGET, '2026-03-20'));
  });
});

describe('a whole song', () => {
  test('by the length of its pieces', () => {
    const parts = [
      { length: 4, share: 1, state: 'held' as const },
      { length: 2, share: 1, state: 'at target in pencil' as const },
      { length: 2, share: 0.85, state: 'building' as const },
      { length: 2, share: 0.6, state: 'building' as const },
    ];
    expect(songProgress(parts)).toEqual({ held: 0.4, full: 0.6, at80: 0.8, at60: 1 });
    expect(songProgress([])).toEqual({ held: 0, full: 0, at80: 0, at60: 0 });
  });
});

describe('since the last lesson', () => {
  const history = [
    on('2026-03-01', 80, 'clean', 'ink'),
    on('2026-03-03', 86),
    on('2026-03-04', 92, 'not-yet'),
    on('2026-03-05', 90),
  ];
  test('is the last day in ink, of all pieces', () => {
    expect(lastLesson([history, [on('2026-03-02', 60, 'not-yet', 'ink')]])).toBe('2026-03-02');
    expect(lastLesson([[on('2026-03-02', 60)]])).toBeUndefined();
  });
  test('what was reached after it, against what stood before', () => {
    expect(sinceLesson(history, '2026-03-01')).toEqual({ before: 80, since: 90, results: 3, misses: 1 });
    expect(sinceLesson(history, '2026-03-05')).toEqual({ before: 90, since: null, results: 0, misses: 0 });
  });
});
