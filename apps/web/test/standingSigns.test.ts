/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { readShorthand, scoreOf } from '@jam-ledger/core/notation';
import { keyOfBar } from '../src/tab/engraving/lineBreaks.ts';
import { legendOf } from '../src/tab/legend.ts';
import { draw, type Sheet } from './drawing.ts';

afterEach(() => document.body.replaceChildren());

const one = (sheet: Sheet, text: string) => {
  const found = sheet.signs().filter((sign) => sign.text === text);
  if (found.length !== 1 || !found[0]) throw new Error(`${text} is drawn ${found.length} times`);
  return found[0];
};
/** Lines with dashes: from and to, pixels. */
const dashes = (sheet: Sheet) =>
  sheet
    .outlines(/stroke-dasharray="2\.75/)
    .map((d) => (d.match(/-?[\d.]+/g) ?? []).map(Number))
    .map(([x = 0, y = 0, toX = 0]) => ({ x, y, toX }));
const lines = (sheet: Sheet) => sheet.outlines(/stroke-width="1\.3"/);
const legend = (text: string) => legendOf(scoreOf(readShorthand(text).phrase)).map(([sign]) => sign);

describe('a bend that stands', () => {
  test('is held by a dashed line up to where it goes on, over what is played meanwhile', () => {
    const sheet = draw('/4 12Bb1 10e rB -');
    const [dash, ...others] = dashes(sheet);
    expect(others).toEqual([]);
    const [from, to] = [one(sheet, '12').x, one(sheet, '(12)').x];
    expect(dash?.x).toBeGreaterThan(from);
    expect(dash?.x).toBeLessThan(one(sheet, '10').x);
    expect(dash?.toX).toBeGreaterThan(to);
    expect(one(sheet, '(12)').look).toContain('font-style="italic"');
  });

  test('struck again, an arrow stands upright at its height', () => {
    const sheet = draw('/4 12Bb1 12B^');
    expect(sheet.written().filter((text) => text === '1')).toHaveLength(2);
    expect(dashes(sheet)).toEqual([]);
  });

  test('of another line of the page it comes from the edge', () => {
    const text = '/1 12Bb1 | 10e | rB';
    const sheet = draw(text, { width: 230 });
    const [dash] = dashes(sheet);
    expect(dash && dash.toX > dash.x).toBe(true);
  });

  test('has its place in the legend', () => {
    expect(legend('12Bb1 10e rB')).toContain('(7) grey');
    expect(legend('12Bb1 12B^')).toContain('↑ upright');
  });
});

describe('signs of the second edition', () => {
  test('the arm goes up and down, with its sizes', () => {
    const sheet = draw('/4 7Gw-1w+.5');
    expect([one(sheet, '-1').x < one(sheet, '+½').x, lines(sheet).length]).toEqual([true, 4]);
    expect(legend('7Gw-1')).toContain('v with -1');
  });

  test('a wedge opens where it grows louder, and closes where it fades', () => {
    const wedge = (text: string) => lines(draw(text)).map((d) => (d.match(/-?[\d.]+/g) ?? []).map(Number));
    const [upper, lower] = wedge('/4 {grow: 7G 9G 7G 5G}');
    expect([upper?.[1] === lower?.[1], (upper?.[3] ?? 0) < (lower?.[3] ?? 0)]).toEqual([true, true]);
    const [first, second] = wedge('/4 {fade: 7G 9G 7G 5G}');
    expect((first?.[0] ?? 0) > (first?.[2] ?? 0) && first?.[1] === second?.[1]).toBe(true);
  });

  test('two ways stand side by side under their words; rounds under theirs', () => {
    expect(draw('/4 {either: 5G // 7G}').written()).toEqual(expect.arrayContaining(['either', 'or', '5', '7']));
    expect(draw('/4 {last: 5G} {1-2: 7G}').written()).toEqual(expect.arrayContaining(['last round', 'round 1–2']));
    expect(draw('/4 [ 5G {round last: 7G} ]2').written()).toContain('last round');
  });

  test('one note of a stack is quiet, or may be left out; each is plucked by its own finger', () => {
    expect(draw('/4 0E7A+(9G)').written()).toContain('(9)');
    expect(one(draw('/4 0E7A+{optional: 9G}'), '9').look).toContain('font-style="italic"');
    expect(draw('/4 12Gqm+14Bqa').written()).toContain('m a');
  });

  test('what is of one note of a stack stands in the legend, too, and so does a wedge', () => {
    expect(legend('12Gqm+14Bqa')).toEqual(expect.arrayContaining(['m', 'a']));
    expect(legend('0E7A+(9G)')).toContain('( )');
    expect(legend('{fade: 7G 5G}')).toContain('wedge');
  });

  test('a finger with help, and one or another', () => {
    expect(draw('/4 9Gf3&2').written()).toContain('3+2');
    expect(draw('/4 9Gf34').written()).toContain('3/4');
  });

  test('a place that was not said is a question', () => {
    expect(draw('/4 5G 7?').written()).toContain('7?');
    expect(draw('/4 5G ?D').written()).toContain('?');
    expect(legend('5G 7?')).toContain('7?');
  });

  test('a slide over to another string leaves the one and enters the other, without an arc', () => {
    const sheet = draw('/4 10B S9G');
    expect(lines(sheet)).toHaveLength(2);
    expect(sheet.outlines(/stroke-width="1\.2" fill="none"/).filter((d) => d.includes('Q'))).toEqual([]);
  });

  test('bars that differ by the arm alone are not taken for the same', () => {
    const [plain, dipped] = ['7G', '7Gw-1'].map((text) => scoreOf(readShorthand(text).phrase)[0]);
    if (!plain || !dipped) throw new Error('there are bars');
    expect(keyOfBar(plain)).not.toBe(keyOfBar(dipped));
  });
});
