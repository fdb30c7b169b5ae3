import { describe, expect, test } from '@jest/globals';
import { checkPhrase, type CheckOptions } from '../src/checks/index.ts';
import { usualGuitar } from '../src/fretboard/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { readKey, TUNINGS } from '../src/pitch/index.ts';
import { HELD_OUT, readCorpus } from './corpus.ts';

const guitar = usualGuitar(TUNINGS.standard);
const check = (text: string, key: string, more: Partial<CheckOptions> = {}) => {
  const { phrase } = readShorthand(text, { tuning: TUNINGS.standard });
  return checkPhrase(phrase, { ...guitar, text, bpm: 96, key: readKey(key), ...more });
};

// Right lines as teachers dictate them; common practice.
describe('no alarm', () => {
  test.each([
    ['a line over an open pedal', 'E lydian', '/8 0E 12B 0E 11B 0E 9B 0E 12B'],
    ['a bend of a half step to the third of the chord', 'A', ':A7 /8 5Gb.5 7A 5D 7D 5Gb.5 5D 7A 5A'],
    ['a bend that comes to the octave of the note beside it', 'D', ':G /8 6Bb1 3B 4G 5G 4G 7D 5D 4D'],
    ['the leading note of minor', 'A minor', '/8 10B 9B 10B 9G 10G 9G 7G 9D'],
    ['a leap to the last note', 'A minor', '/8 5B 8B 5B 7G 5G 7G 9D p7 5E'],
    ['a shift at the end', 'B minor', '/8 12B 15B 12e 15e 14e 12e 14e 9ef1b.25'],
    ['an open A with three fingers in a row', 'A', '2Df2+2Gf1+2Bf3'],
    ['a double stop with ring and middle finger', 'E', '9Gf3+9Bf2'],
    ['open strings that ring while a grip slides', 'G', '2D0G3Be s4D0G5Be'],
    ['a tap far up', 'A minor', '/8 5G t12 p5 7G 5G t12 p5 7G'],
    ['a power chord low on the neck', 'A minor', '/8 5E7A 5E7A 3E5A 5E7A'],
    ['an alternating thumb', 'C', ':C /8 3A+1B 2D 3E 0e 3A+3B 2D 3E+1B 0G'],
    ['a quarter-step curl', 'A blues', ':A7 /8 8Bb.25 5B 7G 5G 7D 5D 7A 5A'],
  ])('%s', (_, key, text) => expect(check(text, key)).toEqual([]));

  test('a wide grip of a full-size guitar that a turned hand reaches', () =>
    expect(check('1E3A', 'F', { scaleLengthMm: 864, reachMm: 85 })).toEqual([]));

  test.each(readCorpus().filter(({ idiom }) => idiom === 'blues-box' || idiom === 'unison-solos'))('$text', (right) => {
    const { text, phrase, key, bpm } = right;
    expect(checkPhrase(phrase, { ...guitar, text, bpm, key })).toEqual([]);
  });
});

describe('an alarm, with what was meant among the first three', () => {
  test.each([
    ['14e for 14D', 'E minor', '/8 12G 14e 12D 14A', '/8 12G 14D 12D 14A'],
    ['4G for 14G', 'E minor', '/8 12B 15B 4G 12G 14D 12D', '/8 12B 15B 14G 12G 14D 12D'],
    ['30 for 13', 'A minor', '/8 12e 30B 12B 14G', '/8 12e 13B 12B 14G'],
    ['1B for 2B', 'A', ':A /8 0A 2D 2G 1B 2G 2D', ':A /8 0A 2D 2G 2B 2G 2D'],
    ['7E for 7e', 'B minor', '/8 7B 10B 7E 10e 7e 10B', '/8 7B 10B 7e 10e 7e 10B'],
    ['5D for 5B', 'B', '/8 4B 5B 7B 5B 4B 5D 4B 7B', '/8 4B 5B 7B 5B 4B 5B 4B 7B'],
    ['8G for 8B', 'G', '/8 7D 9D 7G 9D 8G 10B 7e 10e', '/8 7D 9D 7G 9D 8B 10B 7e 10e'],
    ['a wrong note in one of four equal stacks', 'E minor', '/8 7A9D%2 5A8D%2', '/8 7A9D%2 5A7D%2'],
    ['one fret off, outside the key', 'C', '/8 8B 10B 8e 9e 8e 10B 12B 10B', '/8 8B 10B 8e 10e 8e 10B 12B 10B'],
  ])('%s', (_, key, text, meant) => {
    const offered = check(text, key).flatMap(({ fix, otherFixes = [] }) =>
      fix ? [fix, ...otherFixes].slice(0, 3) : [],
    );
    const texts = offered.map(({ span, text: fixed }) => text.slice(0, span.from) + fixed + text.slice(span.to));
    expect(texts).toContain(meant);
  });

  test('what somebody checked against the record is not doubted', () => {
    const text = '/8 5B 8B 5e 20e 8B 5B 7G 5G';
    expect(check(text, 'A minor', { isTrusted: true }).filter(({ code }) => code === 'slip')).toEqual([]);
    expect(check(text, 'A minor').filter(({ code }) => code === 'slip')).toHaveLength(1);
  });

  test('what only follows from the slip is not told beside it', () => {
    const found = check('/16 5B 8B 5e 20e 8B 5B 7G 5G', 'A minor', { bpm: 160 });
    expect(found.map(({ code }) => code)).toEqual(['slip']);
  });
});

describe('a grip against the symbol above it', () => {
  const differs = (text: string) =>
    check(text, 'G')
      .filter(({ code }) => code === 'chord-differs')
      .map(({ message }) => message);
  test('C under the sign of G is told, once', () =>
    expect(differs(':G /4 3A2D0G 3A2D0G 3A2D0G')).toEqual([
      'This sounds as C, not as the G above it: of G it lacks the 3 and 5, and adds the 4 and 6.',
    ]));
  test.each([
    ':G 3E2A0D0G0B3e',
    ':G 3E0D0G3B',
    ':C/G 3E3A2D0G1B0e',
    ':G7 3E2A0D0G0B1e',
    ':Em 0E2A2D0G',
    ':G5 3E5A5D',
    ':- 3A2D0G',
  ])('%s is what it says', (text) => expect(differs(text)).toEqual([]));
});

test('the corpus has two hundred right phrases and more in fourteen idioms and more, a third of them kept out of fitting', () => {
  const corpus = readCorpus();
  const idioms = new Set(corpus.map(({ idiom }) => idiom));
  expect(new Set(corpus.map(({ text }) => text)).size).toBeGreaterThanOrEqual(200);
  expect(idioms.size).toBeGreaterThanOrEqual(14);
  expect(HELD_OUT.filter((idiom) => idioms.has(idiom)).length / idioms.size).toBeGreaterThan(0.3);
});
