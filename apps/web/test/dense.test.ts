/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, describe, expect, test } from '@jest/globals';
import { OPEN_KEY, readKey, TUNINGS } from '@jam-ledger/core/pitch';
import { draw, type Sheet } from './drawing.ts';

afterEach(() => document.body.replaceChildren());

/** Signs of the music font by their code points. Source: SMuFL, “Noteheads” and “Standard accidentals”. */
const HEAD = '\uE0A4';
const NATURAL = '\uE261';
const SHARP = '\uE262';

describe('what stands close together', () => {
  const at = (sheet: Sheet, text: string) => sheet.signs().filter((sign) => sign.text === text);

  test('the letter of a pull-off goes under the frets where an arrow stands over them', () => {
    const [plain] = at(draw('/8 15e p12'), 'p');
    const [under] = at(draw('/8 15eb1r p12'), 'p');
    const [fret] = at(draw('/8 15eb1r p12'), '15');
    expect(plain?.y).toBeLessThan(fret?.y ?? 0);
    expect(under?.y).toBeGreaterThan(fret?.y ?? Infinity);
  });

  test('what is said of a pass has room before how often it is heard, in the shortest bar', () => {
    for (const text of ['[/4 5G | {last: 9G}]4', '[/4 5G | {last: 9G}]4+']) {
      const sheet = draw(text);
      const [label, times] = ['last time', text.endsWith('+') ? 'about 4×, to taste' : '4×'].map(
        (word) => at(sheet, word)[0],
      );
      // About as wide as its type is drawn.
      expect((times?.x ?? 0) - (label?.x ?? 0)).toBeGreaterThan('last time'.length * 5);
    }
  });

  test('the fingers of a stack stand under one another, the highest string first', () => {
    const sheet = draw('/4 5Df2+7Gf3 5G');
    const [three, two] = ['3', '2'].map((finger) => at(sheet, finger)[0]);
    expect([three?.x, (two?.y ?? 0) - (three?.y ?? 0)]).toEqual([two?.x, 10]);
    expect(at(sheet, '32')).toEqual([]);
  });

  test('where a string is bent the notation shows what sounds, and what it is bent to as small notes', () => {
    const staff = (fifths: 'C major' | 'A major') => ({
      staff: { tuning: TUNINGS.standard, capo: 0, key: readKey(fifths) ?? OPEN_KEY },
    });
    const small = (text: string, key: 'C major' | 'A major' = 'C major') =>
      draw(text, staff(key))
        .signs()
        .filter(({ look }) => look.includes('Jam Ledger Music') && look.includes('font-size="24.4"'));
    // 7 on G is D; a whole step up is E, one line or space higher, and the release is D again, said anew after its line.
    const chain = small('/4 7Gb1r');
    expect(chain.map(({ text }) => text)).toEqual([HEAD, NATURAL, HEAD]);
    expect((chain[2]?.y ?? 0) - (chain[0]?.y ?? 0)).toBe(5);
    expect(small('/4 7G')).toEqual([]);
    // 8 on B is G; half a step up is G sharp, which the key of A has, but not after a G natural of the same line.
    expect(small('/4 8Bb½', 'A major').map(({ text }) => text)).toEqual([SHARP, HEAD]);
    // A pre-bend begins at the pitch it stands bent to: E, and its release is D.
    expect(small('/4 7Gpb1r').map(({ text }) => text)).toEqual([HEAD]);
  });

  test('a bend that lasts is dashed to its end; a short one is not', () => {
    expect(draw('/2 7Gb1 5G').outlines(/stroke-dasharray/)).toHaveLength(1);
    expect(draw('/16 7Gb1 5G').outlines(/stroke-dasharray/)).toHaveLength(0);
    expect(draw('/2 7Gb1r 5G').outlines(/stroke-dasharray/)).toHaveLength(0);
  });
});
