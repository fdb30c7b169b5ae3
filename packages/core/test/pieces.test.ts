import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  MISSES_WHEN_STUCK,
  nextStep,
  standingOf,
  tempoLadder,
  WIDEST_STEP_RATIO,
  type Ladder,
  type Result,
} from '../src/pieces/index.ts';

const school = 'small even steps' as const;
const ladder = tempoLadder({ start: 60, target: 120, school });
const clean = (bpm: number, medium: Result['medium'] = 'pencil'): Result => ({ bpm, outcome: 'clean', medium });
const missed = (bpm: number, medium: Result['medium'] = 'pencil'): Result => ({ bpm, outcome: 'not-yet', medium });
const temposOf = ({ rungs }: Ladder) => rungs.map(({ bpm }) => bpm);

describe('the tempo ladder of even steps', () => {
  // An octave of tempo in steps even in ratio, as common practice has it on a metronome: 60 × 2^(n/10).
  test('from 60 to 120 goes up in steps even in ratio', () => {
    expect(temposOf(ladder)).toEqual([60, 64, 69, 74, 79, 85, 91, 97, 104, 112, 120]);
  });

  test('begins at the start, ends at the target, and no step is wider than the widest, but for whole beats', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 400 }), fc.integer({ min: 20, max: 400 }), (a, b) => {
        const [start, target] = [Math.min(a, b), Math.max(a, b)];
        const tempos = temposOf(tempoLadder({ start, target, school }));
        expect([tempos[0], tempos.at(-1)]).toEqual([start, target]);
        tempos.slice(1).forEach((tempo, index) => {
          const below = tempos[index] ?? tempo;
          expect(tempo).toBeGreaterThan(below);
          expect(tempo).toBeLessThanOrEqual(below * WIDEST_STEP_RATIO + 1.1);
        });
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

describe('the other ladders', () => {
  test('short fragments at full speed, then longer', () =>
    expect(tempoLadder({ start: 60, target: 120, school: 'short fragments' }).rungs).toEqual([
      { bpm: 120, percent: 25 },
      { bpm: 120, percent: 50 },
      { bpm: 120, percent: 75 },
      { bpm: 120, percent: 100 },
    ]));
  test('a little past the target, and back', () =>
    expect(temposOf(tempoLadder({ start: 100, target: 120, school: 'past and back' }))).toEqual([
      100, 106, 113, 120, 126, 120,
    ]));
  test('past the slowest target is still past it', () =>
    expect(temposOf(tempoLadder({ start: 20, target: 20, school: 'past and back' }))).toEqual([20, 21, 20]));

  const fragments = tempoLadder({ start: 60, target: 120, school: 'short fragments' });
  const part = (
    percent: number,
    outcome: Result['outcome'] = 'clean',
    medium: Result['medium'] = 'pencil',
  ): Result => ({
    bpm: 120,
    percent,
    outcome,
    medium,
  });
  test.each<[string, readonly Result[], string, number]>([
    ['begins with the shortest', [], 'begin', 25],
    ['twice clean is longer', [part(25), part(25)], 'up', 50],
    ['a slower take is none at full speed', [part(25), { ...part(25), bpm: 90 }], 'up', 25],
    ['two misses are shorter', [part(50, 'not-yet'), part(50, 'not-yet')], 'down', 25],
    ['a longer miss does not undo a shorter clean', [part(50), part(75, 'not-yet'), part(50)], 'up', 75],
    ['the whole in a lesson is to be kept', [part(100, 'clean', 'ink')], 'keep', 100],
  ])('fragments: %s', (_name, history, move, percent) =>
    expect(nextStep(history, fragments)).toMatchObject({ move, percent, bpm: 120 }),
  );

  const past = tempoLadder({ start: 100, target: 120, school: 'past and back' });
  test.each<[string, readonly Result[], string, number]>([
    ['the target leads past it', [clean(120), clean(120)], 'up', 126],
    ['past it once wants once more', [clean(126)], 'stay', 126],
    ['past it twice leads back', [clean(126), clean(126)], 'down', 120],
    ['back at the target it wants to be shown', [clean(126), clean(126), clean(120)], 'show', 120],
    ['heard at the target after that it wants to be kept', [clean(126, 'ink'), clean(120, 'ink')], 'keep', 120],
  ])('past and back: %s', (_name, history, move, bpm) => expect(nextStep(history, past)).toMatchObject({ move, bpm }));
});

describe('the next step', () => {
  test.each<[string, readonly Result[], string, number]>([
    ['nothing posted', [], 'begin', 60],
    ['once clean in pencil asks for once more', [clean(85)], 'stay', 85],
    ['twice clean in pencil goes up', [clean(85), clean(86)], 'up', 91],
    ['once clean in ink goes up', [clean(85, 'ink')], 'up', 91],
    ['a miss above a clean tempo stays at the rung between', [clean(85), missed(92)], 'stay', 91],
    ['ink after such a pencil pair decides', [clean(85), missed(92), clean(91, 'ink')], 'up', 97],
    ['a first miss stays', [missed(60)], 'stay', 60],
    ['a second miss in a row comes down', [clean(75), missed(91), missed(91)], 'down', 85],
    ['no rung is below the first', [missed(60), missed(60)], 'stay', 60],
    ['a miss in between starts the count anew', [clean(85), missed(85), clean(85)], 'stay', 85],
    ['a miss at a faster tempo does not', [clean(85), missed(97), clean(85)], 'up', 91],
    ['below the ladder goes to its first rung', [clean(50)], 'up', 60],
    ['the target clean twice at home wants to be shown', [clean(120), clean(121)], 'show', 120],
    ['the target clean in a lesson wants to be kept', [clean(120, 'ink')], 'keep', 120],
  ])('%s', (_name, history, move, bpm) => {
    expect(nextStep(history, ladder)).toMatchObject({ move, bpm });
  });

  const stuck = [clean(64), ...Array.from({ length: MISSES_WHEN_STUCK }, () => missed(69))];
  test.each<[string, readonly Result[], object, string, number]>([
    ['misses that pile up split what can be split', stuck, { canSplit: true }, 'split', 64],
    ['and call the teacher where it cannot', stuck, {}, 'call', 64],
    ['clean takes below the best do not hide that', [...stuck, clean(60), missed(69)], {}, 'call', 64],
    ['a new best does', [...stuck, clean(69), missed(74)], {}, 'stay', 74],
    ['what is heard at the target leads on to the seam', [clean(120, 'ink')], { join: 'Riff into Solo' }, 'join', 120],
    ['what only the student heard does not', [clean(120), clean(120)], { join: 'Riff into Solo' }, 'show', 120],
    ['ten minutes unbroken want a rest', [clean(85), clean(85)], { minutes: 10 }, 'rest', 91],
    ['nine do not', [clean(85), clean(85)], { minutes: 9.9 }, 'up', 91],
  ])('%s', (_name, history, context, move, bpm) => {
    expect(nextStep(history, ladder, context)).toMatchObject({ move, bpm });
  });

  test('so many clean takes are needed, and so many misses fall, as the teacher says', () => {
    const rules = { cleanNeeded: 3, fallsAfter: 1, restMinutes: 5 };
    const strict = tempoLadder({ start: 60, target: 120, school, rules });
    expect(nextStep([clean(85), clean(85)], strict)).toMatchObject({ move: 'stay', bpm: 85 });
    expect(nextStep([clean(85), clean(85), clean(85)], strict)).toMatchObject({ move: 'up', bpm: 91 });
    expect(nextStep([clean(85), missed(91)], strict)).toMatchObject({ move: 'down', bpm: 85 });
    expect(nextStep([], strict, { minutes: 5 })).toMatchObject({ move: 'rest' });
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
        expect(temposOf(ladder)).toContain(step.bpm);
        expect(nextStep(history, ladder)).toEqual(step);
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

describe('a take below the ladder', () => {
  // Stands at 74: 69 was clean twice.
  const stood = [clean(60), clean(60), clean(64), clean(64), clean(69), clean(69)];

  test('that was clean leaves it where it stood', () => {
    expect(nextStep([...stood, clean(48)], ladder)).toEqual(nextStep(stood, ladder));
  });

  test('that was not clean after a clean one does not throw it back', () => {
    expect(nextStep([...stood, clean(48), missed(48)], ladder)).toMatchObject({ bpm: 74 });
    expect(nextStep([...stood, missed(40)], ladder)).toMatchObject({ bpm: 74 });
  });

  test('goes down one rung where as many in a row are not clean as take it down anywhere', () => {
    expect(nextStep([...stood, missed(48), missed(48)], ladder)).toMatchObject({ move: 'down', bpm: 69 });
  });

  test('is all there is: the ladder begins where it begins', () => {
    expect(nextStep([clean(48), missed(48)], ladder)).toMatchObject({ bpm: 60 });
  });

  test('never moves it up, and down by no more than a rung a miss', () => {
    const slow = fc.integer({ min: 20, max: 59 });
    const results = fc.array(fc.tuple(slow, fc.boolean()), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(results, (takes) => {
        const below = takes.map(([bpm, isClean]) => (isClean ? clean(bpm) : missed(bpm)));
        const { bpm } = nextStep([...stood, ...below], ladder);
        expect(bpm).toBeLessThanOrEqual(74);
        expect(bpm).toBeGreaterThanOrEqual(69);
      }),
    );
  });
});
