import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  closedDays,
  costOf,
  leaveOut,
  lessonDates,
  moveLesson,
  MOVED_COST,
  NO_CHANGES,
  planSeries,
  replanSeries,
  roomForNew,
  type LessonRule,
  type PieceToBegin,
  type SeriesPiece,
} from '../src/series/index.ts';

const piece = (id: string, more: Partial<PieceToBegin> = {}): PieceToBegin => ({
  id,
  name: id,
  minutes: 8,
  needs: [],
  lesson: null,
  waitsFor: null,
  ...more,
});
const lessons = (...days: readonly string[]) => days.map((day) => ({ day, roomMinutes: 20 }));
/** After the first lesson. */
const TODAY = '2026-03-22';
const [FIRST, SECOND, THIRD] = ['2026-03-21', '2026-03-28', '2026-04-04'];
const at = (day: string, fixed = false) => ({ lesson: { day, fixed } });
const moves = (pieces: readonly PieceToBegin[], days: readonly string[]) =>
  replanSeries(pieces, lessons(...days), TODAY)?.moves.map(({ id, from, to, why }) => [id, from, to, why]);

/** Every way to put pieces into lessons: those put by hand where they are, the others in their order, each after what it needs. */
function everyWay(pieces: readonly SeriesPiece[], count: number): readonly (readonly number[])[] {
  let ways: readonly (readonly number[])[] = [[]];
  for (const one of pieces)
    ways = ways.flatMap((way) =>
      Array.from({ length: count }, (_, lesson) => lesson)
        .filter((lesson) => lesson >= (one.earliest ?? 0) && (one.fixed === null || one.fixed === lesson))
        .map((lesson) => [...way, lesson]),
    );
  const lessonIn = (way: readonly number[], id: string) => way[pieces.findIndex((other) => other.id === id)] ?? -1;
  return ways.filter((way) => {
    const free = way.filter((_, index) => pieces[index]?.fixed === null);
    const inOrder = free.every((lesson, index) => lesson >= (free[index - 1] ?? 0));
    return inOrder && pieces.every(({ needs }, index) => needs.every((id) => lessonIn(way, id) < (way[index] ?? 0)));
  });
}
function costOfWay(pieces: readonly SeriesPiece[], way: readonly number[], rooms: readonly number[]): number {
  const even = pieces.reduce((sum, { minutes }) => sum + minutes, 0) / rooms.length;
  const loads = rooms.map((room, lesson) => ({
    room,
    load: pieces.reduce((sum, { minutes }, index) => sum + (way[index] === lesson ? minutes : 0), 0),
  }));
  const moved = pieces.filter(({ prefer = null }, index) => prefer !== null && prefer !== way[index]).length;
  return loads.reduce((sum, { room, load }) => sum + costOf(load, { even, room }), 0) + moved * MOVED_COST;
}

describe('pieces spread over lessons anew', () => {
  test('no way costs less, with lessons accepted before, chosen by hand, and pieces that wait', () => {
    const one = fc.record({
      minutes: fc.integer({ min: 2, max: 12 }),
      prefer: fc.option(fc.integer({ min: 0, max: 2 }), { nil: null }),
      earliest: fc.integer({ min: 0, max: 1 }),
      isFixed: fc.boolean(),
      needsLast: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(one, { minLength: 1, maxLength: 5 }), fc.integer({ min: 1, max: 3 }), (made, count) => {
        const pieces = made.map(({ minutes, prefer, earliest, isFixed, needsLast }, index): SeriesPiece => {
          const place = prefer === null || prefer >= count ? null : prefer;
          const needs = needsLast && index > 0 ? [`p${index - 1}`] : [];
          return { id: `p${index}`, minutes, needs, fixed: isFixed ? place : null, prefer: place, earliest };
        });
        const rooms = Array.from({ length: count }, () => 15);
        const costs = everyWay(pieces, count).map((way) => costOfWay(pieces, way, rooms));
        const plan = planSeries(
          pieces,
          rooms.map((roomMinutes) => ({ roomMinutes })),
        );
        if (costs.length === 0) expect(plan).toBeUndefined();
        else expect(plan?.cost).toBeCloseTo(Math.min(...costs), 6);
      }),
      { numRuns: 300 },
    );
  });

  test('what was accepted and still fits stays, and is no change', () =>
    expect(
      moves([piece('a', at(FIRST)), piece('b', at(SECOND)), piece('c', at(THIRD))], [FIRST, SECOND, THIRD]),
    ).toEqual([]));

  test('after a missed lesson its pieces go to another, and say so', () =>
    expect(moves([piece('a', at(FIRST)), piece('b', at(SECOND))], [SECOND, THIRD])).toEqual([
      ['a', FIRST, SECOND, 'It was not begun then.'],
      ['b', SECOND, THIRD, 'The load stays even so.'],
    ]));

  test('what was put into a lesson by hand stays there, whatever the load', () => {
    const plan = replanSeries(
      [piece('a'), piece('b', at(SECOND, true)), piece('c')],
      lessons(FIRST, SECOND, THIRD),
      TODAY,
    );
    expect(plan?.dayOf.get('b')).toBe(SECOND);
    expect(plan?.moves.map(({ id }) => id)).toEqual(['a', 'c']);
  });

  test('one put late by hand does not hold up what comes after it, but for what needs it', () => {
    const plan = replanSeries(
      [piece('a', at(THIRD, true)), piece('b'), piece('c', { needs: ['b'] })],
      lessons(FIRST, SECOND, THIRD),
      TODAY,
    );
    expect(plan && [...plan.dayOf]).toEqual([
      ['a', THIRD],
      ['b', FIRST],
      ['c', SECOND],
    ]);
    const late = [piece('a', at(SECOND, true)), piece('b', { needs: ['a'] })];
    expect(replanSeries(late, lessons(FIRST, SECOND), TODAY)?.left).toEqual(['b']);
    const both = [piece('a', at(SECOND, true)), piece('b', { needs: ['a'], ...at(FIRST, true) })];
    expect(replanSeries(both, lessons(FIRST, SECOND), TODAY)).toBeUndefined();
  });

  test('a lesson chosen by hand that falls out is told, and the piece finds another', () =>
    expect(moves([piece('a', at(SECOND, true))], [FIRST, THIRD])?.[0]?.[3]).toBe(
      'There is no lesson on that day any more. It was put there by hand.',
    ));

  test('what needs a stuck piece waits a lesson, unless a teacher said otherwise', () => {
    const stuck = piece('b', { ...at(FIRST), waitsFor: 'a' });
    expect(moves([stuck], [FIRST, SECOND])).toEqual([['b', FIRST, SECOND, '“a” is stuck; this waits for it.']]);
    expect(moves([{ ...stuck, ...at(FIRST, true) }], [FIRST, SECOND])).toEqual([]);
  });

  test('when others are begun early, the rest moves up', () =>
    expect(
      moves([piece('c', { ...at(THIRD), minutes: 8 }), piece('d', { ...at(THIRD), minutes: 8 })], [FIRST, THIRD]),
    ).toEqual([['c', THIRD, FIRST, 'There is room earlier, since others are begun or gone.']]));

  test('with too few lessons for what is built on one another the last pieces are left', () => {
    const chain = [piece('a'), piece('b', { needs: ['a'] }), piece('c', { needs: ['b'] })];
    expect(replanSeries(chain, lessons(FIRST, SECOND), TODAY)?.left).toEqual(['c']);
    expect(replanSeries(chain, lessons(FIRST), TODAY)?.left).toEqual(['b', 'c']);
    expect(replanSeries(chain, [], TODAY)).toBeUndefined();
  });

  test('room for something new is what hearing again and talk leave, never less than the other half', () => {
    expect(roomForNew(45, 0)).toBe(40);
    expect(roomForNew(45, 3)).toBe(31);
    expect(roomForNew(45, 40)).toBe(18);
  });
});

describe('holidays of the studio', () => {
  const rule: LessonRule = {
    firstDay: '2026-03-14',
    time: '17:00',
    minutes: 45,
    everyWeeks: 1,
    weekdays: [],
    count: 5,
    until: null,
  };
  const holidays = [{ from: '2026-03-25', to: '2026-04-05', name: 'spring' }];
  const days = (changes = NO_CHANGES) =>
    lessonDates(rule, { ...changes, holidays }, 'Europe/Oslo').map(({ day }) => day);

  test('leave out the lessons of the rule that lie in them, first and last day included', () => {
    expect(days()).toEqual(['2026-03-14', '2026-03-21', '2026-04-11']);
    expect(closedDays(rule, { ...NO_CHANGES, holidays }, 'Europe/Oslo').map(({ day }) => day)).toEqual([
      '2026-03-28',
      '2026-04-04',
    ]);
    const single = [{ from: '2026-03-21', to: '2026-03-21', name: 'one day' }];
    expect(lessonDates(rule, { ...NO_CHANGES, holidays: single }, 'Europe/Oslo')).toHaveLength(4);
  });

  test('a lesson moved by hand stays where it was put, even into them; one besides the rule, too', () => {
    const moved = { ...NO_CHANGES, moves: [{ from: '2026-03-28', day: '2026-03-30', time: '10:00' }] };
    expect(days(moved)).toContain('2026-03-30');
    expect(days({ ...NO_CHANGES, extras: [{ day: '2026-04-01', time: '10:00' }] })).toContain('2026-04-01');
  });
});

describe('single lessons of a series', () => {
  const rule: LessonRule = {
    firstDay: '2026-03-14',
    time: '17:00',
    minutes: 45,
    everyWeeks: 1,
    weekdays: [],
    count: 3,
    until: null,
  };
  const of = (changes = NO_CHANGES) => lessonDates(rule, changes, 'Europe/Oslo');
  const lesson = (changes = NO_CHANGES, index = 1) => {
    const found = of(changes)[index];
    if (!found) throw new Error(`there is no lesson ${index}`);
    return found;
  };

  test('one is moved, moved again, and left out', () => {
    const once = moveLesson(NO_CHANGES, lesson(), { day: '2026-03-23', time: '10:00' });
    const twice = moveLesson(once, lesson(once), { day: '2026-03-24', time: '11:00' });
    expect(twice.moves).toEqual([{ from: '2026-03-21', day: '2026-03-24', time: '11:00' }]);
    expect(of(leaveOut(twice, lesson(twice))).map(({ day }) => day)).toEqual(['2026-03-14', '2026-03-28']);
  });

  test('one besides the rule is moved and left out without a trace', () => {
    const extra = { ...NO_CHANGES, extras: [{ day: '2026-03-17', time: '09:00' }] };
    const moved = moveLesson(extra, lesson(extra), { day: '2026-03-18', time: '09:30' });
    expect(moved).toEqual({ ...NO_CHANGES, extras: [{ day: '2026-03-18', time: '09:30' }] });
    expect(leaveOut(moved, lesson(moved))).toEqual(NO_CHANGES);
  });
});

describe('lessons that are too few', () => {
  test('leave as few pieces as may be, the last ones', () => {
    const made = fc.array(fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined }), {
      minLength: 1,
      maxLength: 12,
    });
    fc.assert(
      fc.property(made, fc.integer({ min: 1, max: 4 }), (needs, count) => {
        const pieces = needs.map((back, index) =>
          piece(`p${index}`, { needs: back !== undefined && index >= back ? [`p${index - back}`] : [] }),
        );
        const days = Array.from({ length: count }, (_, index) => `2026-04-0${index + 1}`);
        const fits = (some: readonly PieceToBegin[]) => replanSeries(some, lessons(...days), TODAY)?.left.length === 0;
        const min = pieces.findIndex((_, left) => fits(pieces.slice(0, pieces.length - left)));
        const left = replanSeries(pieces, lessons(...days), TODAY)?.left;
        expect(left).toEqual(pieces.slice(pieces.length - min).map(({ id }) => id));
      }),
      { numRuns: 200 },
    );
  });
});
