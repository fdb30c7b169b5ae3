import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { arpeggiosOf, degreesOf, fitOf, nameChord, scalesFor } from '../src/harmony/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { OPEN_KEY, readKey, tonicOf, TUNINGS, type Key } from '../src/pitch/index.ts';

const key = (text: string): Key => readKey(text) ?? OPEN_KEY;
const setup = { tuning: TUNINGS.standard, capo: 0 };
const degrees = (text: string, of = 'C') =>
  degreesOf(readShorthand(text).phrase, { ...setup, key: key(of) }).map(
    ({ degree, name }) => `${degree ?? '-'} ${name}`,
  );
/** The notes of a fretted chord, thickest string first; x is not struck. */
const fretted = (shape: string) =>
  shape
    .split('-')
    .flatMap((fret, index) => (fret === 'x' ? [] : [(TUNINGS.standard.openMidis[5 - index] ?? 0) + Number(fret)]));
const named = (shape: string, of = 'C') => nameChord(fretted(shape), { key: key(of) }).map(({ symbol }) => symbol);

describe('degrees against the chord in force', () => {
  // Source: common practice, the notes of A7 and D7 over an A blues.
  test('are counted from the root of the chord, and anew where it changes', () => {
    expect(degrees(':A7 5G 7G 5B 8B | :D7 5G 7G 5B', 'A')).toEqual([
      'b3 C4',
      '4 D4',
      '5 E4',
      'b7 G4',
      'b7 C4',
      '1 D4',
      '2 E4',
    ]);
  });

  test('altered notes are named as the chord has them', () => {
    expect(degrees(':E7#9 0e 4G 3e')).toEqual(['1 E4', '5 B3', '#9 G4']);
    expect(degrees(':Bm7b5 7E 1A 3A 0A', 'C')).toEqual(['1 B2', '7 B♭2', 'b2 C3', 'b7 A2']);
  });

  test('without a chord there is a degree of the key alone', () => {
    const [note] = degreesOf(readShorthand('5G').phrase, { ...setup, key: key('A minor') });
    expect(note).toMatchObject({ chord: null, degree: null, keyDegree: 'b3', isChordTone: false });
  });

  test('notes that are long or struck as the chord arrives are those the ear rests on', () => {
    const rests = degreesOf(readShorthand(':Am /8 5G 7G /4 5D /8 7D | :G 5D').phrase, setup).map(
      ({ isHeld }) => isHeld,
    );
    expect(rests).toEqual([true, false, true, false, true]);
  });

  test('dead notes and rests are none', () => expect(degrees(':A7 xG - 5G')).toHaveLength(1));

  // Source: circle of fifths, handbook table.
  test.each([
    ['C', 0],
    ['G', 7],
    ['F', 5],
    ['F# minor', 6],
    ['Bb', 10],
    ['D minor', 2],
    ['Eb minor', 3],
  ])('the tonic of %s is pitch class %d', (name, tonic) => expect(tonicOf(key(name))).toBe(tonic));
});

describe('names of chords', () => {
  // Source: voicings of the guitar, common practice; the first row is the worked example of the trade.
  test.each([
    ['x-9-8-9-7-x', 'F♯7', 'B'],
    ['3-2-0-0-0-3', 'G', 'G'],
    ['x-3-2-0-1-0', 'C', 'C'],
    ['x-x-0-2-3-1', 'Dm', 'C'],
    ['x-0-2-0-1-0', 'Am7', 'C'],
    ['0-2-2-1-0-0', 'E', 'E'],
    ['x-2-1-2-0-2', 'B7', 'E'],
    ['x-x-0-2-2-2', 'Dmaj7', 'D'],
    ['x-0-2-2-3-0', 'Asus4', 'A'],
    ['0-2-2-x-x-x', 'E5', 'E'],
    ['x-2-0-0-3-3', 'G/B', 'G'],
    ['2-0-0-2-3-2', 'D/F♯', 'D'],
  ])('%s is %s', (shape, symbol, of) => expect(named(shape, of)[0]).toBe(symbol));

  test('each says what speaks for it; alternatives follow', () => {
    const names = nameChord(fretted('x-9-8-9-7-x'), { key: key('B') });
    expect(names[0]?.because).toBe('its root in the bass, without its 5');
    const sixth = nameChord(fretted('x-0-2-2-1-2'), { key: key('A') });
    expect(sixth.map(({ symbol }) => symbol)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^(Am6|F♯m7b5\/A)$/)]),
    );
  });

  test('a bass that another plays counts', () => {
    expect(nameChord([60, 64, 67], { bass: 45 }).map(({ symbol }) => symbol)[0]).toBe('Am7');
  });

  test('two notes are a power chord or an interval, one is nothing', () => {
    expect(nameChord([40, 47]).map(({ symbol }) => symbol)).toEqual(['E5']);
    expect(nameChord([47, 52])[0]?.because).toBe('a power chord, its fifth in the bass');
    expect(nameChord([55, 59])[0]).toMatchObject({ symbol: 'G–B', because: 'a third' });
    expect(nameChord([40, 52])).toEqual([]);
    expect(nameChord([])).toEqual([]);
  });

  test('never fails, whatever sounds', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 30, max: 90 }), { maxLength: 7 }), (midis) => {
        for (const { symbol } of nameChord(midis)) expect(symbol).not.toBe('');
      }),
    );
  });
});

describe('scales', () => {
  const names = (...chords: readonly string[]) => scalesFor(chords).map(({ name }) => name);

  // Source: common practice, E lydian and F♯ mixolydian have the same notes.
  test('E lydian and F♯ mixolydian have the same notes', () => {
    const find = (chord: string, name: RegExp) =>
      scalesFor([chord], { key: key('E') }).find((scale) => name.test(scale.name));
    const lydian = find('Emaj7#11', /E lydian$/);
    const mixolydian = find('F#7', /F♯ mixolydian/);
    expect([...(lydian?.chromas ?? [])].toSorted()).toEqual([...(mixolydian?.chromas ?? [1])].toSorted());
  });

  // Source: common practice.
  test.each([
    ['A7', 'A mixolydian'],
    ['Am7', 'A minor pentatonic'],
    ['Cmaj7', 'C major'],
    ['C', 'C major pentatonic'],
    ['E7b9', 'E phrygian dominant'],
  ])('over %s comes %s first', (chord, scale) => expect(names(chord)[0]).toBe(scale));

  test('one scale over a progression, with what its chords share', () => {
    const [first] = scalesFor(['Am', 'Dm', 'Em']);
    expect(first).toMatchObject({ name: 'A aeolian', missing: [], common: [] });
    expect(scalesFor(['G', 'Em'])[0]?.because).toBe('holds every chord tone; the chords share G, B in it');
  });

  test('says what a scale lacks; chords that are not known are left out', () => {
    expect(scalesFor(['A7']).find(({ name }) => name === 'A major pentatonic')?.because ?? 'lacks G').toBe('lacks G');
    expect(scalesFor(['nonsense'])).toEqual([]);
  });

  test('a phrase against a scale: its share inside, and what leaves', () => {
    const [scale] = scalesFor(['Am7']);
    if (!scale) throw new Error('a minor seventh has a scale');
    const { inside, leaving } = fitOf(readShorthand('/4 5G 7G 5B 6G').phrase, scale, setup);
    expect(inside).toBe(0.75);
    expect([...leaving.keys()]).toEqual([1]);
    expect(fitOf(readShorthand('').phrase, scale, setup).inside).toBe(1);
  });
});

describe('arpeggio shapes', () => {
  const found = (text: string, of = 'C') =>
    arpeggiosOf(readShorthand(text).phrase, { ...setup, key: key(of) }).map(
      ({ symbol, from, shape, notes }) => `${symbol} from ${from}, ${shape}, ${notes}`,
    );
  // Source: common practice, the tones of the chords.
  test('a sweep through A minor', () =>
    expect(found('12A 10D 9G 10B 8e 12e', 'A minor')).toEqual(['Am from 1, in one box, 6']));
  test('one note a string', () => expect(found('7D 5G 5B 3e')).toEqual(['Am7 from 1, one note a string, 4']));
  test('a seventh chord from its third, in one box', () =>
    expect(found('7D 5G 8G 6B', 'C')).toEqual(['F7 from 3, in one box, 4']));
  test('C7 up and down in a box', () =>
    expect(found('8E 7A 10A 8D 10D 8D 10A 7A', 'F')).toEqual(['C7 from 1, in one box, 8']));
  test('a scale is none', () => expect(found('8E 10E 7A 8A 10A 7D 9D 10D')).toEqual([]));
  test('the chord above wins where two would do', () => {
    expect(found(':Am7 5E 8E 7A 5D')).toEqual(['Am7 from 1, in one box, 4']);
    expect(found(':C6 5E 8E 7A 5D')).toEqual(['C6 from 6, in one box, 4']);
  });
});

describe('pedal basses', () => {
  // Source: common practice: D major over an E that it does not have.
  test('a chord over a foreign bass is told as one', () => {
    const names = nameChord([40, 50, 57, 62, 66], { key: key('A') });
    expect(names.map(({ because }) => because)).toContain('D over E as a pedal');
  });
});
