import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DateTime } from 'luxon';
import rrule from 'rrule';
import {
  agendaFor,
  checkRule,
  costOf,
  lessonDates,
  MAX_LESSONS,
  NO_CHANGES,
  overlapsOf,
  planSeries,
  type AgendaPiece,
  type LessonRule,
  type SeriesPiece,
} from '../src/series/index.ts';

const rule = (more: Partial<LessonRule> = {}): LessonRule => ({
  firstDay: '1997-09-02',
  time: '09:00',
  minutes: 45,
  everyWeeks: 1,
  weekdays: [],
  count: 10,
  until: null,
  ...more,
});
const NEW_YORK = 'America/New_York';
const days = (some: Partial<LessonRule>) =>
  lessonDates(rule(some), NO_CHANGES, NEW_YORK).map(({ day }) => day.slice(5));

describe('the days of a rule', () => {
  // Source: the worked examples of RFC 5545 §3.8.5.3, all from 1997 at nine in the morning in New York, from memory.
  test.each<[string, Partial<LessonRule>, string]>([
    ['weekly for 10 occurrences', { count: 10 }, '09-02 09-09 09-16 09-23 09-30 10-07 10-14 10-21 10-28 11-04'],
    [
      'weekly until 24 December 1997',
      { count: null, until: '1997-12-23' },
      '09-02 09-09 09-16 09-23 09-30 10-07 10-14 10-21 10-28 11-04 11-11 11-18 11-25 12-02 12-09 12-16 12-23',
    ],
    ['every other week', { everyWeeks: 2, count: 8 }, '09-02 09-16 09-30 10-14 10-28 11-11 11-25 12-09'],
    [
      'weekly on Tuesday and Thursday for five weeks',
      { weekdays: [2, 4], count: 10 },
      '09-02 09-04 09-09 09-11 09-16 09-18 09-23 09-25 09-30 10-02',
    ],
    [
      'every other week on Monday, Wednesday and Friday until 24 December 1997, from Monday 1 September',
      { firstDay: '1997-09-01', everyWeeks: 2, weekdays: [1, 3, 5], count: null, until: '1997-12-23' },
      '09-01 09-03 09-05 09-15 09-17 09-19 09-29 10-01 10-03 10-13 10-15 10-17 10-27 10-29 10-31 11-10 11-12 11-14 11-24 11-26 11-28 12-08 12-10 12-12 12-22',
    ],
    [
      'every other week on Tuesday and Thursday, for 8 occurrences',
      { everyWeeks: 2, weekdays: [2, 4], count: 8 },
      '09-02 09-04 09-16 09-18 09-30 10-02 10-14 10-16',
    ],
  ])('%s', (_, some, wanted) => expect(days(some).join(' ')).toBe(wanted));

  // Source: rrule 2.8, another implementation of RFC 5545, which the product does not use.
  test('are those of another implementation of the standard, whatever the rule', () => {
    const { RRule } = rrule;
    const BY_ISO = [RRule.MO, RRule.TU, RRule.WE, RRule.TH, RRule.FR, RRule.SA, RRule.SU];
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 800 }),
        fc.integer({ min: 1, max: 5 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { maxLength: 4 }),
        fc.integer({ min: 1, max: 20 }),
        (later, everyWeeks, weekdays, count) => {
          const start = DateTime.fromISO('1997-09-02', { zone: 'utc' }).plus({ days: later });
          const firstDay = start.toISODate() ?? '';
          // A first day that is none of the weekdays is a lesson all the same; the standard leaves that open.
          fc.pre(weekdays.length === 0 || weekdays.includes(start.weekday));
          const theirs = new RRule({
            ...{ freq: RRule.WEEKLY, interval: everyWeeks, count, wkst: RRule.MO, dtstart: start.toJSDate() },
            ...(weekdays.length > 0 && { byweekday: weekdays.flatMap((day) => BY_ISO[day - 1] ?? []) }),
          });
          const ours = lessonDates(rule({ firstDay, everyWeeks, weekdays, count }), NO_CHANGES, NEW_YORK);
          expect(ours.map(({ day }) => day)).toEqual(theirs.all().map((date) => date.toISOString().slice(0, 10)));
        },
      ),
    );
  });

  // Source: the same examples give EDT before and EST after the end of daylight saving on 26 October 1997.
  test('keep the time on the wall when clocks change', () => {
    const lessons = lessonDates(rule({ count: 9 }), NO_CHANGES, NEW_YORK);
    expect(lessons[7]?.startsAt).toBe('1997-10-21T13:00:00Z');
    expect(lessons[8]?.startsAt).toBe('1997-10-28T14:00:00Z');
  });

  // Source: the tz database as the runtime carries it; Oslo skips 02:00-03:00 on 29 March 2026 and has it twice on 25 October.
  test('a time that a clock change leaves out is later, one that comes twice is the first', () => {
    const at = (firstDay: string) =>
      lessonDates(rule({ firstDay, time: '02:30', count: 1 }), NO_CHANGES, 'Europe/Oslo')[0];
    expect(at('2026-03-29')).toMatchObject({ time: '03:30', startsAt: '2026-03-29T01:30:00Z' });
    expect(at('2026-10-25')).toMatchObject({ time: '02:30', startsAt: '2026-10-25T00:30:00Z' });
    expect(at('2026-10-25')?.endsAt).toBe('2026-10-25T01:15:00Z');
  });
});

describe('what is different about single lessons', () => {
  const changes = {
    skips: ['1997-09-09'],
    moves: [{ from: '1997-09-16', day: '1997-09-18', time: '16:30' }],
    extras: [{ day: '1997-09-06', time: '11:00' }],
  };
  const lessons = lessonDates(rule({ count: 4 }), changes, NEW_YORK);
  test('skipped, moved and made up, in the order of the clock', () =>
    expect(lessons.map(({ day, time, why }) => `${day} ${time} ${why}`)).toEqual([
      '1997-09-02 09:00 rule',
      '1997-09-06 11:00 extra',
      '1997-09-18 16:30 moved',
      '1997-09-23 09:00 rule',
    ]));
  test('an irregular series is extras alone', () =>
    expect(lessonDates(rule({ count: 0 }), { ...NO_CHANGES, extras: changes.extras }, NEW_YORK)).toHaveLength(1));
  test('lessons that overlap are found in pairs', () => {
    const early = lessonDates(rule({ time: '08:30', count: 2 }), NO_CHANGES, NEW_YORK);
    expect(overlapsOf([...lessons, ...early]).map(([a, b]) => [a.startsAt, b.startsAt])).toEqual([
      ['1997-09-02T12:30:00Z', '1997-09-02T13:00:00Z'],
    ]);
    expect(overlapsOf(lessons)).toEqual([]);
  });
});

describe('a rule that cannot be', () => {
  const wrong = (some: Partial<LessonRule>, zone = NEW_YORK) =>
    checkRule(rule(some), NO_CHANGES, zone).map(({ field }) => field);
  test.each<[string, Partial<LessonRule>, string]>([
    ['never ends', { count: null }, 'count'],
    ['ends in two ways', { until: '1998-01-01' }, 'until'],
    ['ends before it begins', { count: null, until: '1997-01-01' }, 'until'],
    ['is too long', { count: MAX_LESSONS + 1 }, 'count'],
    ['is too long until its day', { count: null, until: '2030-01-01' }, 'until'],
    ['begins on no day', { firstDay: '1997-02-30' }, 'firstDay'],
    ['begins at no time', { time: '25:00' }, 'time'],
    ['takes no time', { minutes: 0 }, 'minutes'],
    ['has an eighth day', { weekdays: [8] }, 'weekdays'],
    ['comes every no weeks', { everyWeeks: 0 }, 'everyWeeks'],
  ])('one that %s', (_, some, field) => expect(wrong(some)).toEqual([field]));
  test('a zone that does not exist', () => expect(wrong({}, 'Mars/Olympus')).toEqual(['zone']));
  test('is refused where dates are made of it', () =>
    expect(() => lessonDates(rule({ count: null }), NO_CHANGES, NEW_YORK)).toThrow('A series ends'));
  test('changes to days that do not exist', () => {
    const changes = {
      skips: ['soon'],
      moves: [{ from: 'x', day: '1997-09-18', time: '9' }],
      extras: [{ day: '', time: '' }],
    };
    expect(checkRule(rule(), changes, NEW_YORK).map(({ field }) => field)).toEqual(['skips', 'moves', 'extras']);
  });
});

describe('pieces spread over lessons', () => {
  const piece = (id: string, minutes: number, more: Partial<SeriesPiece> = {}): SeriesPiece => ({
    id,
    minutes,
    needs: [],
    fixed: null,
    ...more,
  });
  const rooms = (...minutes: readonly number[]) => minutes.map((roomMinutes) => ({ roomMinutes }));
  const placed = (pieces: readonly SeriesPiece[], ...room: readonly number[]) => {
    const plan = planSeries(pieces, rooms(...room));
    return plan && pieces.map(({ id }) => plan.lessonOf.get(id));
  };

  test('evenly, in their order', () => {
    const pieces = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => piece(id, 10));
    expect(placed(pieces, 30, 30, 30)).toEqual([0, 0, 1, 1, 2, 2]);
    expect(planSeries(pieces, rooms(30, 30, 30))).toMatchObject({ loads: [20, 20, 20], cost: 0, over: [] });
  });
  test('a join waits at least a lesson for its phrases', () => {
    const pieces = [piece('a', 10), piece('b', 10), piece('a-b', 5, { needs: ['a', 'b'] })];
    expect(placed(pieces, 30, 30)).toEqual([0, 0, 1]);
    expect(planSeries(pieces, rooms(60))).toBeUndefined();
  });
  test('what was put by hand stays, and the rest goes round it', () => {
    const pieces = [piece('a', 10), piece('b', 10, { fixed: 2 }), piece('c', 10)];
    expect(placed(pieces, 30, 30, 30)).toEqual([0, 2, 1]);
    const early = [piece('a', 10, { fixed: 1 }), piece('b', 10, { fixed: 0, needs: ['a'] })];
    expect(planSeries(early, rooms(30, 30))).toBeUndefined();
  });
  test('what is over the room is told', () =>
    expect(planSeries([piece('a', 50)], rooms(30))).toMatchObject({ loads: [50], over: [0] }));
  test('no lesson is no plan, no piece is an empty one', () => {
    expect(planSeries([piece('a', 10)], [])).toBeUndefined();
    expect(planSeries([], rooms(30, 30))).toMatchObject({ loads: [0, 0], cost: 0 });
  });

  test('no way is cheaper: against trying every one', () => {
    const some = fc.array(
      fc.record({
        minutes: fc.integer({ min: 1, max: 20 }),
        need: fc.option(fc.integer({ min: 1, max: 3 })),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(some, fc.array(fc.integer({ min: 5, max: 40 }), { minLength: 1, maxLength: 3 }), (made, room) => {
        const pieces = made.map(({ minutes, need }, index) =>
          piece(`p${index}`, minutes, { needs: need !== null && index >= need ? [`p${index - need}`] : [] }),
        );
        const even = pieces.reduce((sum, { minutes }) => sum + minutes, 0) / room.length;
        let min = Infinity;
        const tryAll = (lessons: readonly number[]): void => {
          const at = lessons.length;
          if (at < pieces.length) {
            for (let lesson = lessons.at(-1) ?? 0; lesson < room.length; lesson += 1) {
              const one = pieces[at];
              const waits = one?.needs.some((id) => (lessons[Number(id.slice(1))] ?? -1) >= lesson);
              if (!waits) tryAll([...lessons, lesson]);
            }
            return;
          }
          const cost = room.reduce((sum, minutes, lesson) => {
            const load = pieces.reduce((all, one, index) => all + (lessons[index] === lesson ? one.minutes : 0), 0);
            return sum + costOf(load, { even, room: minutes });
          }, 0);
          min = Math.min(min, cost);
        };
        tryAll([]);
        const plan = planSeries(pieces, rooms(...room));
        if (min === Infinity) expect(plan).toBeUndefined();
        else expect(plan?.cost).toBeCloseTo(min, 6);
      }),
    );
  });
});

describe('the agenda of a lesson', () => {
  const piece = (id: string, more: Partial<AgendaPiece> = {}): AgendaPiece => ({
    id,
    kind: 'phrase',
    name: id,
    songId: 'song',
    next: { move: 'up', bpm: 80, percent: 100, reason: 'go up' },
    mastery: { state: 'building', reason: 'on its way', heldSince: null },
    due: null,
    share: 0.5,
    cleanBpm: 60,
    lastDay: '2026-03-10',
    isNew: false,
    ...more,
  });
  const show = piece('show', { next: { move: 'show', bpm: 100, percent: 100, reason: '' } });
  const slips = piece('slips', { mastery: { state: 'slipping', reason: 'it was clean', heldSince: null } });
  const join = piece('join', { kind: 'join' });
  const run = piece('run', { kind: 'run' });
  const fresh = piece('new', { isNew: true });
  const said = (pieces: readonly AgendaPiece[], minutes: number) =>
    agendaFor(pieces, minutes, '2026-03-14').items.map(({ kind, pieceId }) => `${kind}: ${pieceId}`);

  test('first what to hear again, then joins, new, and from the top', () =>
    expect(said([run, fresh, join, piece('plain'), slips, show], 45)).toEqual([
      'hear again: show',
      'hear again: slips',
      'hear again: plain',
      'join: join',
      'new: new',
      'from the top: run',
    ]));
  test.each([30, 45, 60])('never over %d minutes, hearing again no more than half of them', (minutes) => {
    const many = Array.from({ length: 20 }, (_, index) => piece(`p${index}`));
    const agenda = agendaFor([...many, join, fresh, run], minutes, '2026-03-14');
    expect(agenda.minutes).toBeLessThanOrEqual(minutes);
    const again = agenda.items.filter(({ kind }) => kind === 'hear again');
    expect(again.reduce((sum, item) => sum + item.minutes, 0)).toBeLessThanOrEqual(minutes / 2);
    expect(agenda.items.some(({ kind }) => kind === 'new')).toBe(true);
    expect(agenda.items.length + agenda.left.length).toBe(23);
  });
  test('no minutes are a mistake', () => expect(() => agendaFor([], 0, '2026-03-14')).toThrow('0'));
});

describe('against luxon, which carries the zones of the tz database itself', () => {
  test('a lesson begins at the first moment that shows its time, in any zone and year', () => {
    const zones = [
      'Europe/Oslo',
      'America/New_York',
      'Australia/Lord_Howe',
      'Asia/Kathmandu',
      'America/St_Johns',
      'Africa/Casablanca',
      'Pacific/Apia',
      'UTC',
    ];
    const moment = fc.record({
      day: fc.integer({ min: 0, max: 20_000 }),
      minute: fc.integer({ min: 0, max: 1439 }),
      zone: fc.constantFrom(...zones),
    });
    fc.assert(
      fc.property(moment, ({ day, minute, zone }) => {
        const shown = DateTime.fromMillis(Date.UTC(2000, 0, 1 + day, 0, minute), { zone: 'utc' });
        const time = shown.toFormat('HH:mm');
        const only = { skips: [], moves: [], extras: [{ day: shown.toISODate() ?? '', time }] };
        const [lesson] = lessonDates({ ...rule(), count: 0 }, only, zone);
        const [first] = DateTime.fromISO(`${shown.toISODate() ?? ''}T${time}`, { zone }).getPossibleOffsets();
        expect(lesson).toMatchObject({
          day: first?.toISODate(),
          time: first?.toFormat('HH:mm'),
          startsAt: first?.toUTC().toISO({ suppressMilliseconds: true }),
        });
      }),
      { numRuns: 1500 },
    );
  });
});
