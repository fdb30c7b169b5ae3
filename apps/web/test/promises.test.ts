import type { SongRequest } from '@jam-ledger/contract';
import { describe, expect, test } from '@jest/globals';
import { promisesOf } from '../src/composables/promises.ts';
import { useLessonClock } from '../src/composables/useLessonClock.ts';

// The fourteenth of March 2026 is a Saturday.
const SATURDAY = '2026-03-14';
const MONDAY = '2026-03-16';
const request = (id: string, more: Partial<SongRequest> = {}): SongRequest => ({
  id,
  version: 1,
  state: 'asked',
  title: id,
  whose: '',
  wanted: ['riff', 'solo'],
  notWanted: [],
  rendition: 'recorded',
  guitarMeant: 'the only guitar',
  guitar: '',
  wantedBy: null,
  remarks: '',
  followsId: null,
  scope: '',
  student: { id: 's', name: 'S' },
  askedAt: '2026-03-01T10:00:00Z',
  transcriptionId: null,
  part: 1,
  history: [],
  ...more,
});
const hours = { today: MONDAY, workMinutes: 300 };

describe('requests against the hours of the studio', () => {
  test('two parts take an hour and a half: done on Tuesday with an hour a day', () => {
    const promise = promisesOf([request('a', { wantedBy: '2026-03-20' })], hours).byId.get('a');
    expect(promise).toMatchObject({
      work: { minutes: 90 },
      doneOn: '2026-03-17',
      earliest: '2026-03-17',
      isInTime: true,
    });
  });
  test('nothing is worked on a Saturday', () =>
    expect(promisesOf([request('a')], { ...hours, today: SATURDAY }).byId.get('a')?.doneOn).toBe('2026-03-17'));
  test('what is wanted first comes first, and what cannot be met says when it would be', () => {
    const { byId } = promisesOf(
      [request('later', { wantedBy: '2026-03-18' }), request('soon', { wantedBy: '2026-03-17' })],
      hours,
    );
    expect(byId.get('soon')).toMatchObject({ doneOn: '2026-03-17', isInTime: true });
    expect(byId.get('later')).toMatchObject({ doneOn: '2026-03-18', isInTime: true });
    const three = promisesOf(
      ['x', 'y', 'z'].map((id) => request(id, { wantedBy: '2026-03-18' })),
      hours,
    ).byId;
    expect([...three.values()].filter(({ isInTime }) => !isInTime)).toHaveLength(1);
  });
  test('two guitars take longer; what is done or withdrawn is no work', () => {
    const both = request('both', { guitarMeant: 'blended into one' });
    expect(promisesOf([both], hours).byId.get('both')?.work.minutes).toBe(144);
    expect(
      promisesOf([request('old', { state: 'closed' }), request('off', { state: 'withdrawn' })], hours).byId.size,
    ).toBe(0);
  });
  test('without hours nothing can be promised', () =>
    expect(promisesOf([request('a')], { ...hours, workMinutes: 0 }).byId.get('a')).toMatchObject({
      doneOn: null,
      earliest: null,
      isInTime: false,
    }));
  test('a week with more than its hours says what to move, the latest wanted first', () => {
    const many = ['a', 'b', 'c', 'd'].map((id, index) => request(id, { wantedBy: `2026-03-${17 + index}` }));
    const [week, next] = promisesOf(many, hours).weeks;
    expect(week).toEqual({ from: MONDAY, minutes: 360, room: 300, over: ['d'] });
    expect(next).toMatchObject({ minutes: 0, over: [] });
  });
});

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
