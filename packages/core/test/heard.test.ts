import { describe, expect, test } from '@jest/globals';
import { degreesOf, nameChord, scalesFor, arpeggiosOf, chordTones } from '../src/harmony/index.ts';
import { factsOf } from '../src/licks/index.ts';
import { centsAt, heardOf, perform, readShorthand } from '../src/notation/index.ts';
import { OPEN_KEY, readKey, spell, TUNINGS, writeSpelling } from '../src/pitch/index.ts';

const setup = { tuning: TUNINGS.standard, capo: 0 };
const heard = (text: string) => heardOf(readShorthand(text).phrase, setup);
const rests = (text: string) => heard(text).map((note) => note.rests);
const key = (text: string) => readKey(text) ?? OPEN_KEY;
const degreesIn = (text: string, of: string) =>
  degreesOf(readShorthand(text).phrase, { ...setup, key: key(of) }).map(({ degree, keyDegree }) => degree ?? keyDegree);

describe('the pitch a note rests on', () => {
  // MIDI numbers in standard tuning; the rules are those of the ear, common practice.
  test.each([
    ['15Bb1', 76],
    ['15B', 74],
    ['10Gb.5', 66],
    ['7Gb1.5', 65],
    // Let down in equal parts it rests on the bent pitch.
    ['10Bb1r', 71],
    ['10Bb1r.5', 71],
    // Let down right away, for most of its time: slowly up, then down to stay.
    ['/1 10Bbb1r', 69],
    // Upward all the way: of equals the later.
    ['10Bb.5b1', 71],
    // Bent before it is struck, and picked again at the top.
    ['10Bpb1', 71],
    ['10Bpb1r', 71],
    ['10Bpb1b1.5', 72],
    ['t12G', 67],
    ['12G*', 67],
    ['7G*', 74],
    ['5G*p', 72],
    ['5Gtr7', 60],
  ])('%s rests on %d', (text, midi) => expect(rests(text)[0]).toBeCloseTo(midi, 1));

  test('a bend by a quarter step rests a quarter step higher, and is named by its fret', () => {
    expect(rests('8Bb.25')).toEqual([67.5]);
    expect(degreesIn('8Bb.25', 'A minor')).toEqual(['b7']);
  });
  test('a unison bend rests on its partner, whatever room its size leaves', () => {
    for (const text of ['15Bb1+12e', '14Gb1+12B', '15Bb.5-1+12e', '15Bb?+12e']) {
      const [a, b] = rests(text).toSorted((x, y) => x - y);
      expect(a).toBe(b);
    }
    expect(rests('15Bb.5+12e')).toEqual(expect.arrayContaining([75, 76]));
  });
  test('a slide rests on its target, what it comes from on its own fret', () =>
    expect(rests('7G s9')).toEqual([62, 64]));
  test('a tap on a bent string sounds with the bend, and so does what it is pulled off to', () =>
    expect(rests('7Gb1 t12 p7')).toEqual([64, 69, 64]));
  test('what it passes through, and how it is made', () => {
    expect(heard('10Bb1r')[0]).toMatchObject({ struck: 69, rests: 71, through: [69], how: 'bent' });
    expect(heard('5G')[0]).toMatchObject({ struck: 60, rests: 60, through: [], how: 'fretted' });
    expect(heard('7Gb1 t12')[1]).toMatchObject({ struck: 69, how: 'tapped' });
    expect(heard('xG')).toEqual([]);
  });

  test('it is the pitch that the performance holds longest', () => {
    for (const text of ['15Bb1', '10Gb.5', '10Bpb1', '10Bb1r.5b1', '7G', '10Bb.5b1']) {
      const [note] = perform(readShorthand(`/1 ${text}`).phrase, { ...setup, bpm: 60 });
      if (!note || note.midi === null) throw new Error('a note sounds');
      const counts = new Map<number, number>();
      for (let at = 0.001; at < note.durationSeconds; at += 0.01) {
        const midi = Math.round((note.midi + centsAt(note.contour, at) / 100) * 4) / 4;
        counts.set(midi, (counts.get(midi) ?? 0) + 1);
      }
      const longest = Math.max(...counts.values());
      expect(counts.get(rests(`/1 ${text}`)[0] ?? NaN)).toBeGreaterThan(0.95 * longest);
    }
  });
});

describe('what is played on', () => {
  const cents = (text: string, index: number) => {
    const note = perform(readShorthand(text).phrase, { ...setup, bpm: 60 })[index];
    return note && (note.midi ?? 0) * 100 + centsAt(note.contour, note.durationSeconds);
  };
  test('a bend slid on to its own pitch arrives without a jump', () => expect(cents('/4 7Gb.5s8', 0)).toBe(6300));
  test('a pre-bend on a string that stands bent says its own height', () => {
    const notes = perform(readShorthand('/4 12Bb1 t17pb1').phrase, { ...setup, bpm: 60 });
    expect(notes[1]?.contour[0]?.cents).toBe(200);
  });
  test('what may ring ends at a rest', () => {
    const [note] = perform(readShorthand('/4 {l: 5G} - - -').phrase, { ...setup, bpm: 60 });
    expect(note?.durationSeconds).toBe(1);
  });
});

describe('degrees of what sounds', () => {
  test.each([
    ['/4 :Em 15Bb1', '1', 'E5', true],
    ['/4 :G 10Bb1', '3', 'B4', true],
    ['/4 :C 6Bb1', '5', 'G4', true],
    ['/4 :D 10Gb.5', '3', 'F♯4', true],
    ['/4 :Em 15Bpb1', '1', 'E5', true],
    ['/4 :F#/E 0E', 'b7', 'E2', true],
  ])('%s is %s', (text, degree, name, isChordTone) => {
    const [note] = degreesOf(readShorthand(text).phrase, { ...setup, key: key('E minor') });
    expect(note).toMatchObject({ degree, name, isChordTone });
  });

  test('a lick is found by what sounds', () => {
    const facts = factsOf(readShorthand('10B 8e 10eb1 8e').phrase, { ...setup, key: key('A minor') });
    expect([facts.degrees, facts.steps]).toEqual([' 1 b3 5 b3 ', ' 3 4 -4 ']);
  });

  test('the lowered fifth of minor and blues is b5, the raised fourth of lydian #4', () => {
    expect(degreesIn('8G', 'A minor')).toEqual(['b5']);
    expect(degreesIn('8G', 'A blues')).toEqual(['b5']);
    expect(degreesIn(':Am 8G', 'C')).toEqual(['b5']);
    expect(degreesIn('11G', 'C lydian')).toEqual(['#4']);
  });
});

describe('keys as teachers write them', () => {
  // Source: common practice, the signatures of the modes.
  test.each([
    ['D harmonic minor', { fifths: -1, mode: 'minor', scale: 'harmonic minor' }],
    ['B flat', { fifths: -2, mode: 'major' }],
    ['Bb', { fifths: -2, mode: 'major' }],
    ['bb', { fifths: -2, mode: 'major' }],
    ['Bbm', { fifths: -5, mode: 'minor' }],
    ['B blues', { fifths: 2, mode: 'minor', scale: 'blues' }],
    ['A blues', { fifths: 0, mode: 'minor', scale: 'blues' }],
    ['E minor blues', { fifths: 1, mode: 'minor', scale: 'blues' }],
    ['G pentatonic', { fifths: 1, mode: 'major', scale: 'pentatonic' }],
    ['a minor pentatonic', { fifths: 0, mode: 'minor', scale: 'pentatonic' }],
    ['E lydian', { fifths: 5, mode: 'lydian' }],
    ['F# mixolydian', { fifths: 5, mode: 'mixolydian' }],
    ['F Sharp Mixolydian', { fifths: 5, mode: 'mixolydian' }],
    ['C lydian', { fifths: 1, mode: 'lydian' }],
    ['D phrygian', { fifths: -2, mode: 'phrygian' }],
    ['A M', { fifths: 3, mode: 'major' }],
    ['am', { fifths: 0, mode: 'minor' }],
  ])('%s', (text, read) => expect(readKey(text)).toEqual(read));
  test.each(['', 'H minor', 'A sideways', 'lydian', 'A minor, I think', 'Cb lydian blues'])('“%s” is none', (text) =>
    expect(readKey(text)).toBeUndefined(),
  );
  test.each([
    ['A', 73, 'C♯5'],
    ['A minor', 75, 'E♭5'],
    ['A blues', 75, 'E♭5'],
    ['C lydian', 66, 'F♯4'],
    ['E mixolydian', 67, 'G4'],
    ['D dorian', 68, 'A♭4'],
  ])('in %s %d is spelt %s', (of, midi, name) => expect(writeSpelling(spell(midi, key(of)))).toBe(name));
});

describe('chords by what sounds', () => {
  const named = (text: string, chord?: string) => {
    const notes = heard(text).map(({ rests: midi }) => midi);
    return nameChord(notes, { ...(chord !== undefined && { chord }) }).map(({ symbol }) => symbol);
  };
  test('the bass of a slash chord is a tone of it', () => {
    expect(chordTones('D/E')?.degrees.get(2)).toBe('2');
    expect(chordTones('C6/9')?.degrees.get(2)).toBe('9');
    expect(chordTones('D/F#')?.degrees.size).toBe(3);
  });
  test('C major is C, with nothing odd beside it', () => expect(named('3A2D0G')).toEqual(['C']));
  test.each([
    ['2E0D0G3B3e', 'G/F♯'],
    ['5G3B0e', 'Cadd9'],
    ['3A2D0G1B0e', 'C'],
    ['3E2D0G1B0e', 'C/G'],
    ['0A2D0G1B3e', 'Am7'],
  ])('%s is %s', (text, symbol) => expect(named(text)[0]).toBe(symbol));
  test('part of the chord in force is named by it', () => {
    expect(named('2D2G0e', 'A')[0]).toBe('A');
    expect(named('2A2D2B', 'A6')[0]).not.toBe('Bsus2');
    expect(named('0A2D2G2B2e', 'A6')[0]).toBe('A6');
  });
  test('a sweep through the sixth chord above it is called that', () => {
    const sweep = readShorthand(':A6 /16 0A 4A 2D 4D 2G 2B').phrase;
    expect(arpeggiosOf(sweep, { ...setup, key: key('A') }).map(({ symbol }) => symbol)).toEqual(['A6']);
  });
  test('over C with F♯ in the phrase, C lydian comes first', () => {
    const sounding = new Set(heard(':C 3A 7D 9D 11G').map(({ rests: midi }) => midi % 12));
    expect(scalesFor(['C'], { key: key('C'), sounding })[0]?.name).toBe('C lydian');
    expect(scalesFor(['C'], { key: key('C') })[0]?.name).toBe('C major pentatonic');
  });
});
