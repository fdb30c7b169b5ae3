import { describe, expect, test } from '@jest/globals';
import { Note } from 'tonal';
import {
  centsBetween,
  fretDistanceMm,
  fretsFor,
  hzOf,
  makeTuning,
  midiOf,
  readTuning,
  TUNINGS,
} from '../src/pitch/index.ts';

// Source: equal temperament with A4 = 440 Hz (ISO 16:1975); the octaves C2-B6 of the table in handbooks of
// acoustics, to two decimals (from memory; the A's are exact powers of two of 440, the rest were checked
// against them by the 12th root of 2).
const EQUAL_TEMPERED_HZ: Readonly<Record<string, number>> = {
  D2: 73.42,
  'D#2': 77.78,
  E2: 82.41,
  F2: 87.31,
  'F#2': 92.5,
  G2: 98,
  'G#2': 103.83,
  A2: 110,
  'A#2': 116.54,
  B2: 123.47,
  C3: 130.81,
  'C#3': 138.59,
  D3: 146.83,
  'D#3': 155.56,
  E3: 164.81,
  F3: 174.61,
  'F#3': 185,
  G3: 196,
  'G#3': 207.65,
  A3: 220,
  'A#3': 233.08,
  B3: 246.94,
  C4: 261.63,
  'C#4': 277.18,
  D4: 293.66,
  'D#4': 311.13,
  E4: 329.63,
  F4: 349.23,
  'F#4': 369.99,
  G4: 392,
  'G#4': 415.3,
  A4: 440,
  'A#4': 466.16,
  B4: 493.88,
  C5: 523.25,
  'C#5': 554.37,
  D5: 587.33,
  'D#5': 622.25,
  E5: 659.26,
  F5: 698.46,
  'F#5': 739.99,
  G5: 783.99,
  'G#5': 830.61,
  A5: 880,
  'A#5': 932.33,
  B5: 987.77,
  C6: 1046.5,
  'C#6': 1108.73,
  D6: 1174.66,
  'D#6': 1244.51,
  E6: 1318.51,
};

describe('where a note is and what it sounds', () => {
  for (const [index, open] of ['E4', 'B3', 'G3', 'D3', 'A2', 'E2'].entries())
    test(`string ${index + 1} of standard tuning follows the equal-tempered table to fret 24`, () => {
      for (let fret = 0; fret <= 24; fret += 1) {
        const midi = midiOf(TUNINGS.standard, index + 1, fret);
        const name = Note.fromMidiSharps(midi);
        // The package `tonal` is the second opinion on note numbers.
        expect(midi).toBe((Note.midi(open) ?? NaN) + fret);
        expect([name, hzOf(midi).toFixed(2)]).toEqual([name, EQUAL_TEMPERED_HZ[name]?.toFixed(2)]);
      }
    });

  // Source: common practice, the arithmetic teachers do in their heads.
  test.each([
    ['fret 17 of the B string', 2, 17, 'E5'],
    ['fret 12 of the high E string', 1, 12, 'E5'],
    ['fret 14 of the D string', 4, 14, 'E4'],
    ['fret 12 of the G string', 3, 12, 'G4'],
    ['fret 15 of the high E string', 1, 15, 'G5'],
  ])('%s sounds the right note', (_place, string, fret, note) => {
    expect(midiOf(TUNINGS.standard, string, fret)).toBe(Note.midi(note));
  });

  test('dropping the 6th string a whole step gives D A D G B E', () => {
    expect([...TUNINGS['drop D'].openMidis].reverse().map((midi) => hzOf(midi).toFixed(2))).toEqual(
      ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'].map((name) => EQUAL_TEMPERED_HZ[name]?.toFixed(2)),
    );
  });

  test('a capo raises every string', () => expect(midiOf(TUNINGS.standard, 1, 0, 2)).toBe(66));

  test('a recording 25 cents sharp is 25 cents above the table', () => {
    expect(centsBetween(hzOf(69), hzOf(69, 440, 25))).toBeCloseTo(25, 9);
  });

  // Source: the 12th-root-of-2 rule as fret calculators and lutherie handbooks print it for a 25.5 inch
  // (647.7 mm) scale, nut to fret, inches to three decimals (from memory).
  test.each([
    [1, 1.431],
    [2, 2.782],
    [3, 4.057],
    [5, 6.397],
    [7, 8.481],
    [12, 12.75],
    [24, 19.125],
  ])('fret %i of a 25.5 inch scale lies %f inches from the nut', (fret, inches) => {
    expect(fretDistanceMm(25.5 * 25.4, 0, fret) / 25.4).toBeCloseTo(inches, 3);
  });

  test('E4 stands at five places of a 22-fret guitar', () => {
    expect(fretsFor(64, TUNINGS.standard, 22)).toEqual([
      { string: 1, fret: 0 },
      { string: 2, fret: 5 },
      { string: 3, fret: 9 },
      { string: 4, fret: 14 },
      { string: 5, fret: 19 },
    ]);
  });

  test('mistakes of the programmer throw with the value', () => {
    expect(() => midiOf(TUNINGS.standard, 7, 0)).toThrow('7');
    expect(() => midiOf(TUNINGS.standard, 1, -1)).toThrow('-1');
    expect(() => midiOf(TUNINGS.standard, 1, 0, 0.5)).toThrow('0.5');
    expect(() => hzOf(69, 0)).toThrow('0');
    expect(() => centsBetween(0, 440)).toThrow(RangeError);
    expect(() => fretDistanceMm(-1, 0, 1)).toThrow('-1');
    expect(() => fretsFor(60.5, TUNINGS.standard, 22)).toThrow('60.5');
    expect(() => makeTuning('odd', [64])).toThrow('1');
    expect(() => makeTuning('odd', [64, 59, 55, 300])).toThrow('300');
  });
});

describe('tunings as people say them', () => {
  const opens = (text: string) => readTuning(text)?.openMidis.toReversed().join(' ');
  // Source: common practice; E2 is 40.
  test.each([
    ['DADGBE', '38 45 50 55 59 64'],
    ['dadgbe', '38 45 50 55 59 64'],
    ['DADGAD', '38 45 50 55 57 62'],
    ['EbAbDbGbBbEb', '39 44 49 54 58 63'],
    ['Drop D', '38 45 50 55 59 64'],
    ['drop d', '38 45 50 55 59 64'],
    ['dropped D', '38 45 50 55 59 64'],
    ['Drop C', '36 43 48 53 57 62'],
    ['drop c#', '37 44 49 54 58 63'],
    ['half step down', '39 44 49 54 58 63'],
    ['Half-step down', '39 44 49 54 58 63'],
    ['a half step lower', '39 44 49 54 58 63'],
    ['full step down', '38 43 48 53 57 62'],
    ['Eb', '39 44 49 54 58 63'],
    ['E♭ standard', '39 44 49 54 58 63'],
    ['D standard', '38 43 48 53 57 62'],
    ['E', '40 45 50 55 59 64'],
    ['Standard', '40 45 50 55 59 64'],
    ['Open g', '38 43 50 55 59 62'],
    ['D A D G B E', '38 45 50 55 59 64'],
  ])('%s', (text, strings) => expect(opens(text)).toBe(strings));

  test.each(['', 'drop', 'H', 'drop E', 'drop F', 'DADGB', 'DADGBEA', 'down half a step or so', 'EADGBE EADGBE'])(
    '“%s” is none',
    (text) => expect(readTuning(text)).toBeUndefined(),
  );
});
