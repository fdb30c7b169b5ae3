import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { nextStep, standingOf, tempoLadder, WIDEST_STEP_SHARE, type Result } from '../src/pieces/index.ts';

const school = 'even-steps' as const;
const ladder = tempoLadder({ start: 60, target: 120, school });
const clean = (bpm: number, medium: Result['medium'] = 'pencil'): Result => ({ bpm, outcome: 'clean', medium });
const missed = (bpm: number, medium: Result['medium'] = 'pencil'): Result => ({ bpm, outcome: 'not-yet', medium });

describe('the tempo ladder of even steps', () => {
  test('from 60 to 120 goes up in even whole steps', () => {
    expect(ladder.rungs).toEqual([60, 68, 75, 83, 90, 98, 105, 113, 120]);
  });

  test('begins at the start, ends at the target, and no step is too wide or uneven', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), fc.integer({ min: 20, max: 400 }), (a, b) => {
        const [start, target] = [Math.min(a, b), Math.max(a, b)];
        const { rungs } = tempoLadder({ start, target, school });
        expect([rungs[0], rungs.at(-1)]).toEqual([start, target]);
        const steps = rungs.slice(1).map((rung, index) => rung - (rungs[index] ?? 0));
        expect(Math.max(1, ...steps)).toBeLessThanOrEqual(Math.max(1, target * WIDEST_STEP_SHARE) + 1);
        expect(Math.max(1, ...steps) - Math.min(...steps, Math.max(1, ...steps))).toBeLessThanOrEqual(1);
      }),
    );
  });

  test.each([
    [130, 120, '130'],
    [0, 120, '0'],
    [60.5, 120, '60.5'],
    [60, 900, '900'],
  ])('refuses %d to %d', (start, target, quoted) => {
    expect(() => tempoLadder({ start, target, school })).toThrow(quoted);
  });
});

describe('the next step', () => {
  test.each<[string, readonly Result[], string, number]>([
    ['nothing posted', [], 'begin', 60],
    ['once clean in pencil asks for once more', [clean(83)], 'stay', 83],
    ['twice clean in pencil goes up', [clean(83), clean(84)], 'up', 90],
    ['once clean in ink goes up', [clean(83, 'ink')], 'up', 90],
    ['a miss above a clean tempo stays at the rung between', [clean(84), missed(92)], 'stay', 90],
    ['ink after such a pencil pair decides', [clean(84), missed(92), clean(90, 'ink')], 'up', 98],
    ['a first miss stays', [missed(60)], 'stay', 60],
    ['a second miss in a row comes down', [clean(75), missed(90), missed(90)], 'down', 83],
    ['no rung is below the first', [missed(60), missed(60)], 'stay', 60],
    ['a miss in between starts the count anew', [clean(83), missed(83), clean(83)], 'stay', 83],
    ['a miss at a faster tempo does not', [clean(83), missed(98), clean(83)], 'up', 90],
    ['below the ladder goes to its first rung', [clean(50)], 'up', 60],
    ['the target clean twice at home wants to be shown', [clean(120), clean(121)], 'show', 120],
    ['the target clean in a lesson wants to be kept', [clean(120, 'ink')], 'keep', 120],
  ])('%s', (_name, history, move, bpm) => {
    expect(nextStep(history, ladder)).toMatchObject({ move, bpm });
  });

  test('always names a rung of the ladder and says why', () => {
    const result = fc.record({
      bpm: fc.integer({ min: 20, max: 400 }),
      outcome: fc.constantFrom('clean' as const, 'not-yet' as const),
      medium: fc.constantFrom('ink' as const, 'pencil' as const),
    });
    fc.assert(
      fc.property(fc.array(result), (history) => {
        const step = nextStep(history, ladder);
        expect(ladder.rungs).toContain(step.bpm);
        expect(step.reason).toContain(String(step.bpm));
      }),
    );
  });
});

describe('where a piece stands', () => {
  test('ink counts before pencil', () => {
    expect(standingOf([clean(110), clean(90, 'ink'), missed(120, 'ink')], 120)).toEqual({
      inkBpm: 90,
      pencilBpm: 110,
      share: 0.75,
      by: 'ink',
    });
  });
  test('nothing posted is nothing reached', () => {
    expect(standingOf([], 120)).toEqual({ inkBpm: null, pencilBpm: null, share: 0, by: null });
  });
  test('a tempo past the target is the whole target', () => expect(standingOf([clean(130)], 120).share).toBe(1));
  test('a target of zero is a mistake', () => expect(() => standingOf([], 0)).toThrow('0'));
});
