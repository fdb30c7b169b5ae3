import { describe, expect, test } from '@jest/globals';
import { arpeggiosOf, chordTones, nameChord } from '../src/harmony/index.ts';
import { letterOfString, readShorthand } from '../src/notation/index.ts';
import { OPEN_KEY, openMidi, TUNINGS } from '../src/pitch/index.ts';

/** Chords by their formulas, semitones above the root. Source: the tables of any handbook of harmony; common practice, from memory. */
const FORMULAS: readonly (readonly [suffix: string, ...tones: number[]])[] = [
  ['', 0, 4, 7],
  ['m', 0, 3, 7],
  ['dim', 0, 3, 6],
  ['aug', 0, 4, 8],
  ['sus2', 0, 2, 7],
  ['sus4', 0, 5, 7],
  ['7', 0, 4, 7, 10],
  ['m7', 0, 3, 7, 10],
  ['maj7', 0, 4, 7, 11],
  ['mMaj7', 0, 3, 7, 11],
  ['m7b5', 0, 3, 6, 10],
  ['dim7', 0, 3, 6, 9],
  ['7sus4', 0, 5, 7, 10],
  ['7b5', 0, 4, 6, 10],
  ['7#5', 0, 4, 8, 10],
  ['maj7#5', 0, 4, 8, 11],
  ['6', 0, 4, 7, 9],
  ['m6', 0, 3, 7, 9],
  ['69', 0, 4, 7, 9, 14],
  ['m69', 0, 3, 7, 9, 14],
  ['add9', 0, 4, 7, 14],
  ['madd9', 0, 3, 7, 14],
  ['9', 0, 4, 7, 10, 14],
  ['m9', 0, 3, 7, 10, 14],
  ['maj9', 0, 4, 7, 11, 14],
  ['9sus4', 0, 5, 7, 10, 14],
  ['7b9', 0, 4, 7, 10, 13],
  ['7#9', 0, 4, 7, 10, 15],
  ['maj7#11', 0, 4, 7, 11, 18],
  ['11', 0, 4, 7, 10, 14, 17],
  ['m11', 0, 3, 7, 10, 14, 17],
  ['13', 0, 4, 7, 10, 14, 21],
  ['m13', 0, 3, 7, 10, 14, 21],
  ['maj13', 0, 4, 7, 11, 14, 21],
];
const above = (root: number, tones: readonly number[]) => tones.map((tone) => root + tone);
const first = (midis: readonly number[], options = {}) => nameChord(midis, options)[0];
const C = 48;

describe('a chord from its root up', () => {
  test.each(FORMULAS)('C%s is named so', (suffix, ...tones) =>
    expect(first(above(C, tones))?.symbol).toBe(`C${suffix}`),
  );

  test.each(FORMULAS)('%s holds those notes and no others', (suffix, ...tones) => {
    const { root, degrees } = chordTones(`C${suffix}`) ?? {};
    const heard = [...(degrees?.keys() ?? [])].sort((a, b) => a - b);
    // An eleventh chord is played without its third, which would rub; common practice.
    const played = suffix === '11' ? tones.filter((tone) => tone !== 4) : tones;
    expect([root, heard]).toEqual([0, [...new Set(played.map((tone) => tone % 12))].sort((a, b) => a - b)]);
  });

  test.each(FORMULAS.filter(([, , , fifth, more]) => fifth === 7 && more !== undefined))(
    'C%s is named so without its fifth',
    (suffix, ...tones) => {
      const names = nameChord(
        above(
          C,
          tones.filter((tone) => tone !== 7),
        ),
      ).map(({ symbol }) => symbol);
      // Without it a sixth chord is the triad of its sixth just as well.
      if (!suffix.includes('6')) expect(names).toContain(`C${suffix}`);
    },
  );

  test('a third in the bass is a slash chord, and the chord it might be is behind it', () =>
    expect(nameChord([52, 55, 60]).map(({ symbol }) => symbol)[0]).toBe('C/E'));

  test.each([
    ['a seventh', [46, 48, 52, 55], 'C/Bb'],
    ['a step above', [50, 60, 64, 67], 'C/D'],
    ['a half step below', [47, 60, 64, 67], 'C/B'],
  ])('%s in the bass is a triad over it', (_, midis, symbol) =>
    expect(first(midis)?.symbol.replaceAll('♭', 'b')).toBe(symbol),
  );
});

describe('two notes', () => {
  const DYADS = [
    ...['a minor second', 'a second', 'a minor third', 'a third', 'a power chord, its fifth in the bass', 'a tritone'],
    ...['root and fifth, a power chord', 'a minor sixth', 'a sixth', 'a minor seventh', 'a seventh'],
  ];
  test.each(DYADS.map((says, index) => [index + 1, says] as const))('%i semitones: %s', (semitones, says) =>
    expect(first([C, C + semitones])?.because).toBe(says),
  );
});

describe('notes of the chord in force', () => {
  test.each([
    [[48, 52, 55, 58], 'the chord above, all its notes'],
    [[48, 52, 58], 'the chord above, without its 5'],
    [[52, 55, 58], 'the chord above, without its 1'],
    [[52, 58], 'the chord above, without its 1 and 5'],
  ])('%j under C7: %s', (midis, because) =>
    expect(first(midis, { chord: 'C7' })).toMatchObject({ symbol: 'C7', strain: 0, because }),
  );
  test('one note outside it is named by itself', () =>
    expect(first([48, 52, 55, 57], { chord: 'C7' })?.symbol).toBe('C6'));
  test('it is named once', () => {
    const names = nameChord([48, 52, 55], { chord: 'C' }).map(({ symbol }) => symbol);
    expect(names.filter((symbol) => symbol === 'C')).toHaveLength(1);
    expect(names.length).toBeLessThanOrEqual(4);
  });
});

describe('a chord played note after note', () => {
  /** One note after another, each on the thickest string that has it within a box over fret 8. */
  const text = (midis: readonly number[]) =>
    midis
      .map((midi) => {
        const string = [6, 5, 4, 3, 2, 1].find((one) => {
          const fret = midi - openMidi(TUNINGS.standard, one);
          return fret >= 7 && fret <= 12;
        });
        if (string === undefined) throw new Error(`no place for ${midi}`);
        return `${midi - openMidi(TUNINGS.standard, string)}${letterOfString(string) ?? ''}`;
      })
      .join(' ');
  const found = (typed: string, chord = '') =>
    arpeggiosOf(readShorthand(`/8 ${chord && `:${chord} `}${typed}`).phrase, {
      ...{ tuning: TUNINGS.standard, capo: 0, key: OPEN_KEY },
    }).map(({ symbol, notes, from }) => `${symbol} ${notes} ${from}`);
  const KINDS = FORMULAS.filter(([suffix]) =>
    ['', 'm', 'dim', 'aug', '7', 'm7', 'maj7', 'm7b5', 'dim7', '6', 'm6'].includes(suffix),
  );

  test.each(KINDS)('C%s from its root over an octave', (suffix, ...tones) => {
    const octave = [...tones, 12].map((tone) => C + tone);
    expect(found(text(octave), `C${suffix}`)).toEqual([`C${suffix} ${octave.length} 1`]);
  });

  test('three notes are none, four are one', () => {
    expect(found('8E 7A 10A')).toEqual([]);
    expect(found('8E 7A 10A 10D')).toEqual(['C 4 1']);
  });

  test('a tone left out, the same note twice, or two at once end it', () => {
    expect(found('8E 7A 10D 9G')).toEqual([]);
    expect(found('8E 7A 10A 10A')).toEqual([]);
    expect(found('8E 7A 10A 10D9G')).toEqual([]);
    expect(found('8E 7A - 10A 10D')).toEqual([]);
  });

  test('one goes on as long as it is the chord, and the next begins after it', () =>
    expect(found('8E 7A 10A 10D 9G 8B 7E 10E 9A 12A')).toEqual(['C 6 1', 'Bm7 4 1']));

  test('it begins on the tone it begins on', () => {
    expect(found('7A 10A 10D 9G')).toEqual(['C 4 3']);
    expect(found('10A 10D 9G 8B')).toEqual(['C 4 5']);
  });

  test('of two with the same notes the one above is meant', () => {
    const six = text([48, 52, 55, 57, 60]);
    expect([found(six, 'C6'), found(six, 'Am7')].flat()).toEqual(['C6 5 1', 'Am7 5 b3']);
  });
});
