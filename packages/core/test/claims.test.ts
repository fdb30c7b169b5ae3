import { describe, expect, test } from '@jest/globals';
import { checkPhrase } from '../src/checks/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { readKey, TUNINGS } from '../src/pitch/index.ts';

const OPTIONS = {
  ...{ tuning: TUNINGS.standard, capo: 0, frets: 22, scaleLengthMm: 648, reachMm: 110, bpm: 90 },
  key: readKey('D'),
};
const told = (text: string, more: object = {}) =>
  checkPhrase(readShorthand(text).phrase, { ...OPTIONS, text, ...more }).filter(({ code }) => code === 'claim-wrong');
/** The text after each of the ways out. */
const mended = (text: string) =>
  told(text).flatMap(({ fix, otherFixes = [] }) =>
    [fix, ...otherFixes].flatMap((one) =>
      one ? [text.slice(0, one.span.from) + one.text + text.slice(one.span.to)] : [],
    ),
  );

describe('what somebody says of a note', () => {
  test.each([
    '/8 17B=E 15Bb1=E',
    '/8 :D 12B=6 10B=5 7B=3',
    '/8 :A7 8B=b7 3B=4 14B=3',
    '/8 :E7 8e=b13 12e=1 14e=9',
    '/8 15Bpb1=E',
    '/8 14Gb1r=B',
    '/8 7G=D 7G=Dn',
  ])('%s is right, and nothing is told', (text) => expect(told(text)).toEqual([]));

  test.each([
    ['/8 17B=E 15Bb1=D', 'Said to be D, but it rests on E.'],
    ['/8 17B=F#', 'Said to be F#, but it rests on E.'],
    ['/8 :D 12B=5', 'Said to be 5, but it rests on 6, B.'],
    ['/8 :D 10B=3', 'Said to be 3, but it rests on 5, A.'],
    ['/8 10B=3', 'There is no chord here that 3 could be a degree of; write the chord before it, as in :Am.'],
    ['/8 :- 10B=3', 'There is no chord here that 3 could be a degree of; write the chord before it, as in :Am.'],
  ])('%s: %s', (text, message) => expect(told(text).map((problem) => problem.message)).toEqual([message]));

  test('both ways out are offered, and either is right then', () => {
    expect(mended('/8 5G 17B=F#')).toEqual(['/8 5G 19B=F#', '/8 5G 17B=E']);
    expect(mended('/8 5G 15Bb1=D 7G')).toEqual(['/8 5G 13Bb1=D 7G', '/8 5G 15Bb1=E 7G']);
    for (const text of mended('/8 5G 15Bb1=D 7G')) expect(told(text)).toEqual([]);
  });

  test('a degree that the chord has not is one all the same', () =>
    expect(mended('/8 :D 12B=5')).toEqual(['/8 :D 10B=5', '/8 :D 12B=6']));

  test('a capo counts, and what is said once in a repeat is told once', () => {
    expect(told('/8 15B=E', { capo: 2 })).toEqual([]);
    expect(told('/8 [ 15B=E ]4')).toHaveLength(1);
  });

  test('the note itself is not doubted', () => {
    const slips = (text: string) =>
      checkPhrase(readShorthand(text).phrase, { ...OPTIONS, text }).filter(({ code }) => code === 'slip').length;
    const [before, after] = ['/8 10B 12B 14B 12B 10B 11G 9G', ' 11G 9G 11G 12B 10B'];
    expect(slips(`${before} 4G${after}`)).toBeGreaterThan(slips(`${before} 4G=B${after}`));
  });
});
