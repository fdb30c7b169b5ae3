import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fitText, stringsFor } from '../src/fitting/index.ts';
import { reachOfSpan, usualGuitar, type Guitar } from '../src/fretboard/index.ts';
import { COMMON_TIME, heardOf, STARTING_VALUE } from '../src/notation/index.ts';
import { readTuning, TUNINGS } from '../src/pitch/index.ts';
import { readPlaced } from '../src/placing/index.ts';

const usual = usualGuitar(TUNINGS.standard);
const options = { bpm: 100, meter: COMMON_TIME, startValue: STARTING_VALUE, isInBox: false } as const;

/** The pitches that sound of a text on a guitar, in their order. */
function pitchesOf(text: string, guitar: Guitar): readonly number[] {
  const { phrase } = readPlaced(text, { ...guitar, meter: COMMON_TIME, startValue: STARTING_VALUE });
  return heardOf(phrase, guitar).map(({ rests }) => rests);
}

describe('fitting a text to another guitar', () => {
  test('leaves what lies on both just where it is, as it was typed', () => {
    const text = '# mind the bend\n/8 5G 7Gb1r  5G 7D |';
    const fitted = fitText(text, usual, { ...usual, frets: 24 }, options);
    expect(fitted).toEqual({ text, changes: [], left: [] });
  });

  test('plays notes beyond its neck elsewhere at the same pitch, and says so', () => {
    const to = { ...usual, frets: 19 };
    const fitted = fitText('/8 17e 20B 22B 20B', usual, to, options);
    expect(pitchesOf(fitted.text, to)).toEqual(pitchesOf('/8 17e 20B 22B 20B', usual));
    expect(fitted.changes[0]).toBe('Lies on other places, since this guitar is another.');
    expect(fitted.left).toEqual([]);
  });

  test('an octave lower where there is no such fret, said in a sentence', () => {
    const to = { ...usual, frets: 19 };
    const { changes, left } = fitText('/8 22e 20e', usual, to, options);
    expect(changes.join(' ')).toContain('an octave lower');
    expect(left).toEqual([]);
  });

  test('a stretch that is too wide for a small hand is laid closer, as the checks would', () => {
    const { text, changes, left } = fitText('2E8A', usual, usual, options);
    expect([text, left]).toEqual(['2E3D', []]);
    expect(changes[0]).toMatch(/mm/);
  });

  test('what no fix helps is left, and told', () => {
    const small = { ...usual, reachMm: reachOfSpan(3) };
    const { text, left } = fitText('1Gh7', usual, small, options);
    expect(text).toBe('1Gh7');
    expect(left).toHaveLength(1);
  });

  test('under a hand that stays where a student is taught so', () => {
    const fitted = fitText('/8 5G 7G 3B 5B', usual, usual, { ...options, isInBox: true });
    expect(pitchesOf(fitted.text, usual)).toEqual(pitchesOf('/8 5G 7G 3B 5B', usual));
  });

  test('never throws, and never changes a pitch without saying so, whatever is typed', () => {
    const guitars = fc.record({
      frets: fc.integer({ min: 12, max: 24 }),
      reachMm: fc.integer({ min: 60, max: 160 }),
    });
    const note = fc
      .tuple(fc.integer({ min: 0, max: 22 }), fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e'))
      .map(([fret, string]) => `${fret}${string}`);
    const texts = fc.oneof(
      fc.array(note, { maxLength: 10 }).map((notes) => `/8 ${notes.join(' ')}`),
      fc.string({ maxLength: 40 }),
    );
    fc.assert(
      fc.property(texts, guitars, (text, guitar) => {
        const to = { ...usual, ...guitar };
        const { text: fitted, changes, left } = fitText(text, usual, to, options);
        if (changes.length === 0) expect(fitted).toBe(text);
        const isToldOf = [...changes, ...left].some((line) => /octave|stands as before|not there/.test(line));
        if (!isToldOf) expect(pitchesOf(fitted, to)).toEqual(pitchesOf(text, usual));
      }),
      { numRuns: 150 },
    );
  });
});

describe('the strings of another guitar', () => {
  test.each([
    ['standard', 6, 'standard'],
    ['drop D', 6, 'drop D'],
    ['standard', 7, 'standard'],
    ['B1 E2 A2 D3 G3 B3 E4', 6, 'standard'],
    ['standard', 4, 'D3 G3 B3 E4'],
  ])('%s on %i strings is %s', (typed, strings, expected) => {
    const tuning = readTuning(typed) ?? TUNINGS.standard;
    const name = stringsFor(tuning, strings).name;
    expect(readTuning(name)?.openMidis).toEqual((readTuning(expected) ?? TUNINGS.standard).openMidis);
  });
});
