import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readShorthand, scoreOf, type ScoreBar } from '@jam-ledger/core/notation';
import { legendOf } from '../src/tab/legend.ts';
import { barWidth, breakLines, lineRoom, planStrip, planSystems, roomBehind } from '../src/tab/engraving/layout.ts';
import { breakAgain } from '../src/tab/engraving/lineBreaks.ts';
import { beamGroups, placeValues, tupletGroups } from '../src/tab/engraving/rhythm.ts';

const bars = (text: string) => scoreOf(readShorthand(text).phrase);
const bar = (text: string): ScoreBar => {
  const [first] = bars(text);
  if (!first) throw new Error(`no bar in ${text}`);
  return first;
};

describe('lines of bars', () => {
  const phrase = fc
    .array(fc.constantFrom('/8 5G 7G 5B 8B', '/16 5D h7 5G 7Gb1r 5B', '/4 5A7D', '/1 7G~', '/8t 5G 7G 9G'), {
      minLength: 1,
      maxLength: 20,
    })
    .map((parts) => parts.join(' | '));

  test('hold every bar once, in order, and none wider than the room but one by itself', () => {
    fc.assert(
      fc.property(phrase, fc.integer({ min: 200, max: 1200 }), (text, width) => {
        const all = bars(text);
        const room = lineRoom(width, 26);
        const lines = breakLines(all, room);
        expect(lines.flat()).toEqual(all);
        for (const line of lines)
          expect(line.length === 1 || line.reduce((sum, one) => sum + barWidth(one), 0) <= room).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  test('broken again after any change they still hold every bar once, in order', () => {
    fc.assert(
      fc.property(phrase, phrase, fc.integer({ min: 200, max: 1200 }), (before, after, width) => {
        const room = lineRoom(width, 26);
        const again = breakAgain(bars(after), room, breakAgain(bars(before), room, undefined));
        expect(again.lines.flat()).toEqual(bars(after));
        expect(again.lines.every((line) => line.length > 0)).toBe(true);
      }),
      { numRuns: 100 },
    );
  });

  test('a change in one bar leaves the lines before and behind it as they were', () => {
    const text = Array.from({ length: 12 }, (_, index) => `/8 5G 7G 5B ${index}B`);
    const room = 500;
    const first = breakAgain(bars(text.join(' | ')), room, undefined);
    const changed = text.with(5, '/16 5G 7G 5B 8B 5e 8e 5e 8B').join(' | ');
    const again = breakAgain(bars(changed), room, first);
    const same = again.lines.filter((line) =>
      first.lines.some((old) => JSON.stringify(old) === JSON.stringify(line) || old.length === line.length),
    );
    expect(same.length).toBeGreaterThanOrEqual(first.lines.length - 1);
  });

  test('full lines are spread to the room, a nearly empty last one is not', () => {
    const room = 600;
    const systems = planSystems(breakLines(bars(Array(9).fill('/8 5G 7G 5B 8B').join(' | ')), room), room);
    const used = systems.map(({ widths }) => widths.reduce((sum, one) => sum + one, 0));
    expect(used.slice(0, -1).every((width) => width > room - 20 && width <= room)).toBe(true);
    expect(systems.every(({ first }, index) => first === (index === 0))).toBe(true);
  });

  test('a strip is one line, as long as it wants to be', () => {
    const all = bars('/8 5G 7G | 5B 8B | 5e');
    const { systems, width } = planStrip(all);
    expect(systems.map((system) => system.bars.length)).toEqual([3]);
    expect(width).toBeGreaterThan(all.reduce((sum, one) => sum + barWidth(one), 0));
    expect(planStrip([])).toEqual({ systems: [], width: 0 });
  });
});

describe('notes of a bar', () => {
  test('stand in order, and a bend has its room before the next', () => {
    const placed = placeValues(bar('/8 7Gb1r.5b1r 5G 7G 5B'), 0, 400);
    const xs = placed.map(({ x }) => x);
    expect(xs).toEqual([...xs].sort((a, b) => a - b));
    const [bent, next, after] = xs;
    expect((next ?? 0) - (bent ?? 0)).toBeGreaterThan((after ?? 0) - (next ?? 0) + 40);
    const [release] = bar('7Gb1r').events;
    expect(release && roomBehind(release)).toBeGreaterThan(30);
  });

  test.each([
    ['eighths by the beat', '/8 5G 7G 5B 8B 5e 8e 5e 8B', [2, 2, 2, 2]],
    ['sixteenths by the beat', '/16 5G 7G 5B 8B /4 5e', [4]],
    ['nothing over a rest or a quarter', '/8 5G - 7G /4 5B', []],
    ['three eighths in compound time', 'meter=6/8 /8 5G 7G 5B 8B 5e 8e', [3, 3]],
  ])('beams: %s', (_rule, text, sizes) => {
    // Source: common practice: beams show the beat, three eighths in compound meters.
    const one = bar(text);
    expect(beamGroups(one, placeValues(one, 0, 400)).map((group) => group.length)).toEqual(sizes);
  });

  test.each([
    ['/8t 5G 7G 9G 5B 7B 8B', [3, 3]],
    ['/16t5 5G 7G 9G 7G 5G', [5]],
    ['/4t 5G /8t 7G /8 5B', [2]],
    ['/8 5G 7G', []],
  ])('tuplets of “%s”', (text, sizes) => {
    const placed = placeValues(bar(text), 0, 400);
    expect(tupletGroups(placed).map((group) => group.length)).toEqual(sizes);
  });
});

describe('the legend', () => {
  test('names the signs that stand on the page, and no others', () => {
    const signs = legendOf(bars('/4 7Gb1 h9 5A7Dm xG')).map(([sign]) => sign);
    expect(signs).toEqual(['h', '↑ 1', 'p.m.', '×']);
    expect(legendOf(bars('/4 5G'))).toEqual([]);
  });
});
