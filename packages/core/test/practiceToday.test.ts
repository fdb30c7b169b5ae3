import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { practiceToday, type PracticePiece } from '../src/series/index.ts';

const TODAY = '2026-03-14';
const piece = (id: string, more: Partial<PracticePiece> = {}): PracticePiece => ({
  id,
  kind: 'phrase',
  name: id,
  songId: 'song',
  next: { move: 'up', bpm: 80, percent: 100, reason: 'go up to 80.' },
  mastery: { state: 'building', reason: '', heldSince: null },
  due: null,
  share: 0.5,
  cleanBpm: 60,
  lastDay: '2026-03-10',
  ...more,
});
const HELD = { state: 'held', reason: '', heldSince: '2026-02-01' } as const;
const kept = (id: string, dueOn: string, recall = 0.8) =>
  piece(id, {
    next: { move: 'keep', bpm: 100, percent: 100, reason: '' },
    mastery: HELD,
    due: { day: dueOn, recall },
    share: 1,
    cleanBpm: 100,
  });
const kinds = (pieces: readonly PracticePiece[], minutes: number) =>
  practiceToday(pieces, minutes, TODAY).tasks.map(({ kind, pieceIds }) => `${kind} ${pieceIds.join('+')}`.trim());

describe('today’s practice', () => {
  test('nothing assigned is nothing to plan', () =>
    expect(practiceToday([], 20, TODAY)).toEqual({ tasks: [], minutes: 0 }));

  test('what is due comes before the step that matters most', () =>
    expect(kinds([piece('riff'), kept('solo', '2026-03-12')], 20).slice(0, 3)).toEqual([
      'warm-up',
      'again solo',
      'step riff',
    ]));

  test('what is not due yet is left alone, and what slips is not', () => {
    expect(kinds([piece('riff'), kept('solo', '2026-04-01')], 10)).not.toContain('again solo');
    const slipping = {
      ...kept('solo', '2026-04-01'),
      mastery: { state: 'slipping', reason: '', heldSince: null } as const,
    };
    expect(kinds([piece('riff'), slipping], 10)).toContain('again solo');
  });

  test('the least likely to be clean still comes first', () => {
    const due = kinds([kept('a', '2026-03-01', 0.9), kept('b', '2026-03-01', 0.5)], 20).filter((task) =>
      task.startsWith('again'),
    );
    expect(due).toEqual(['again b', 'again a']);
  });

  test('what is ready to go up matters more than what came down; waiting counts', () => {
    const down = piece('stuck', { next: { move: 'down', bpm: 60, percent: 100, reason: '' } });
    expect(kinds([down, piece('riff')], 10)).toContain('step riff');
    const waiting = piece('stuck', {
      next: { move: 'down', bpm: 60, percent: 100, reason: '' },
      lastDay: '2026-02-20',
    });
    expect(kinds([waiting, piece('riff', { lastDay: TODAY })], 10)).toContain('step stuck');
  });

  test('neighbours that are nearly there are joined, songs run from the top', () => {
    const pieces = ['a', 'b', 'c'].map((id) => piece(id, { share: 0.9, cleanBpm: 90 }));
    expect(kinds(pieces, 45)).toEqual(expect.arrayContaining(['join a+b', 'join b+c', 'top a+b+c']));
    const apart = [piece('a', { share: 0.9 }), piece('b', { share: 0.9, songId: 'other' })];
    expect(kinds(apart, 45).filter((task) => task.startsWith('join'))).toEqual([]);
  });

  test('a given seam and a run from the top are steps of their own, and are not made up a second time', () => {
    const pieces = [
      ...['a', 'b', 'c'].map((id) => piece(id, { share: 0.9, cleanBpm: 90 })),
      piece('a-b', { kind: 'join' }),
      piece('all', { kind: 'run' }),
    ];
    const planned = kinds(pieces, 60);
    expect(planned).toEqual(expect.arrayContaining(['join a-b', 'top all']));
    expect(planned).not.toContain('join a+b');
    expect(planned).not.toContain('top a+b+c');
  });

  test('what is left over goes to the steps, no longer than eight minutes each', () => {
    const { tasks, minutes } = practiceToday([piece('riff'), piece('solo')], 20, TODAY);
    expect(minutes).toBe(19);
    expect(tasks.filter(({ kind }) => kind === 'step').map((task) => task.minutes)).toEqual([8, 8]);
  });

  test.each([0, 4, 91, 20.5])('%d minutes are refused', (minutes) =>
    expect(() => practiceToday([piece('a')], minutes, TODAY)).toThrow(RangeError),
  );

  test('never over the minutes, never more than ten unbroken, nothing twice, always the same', () => {
    const any = fc.record({
      kept: fc.boolean(),
      due: fc.integer({ min: 1, max: 28 }),
      share: fc.double({ min: 0, max: 1, noNaN: true }),
      move: fc.constantFrom('up' as const, 'stay' as const, 'down' as const, 'begin' as const, 'show' as const),
    });
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 15 }), fc.integer({ min: 5, max: 90 }), (some, minutes) => {
        const pieces = some.map(({ kept: isKept, due, share, move }, index) =>
          isKept
            ? kept(`p${index}`, `2026-03-${String(due).padStart(2, '0')}`)
            : piece(`p${index}`, { share, next: { move, bpm: 80, percent: 100, reason: '' } }),
        );
        const plan = practiceToday(pieces, minutes, TODAY);
        const sum = plan.tasks.reduce((all, task) => all + task.minutes, 0);
        expect(sum).toBe(plan.minutes);
        expect(sum).toBeLessThanOrEqual(minutes);
        let unbroken = 0;
        for (const { kind, minutes: long } of plan.tasks) {
          unbroken = kind === 'rest' ? 0 : unbroken + long;
          expect(unbroken).toBeLessThanOrEqual(10);
        }
        const keys = plan.tasks
          .filter(({ kind }) => kind !== 'rest')
          .map(({ kind, pieceIds }) => kind + pieceIds.join());
        expect(new Set(keys).size).toBe(keys.length);
        expect(plan.tasks.at(-1)?.kind).not.toBe('rest');
        expect(practiceToday(pieces, minutes, TODAY)).toEqual(plan);
      }),
    );
  });
});
