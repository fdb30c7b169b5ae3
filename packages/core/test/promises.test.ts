import { describe, expect, test } from '@jest/globals';
import { promisesOf, type OpenWork } from '../src/desk/index.ts';

// The fourteenth of March 2026 is a Saturday.
const SATURDAY = '2026-03-14';
const MONDAY = '2026-03-16';
const work = (id: string, more: Partial<OpenWork> = {}): OpenWork => ({
  id,
  title: id,
  minutesLeft: 90,
  due: null,
  instalments: [],
  ...more,
});
const hours = { today: MONDAY, workMinutes: 300 };

describe('requests against the hours of the studio', () => {
  test('an hour and a half is done on Tuesday with an hour a day', () =>
    expect(promisesOf([work('a', { due: '2026-03-20' })], hours).byId.get('a')).toEqual({
      minutesLeft: 90,
      doneOn: '2026-03-17',
      earliest: '2026-03-17',
      isInTime: true,
    }));
  test('nothing is worked on a Saturday', () =>
    expect(promisesOf([work('a')], { ...hours, today: SATURDAY }).byId.get('a')?.doneOn).toBe('2026-03-17'));
  test('what is due first comes first, and what cannot be met says when it would be', () => {
    const { byId } = promisesOf([work('later', { due: '2026-03-18' }), work('soon', { due: '2026-03-17' })], hours);
    expect(byId.get('soon')).toMatchObject({ doneOn: '2026-03-17', isInTime: true });
    expect(byId.get('later')).toMatchObject({ doneOn: '2026-03-18', isInTime: true });
    const three = promisesOf(
      ['x', 'y', 'z'].map((id) => work(id, { due: '2026-03-18' })),
      hours,
    ).byId;
    expect([...three.values()].filter(({ isInTime }) => !isInTime)).toHaveLength(1);
  });
  test('without hours nothing can be promised', () =>
    expect(promisesOf([work('a')], { ...hours, workMinutes: 0 }).byId.get('a')).toMatchObject({
      doneOn: null,
      earliest: null,
      isInTime: false,
    }));
  test('a week with more than its hours says what to move, the latest due first', () => {
    const many = ['a', 'b', 'c', 'd'].map((id, index) => work(id, { due: `2026-03-${17 + index}` }));
    const [week, next] = promisesOf(many, hours).weeks;
    expect(week).toEqual({ from: MONDAY, minutes: 360, room: 300, over: ['d'] });
    expect(next).toMatchObject({ minutes: 0, over: [] });
  });
  test('parts handed out lesson by lesson are each due at their lesson, so that other work fits between', () => {
    const other = work('other', { due: '2026-03-18', minutesLeft: 120 });
    const whole = promisesOf([work('song', { due: '2026-03-17', minutesLeft: 120 }), other], hours).byId;
    expect(whole.get('other')).toMatchObject({ doneOn: '2026-03-19', isInTime: false });
    const parted = work('song', { due: '2026-03-17', minutesLeft: 120, instalments: ['2026-03-24', '2026-03-17'] });
    const { byId } = promisesOf([parted, other], hours);
    expect(byId.get('other')).toMatchObject({ doneOn: '2026-03-18', isInTime: true });
    expect(byId.get('song')).toMatchObject({ doneOn: '2026-03-19', isInTime: true });
  });
  test('an instalment whose lesson is over is late, whatever comes after it', () =>
    expect(
      promisesOf([work('song', { instalments: ['2026-03-10', '2026-04-20'] })], hours).byId.get('song')?.isInTime,
    ).toBe(false));
});
