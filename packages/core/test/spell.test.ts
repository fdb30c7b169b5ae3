import { describe, expect, test } from '@jest/globals';
import { Key as TonalKey, Note } from 'tonal';
import { OPEN_KEY, readKey, spell, writeSpelling } from '../src/pitch/index.ts';

describe('spelling for a key', () => {
  test.each([
    ['A', { fifths: 3, mode: 'major' }],
    ['D minor', { fifths: -1, mode: 'minor' }],
    ['F#m', { fifths: 3, mode: 'minor' }],
    ['Bb major', { fifths: -2, mode: 'major' }],
    ['e♭ min', { fifths: -6, mode: 'minor' }],
    ['E dorian', { fifths: 2, mode: 'dorian' }],
  ])('%s is read', (text, key) => expect(readKey(text)).toEqual(key));

  test.each(['', 'H', 'open', 'G# major', 'key of A'])('“%s” is no key', (text) =>
    expect(readKey(text)).toBeUndefined(),
  );

  // The package `tonal` is the second opinion on the notes of each key.
  test.each(['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'F', 'Bb', 'Eb', 'Ab', 'Db'])('every note of %s major', (tonic) => {
    const key = readKey(tonic) ?? OPEN_KEY;
    const names = TonalKey.majorKey(tonic).scale.map((name) => {
      const { letter, alter } = spell(Note.midi(`${name}4`) ?? 0, key);
      return letter + (alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter));
    });
    expect(names).toEqual(TonalKey.majorKey(tonic).scale);
  });

  test.each(['A', 'E', 'D', 'G', 'B', 'F#', 'C', 'F', 'Bb'])('every note of %s harmonic minor', (tonic) => {
    const key = readKey(`${tonic} minor`) ?? OPEN_KEY;
    const { scale } = TonalKey.minorKey(tonic).harmonic;
    const names = scale.map((name) => {
      const { letter, alter } = spell(Note.midi(`${name}4`) ?? 0, key);
      return letter + (alter > 0 ? '#'.repeat(alter) : 'b'.repeat(-alter));
    });
    expect(names).toEqual(scale);
  });

  test('what is spelt sounds as it did, in every key', () => {
    const natural = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
    for (let fifths = -7; fifths <= 7; fifths += 1)
      for (const mode of ['major', 'minor'] as const)
        for (let midi = 20; midi <= 100; midi += 1) {
          const { letter, alter, octave } = spell(midi, { fifths, mode });
          expect((octave + 1) * 12 + natural[letter] + alter).toBe(midi);
        }
  });

  test('middle C and its neighbour', () => {
    expect(writeSpelling(spell(60))).toBe('C4');
    expect(writeSpelling(spell(66, { fifths: 3, mode: 'major' }), false)).toBe('F♯');
    expect(() => spell(60.5)).toThrow('60.5');
  });
});
