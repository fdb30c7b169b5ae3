import { createRequire } from 'node:module';
import { Chord, ChordType, Interval, Note, Scale } from 'tonal';
import { describe, expect, test } from '@jest/globals';
import { chordTones, degreesOf, nameChord, scalesFor } from '../src/harmony/index.ts';
import { fretPositionsOf, usualGuitar, moveTo } from '../src/fretboard/index.ts';
import { perform, readShorthand, writeShorthand } from '../src/notation/index.ts';
import { fretDistanceMm, readKey, spell, TUNINGS, writeSpelling } from '../src/pitch/index.ts';

/** What of the reference is used: teoria, a music theory package that the product does not use. It ships without types. */
interface Teoria {
  chord(name: string): { notes(): readonly { chroma(): number }[] };
  scale(tonic: string, name: string): { notes(): readonly { chroma(): number }[] };
  interval(from: unknown, to: unknown): { semitones(): number };
  note(name: string): unknown;
}
const teoria = createRequire(import.meta.url)('teoria') as Teoria;
const chromas = (notes: readonly { chroma(): number }[]) => new Set(notes.map((note) => note.chroma()));
const sorted = (set: Iterable<number>) => [...set].toSorted((a, b) => a - b);

describe('chords against the package teoria 2.5', () => {
  const QUALITIES = ['', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', 'sus4', '6', 'm6', '9', '7#9', '7b9', 'add9', 'aug'];
  const ROOTS = ['C', 'F#', 'Bb', 'E', 'Ab'];
  const all = QUALITIES.flatMap((quality) => ROOTS.map((root) => `${root}${quality}`));
  test.each(all)('%s has the same notes', (symbol) => {
    const tones = chordTones(symbol);
    const ours = [...(tones?.degrees.keys() ?? [])].map((above) => ((tones?.root ?? 0) + above) % 12);
    expect(sorted(ours)).toEqual(sorted(chromas(teoria.chord(symbol).notes())));
  });

  /** The notes that the package gives for one of our names; nothing where it does not know the name. */
  function notesOf(name: string): ReadonlySet<number> {
    try {
      return chromas(teoria.chord(name.replaceAll('♯', '#').replaceAll('♭', 'b')).notes());
    } catch {
      return new Set();
    }
  }
  test.each(['C', 'Am', 'G7', 'F#m7', 'Bbmaj7', 'Dsus4', 'Edim7', 'Ab6', 'Cadd9', 'Em7b5'])(
    'what is named for the notes of %s has those notes in the package, too',
    (symbol) => {
      const notes = chromas(teoria.chord(symbol).notes());
      const midis = [...notes].map((chroma, index) => 48 + chroma + (index > 0 ? 12 : 0));
      const named = nameChord(midis).map((name) => name.symbol);
      expect(named.map((name) => sorted(notesOf(name)).join())).toContain(sorted(notes).join());
    },
  );

  test('notes that make no chord of the package are not called one', () => {
    const [first] = nameChord([48, 52, 55]);
    expect(sorted(notesOf(first?.symbol ?? ''))).toEqual([0, 4, 7]);
  });
});

describe('intervals against the same', () => {
  const setup = { tuning: TUNINGS.standard, capo: 0 };
  test.each([
    ['A4', '5e', '1'],
    ['C5', '8e', 'b3'],
    ['C#5', '9e', '3'],
    ['D5', '10e', '4'],
    ['E5', '12e', '5'],
    ['G5', '15e', 'b7'],
    ['G#5', '16e', '7'],
  ])('%s over A is what its fret says', (name, fret, degree) => {
    const semitones = teoria.interval(teoria.note('A4'), teoria.note(name)).semitones();
    const [note] = degreesOf(readShorthand(`:A7 ${fret}`).phrase, setup);
    expect(note?.degree).toBe(degree);
    expect((note?.midi ?? 0) - 69).toBe(semitones);
  });
});

describe('scale formulas against the same', () => {
  test.each([
    ['dorian', 'D', [2, 4, 5, 7, 9, 11, 0]],
    ['mixolydian', 'F#', [6, 8, 10, 11, 1, 3, 4]],
    ['lydian', 'E', [4, 6, 8, 10, 11, 1, 3]],
    ['majorpentatonic', 'G', [7, 9, 11, 2, 4]],
    ['minorpentatonic', 'A', [9, 0, 2, 4, 7]],
  ])('%s of %s', (name, tonic, ours) =>
    expect(sorted(chromas(teoria.scale(tonic, name).notes()))).toEqual(sorted(ours)),
  );
});

describe('facts of the trade', () => {
  const guitar = usualGuitar(TUNINGS.standard);
  // Source: common practice.
  test('a step-and-a-half bend at 14 sounds as fret 17', () => {
    const setup = { tuning: TUNINGS.standard, capo: 0, bpm: 90 };
    const [bent] = perform(readShorthand('/1 14Bb1.5').phrase, setup);
    const [plain] = perform(readShorthand('/1 17B').phrase, setup);
    const cents = bent?.contour.at(-1)?.cents ?? 0;
    expect((bent?.midi ?? 0) + cents / 100).toBe(plain?.midi);
  });

  // Source: common practice.
  test.each([
    ['e', 'B', 5],
    ['B', 'G', 4],
    ['G', 'D', 5],
    ['D', 'A', 5],
    ['A', 'E', 5],
  ])('the same pitches from %s on %s are %d frets up', (from, to, frets) => {
    const moved = moveTo(readShorthand(`7${from} 9${from}`).phrase, guitar, { strings: -1 });
    expect(writeShorthand(moved.phrase, { strings: 'letters' })).toBe(`${7 + frets}${to} ${9 + frets}${to}`);
  });

  // Source: a table of fret positions for a 25.5 inch (647.7 mm) scale as builders use it, from memory; nut to fret, mm.
  test.each([
    [1, 36.35],
    [5, 162.46],
    [7, 215.41],
    [12, 323.85],
    [19, 431.56],
    [24, 485.78],
  ])('fret %d lies %d mm from the nut', (fret, mm) => expect(fretDistanceMm(647.7, 0, fret)).toBeCloseTo(mm, 1));

  // Source: common practice.
  test('E is at B 17, high e 12, D 14 an octave below; G at G 12 and high e 15', () => {
    expect(fretPositionsOf(76, guitar)).toEqual(
      expect.arrayContaining([
        { string: 2, fret: 17 },
        { string: 1, fret: 12 },
      ]),
    );
    expect(fretPositionsOf(64, guitar)).toContainEqual({ string: 4, fret: 14 });
    expect(fretPositionsOf(67, guitar)).toContainEqual({ string: 3, fret: 12 });
    expect(fretPositionsOf(79, guitar)).toContainEqual({ string: 1, fret: 15 });
  });
});

describe('the dictionaries of two packages, all of them', () => {
  // tonal 6.4 and teoria 2.5; what one of them does not know is asked of the other.
  const plain = (name: string) => name.replaceAll('♯', '#').replaceAll('♭', 'b');
  function inTonal(name: string): ReadonlySet<number> {
    return new Set(Chord.get(plain(name)).notes.map((note) => Note.chroma(note)));
  }
  function inTeoria(name: string): ReadonlySet<number> {
    try {
      return chromas(teoria.chord(plain(name)).notes());
    } catch {
      return new Set();
    }
  }
  const types = ChordType.all().filter(({ intervals }) => intervals.length >= 3 && intervals.length <= 5);
  const notesOf = (intervals: readonly string[], root: number) =>
    intervals.map((interval) => root + Interval.semitones(interval));

  test('a name without a slash, given for a chord of the dictionary with all its notes, means those notes in both', () => {
    let [inBoth, named] = [0, 0];
    for (const { intervals } of types)
      for (const root of [48, 54, 58]) {
        const midis = notesOf(intervals, root);
        const heard = new Set(midis.map((midi) => midi % 12));
        for (const { symbol, because } of nameChord(midis)) {
          if (symbol.includes('/') || !because.includes('all its notes')) continue;
          named += 1;
          // In teoria an eleventh or thirteenth brings the ninth along.
          const opinions = [inTonal(symbol), ...(/1[13]/.test(symbol) ? [] : [inTeoria(symbol)])];
          for (const meant of opinions.filter(({ size }) => size > 0)) {
            expect([symbol, sorted(meant)]).toEqual([symbol, sorted(heard)]);
            inBoth += 1;
          }
        }
      }
    // Most names have an opinion of both.
    expect(named).toBeGreaterThan(90);
    expect(inBoth).toBeGreaterThan(named);
  });

  // What the trade plays daily; an added fourth, a sharp eleventh without its seventh and the like have no plain name.
  test.each([
    'major',
    'minor',
    'dominant seventh',
    'minor seventh',
    'major seventh',
    'suspended fourth',
    'suspended second',
  ])('a %s chord with its root in the bass is called so first, on every root', (name) => {
    const type = ChordType.all().find((one) => one.name === name);
    for (let root = 40; root < 52; root += 1) {
      const [first] = nameChord(notesOf(type?.intervals ?? [], root));
      expect(sorted(inTonal(first?.symbol ?? ''))).toEqual(
        sorted(new Set(notesOf(type?.intervals ?? [], root).map((midi) => midi % 12))),
      );
      expect(first?.symbol).not.toContain('/');
    }
  });

  test('every chord symbol of the dictionary has the tones that it has there', () => {
    for (const { aliases, intervals } of ChordType.all())
      for (const alias of aliases.filter((one) => one !== '' && !one.includes('/'))) {
        const tones = chordTones(`D${alias}`);
        if (!tones || Chord.get(`D${alias}`).intervals.join() !== intervals.join()) continue;
        expect([alias, sorted([...tones.degrees.keys()].map((above) => (tones.root + above) % 12))]).toEqual([
          alias,
          sorted(new Set(intervals.map((interval) => (2 + Interval.semitones(interval) + 12) % 12))),
        ]);
      }
  });

  const SCALES: readonly (readonly [ours: string, teorias: string])[] = [
    ['major', 'major'],
    ['aeolian', 'minor'],
    ['dorian', 'dorian'],
    ['phrygian', 'phrygian'],
    ['lydian', 'lydian'],
    ['mixolydian', 'mixolydian'],
    ['locrian', 'locrian'],
    ['harmonic minor', 'harmonicminor'],
    ['melodic minor', 'melodicminor'],
    ['major pentatonic', 'majorpentatonic'],
    ['minor pentatonic', 'minorpentatonic'],
    ['minor blues', 'blues'],
    ['whole tone', 'wholetone'],
  ];
  test.each(SCALES)('%s on every root, over the chords that call for it', (ours, teorias) => {
    for (const tonic of ['C', 'D', 'Eb', 'F#', 'G', 'A', 'Bb']) {
      const given = ['', 'm', '7', 'm7b5', 'aug'].flatMap((quality) => scalesFor([`${tonic}${quality}`]));
      const found = given.find(
        ({ name }) => name.endsWith(` ${ours}`) && name.split(' ').length === ours.split(' ').length + 1,
      );
      expect([tonic, sorted(found?.chromas ?? [])]).toEqual([
        tonic,
        sorted(chromas(teoria.scale(tonic.toLowerCase(), teorias).notes())),
      ]);
    }
  });

  // Every key that fits seven signs, every mode: letters and signs as the packages write them.
  test.each(['major', 'minor', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'locrian'])(
    'notes of every %s key',
    (mode) => {
      let keys = 0;
      for (const letter of 'CDEFGAB')
        for (const sign of ['', '#', 'b']) {
          const key = readKey(`${letter}${sign} ${mode}`);
          if (!key) continue;
          keys += 1;
          const names = Scale.get(`${letter}${sign} ${mode}`).notes;
          const ours = names.map((name) => plain(writeSpelling(spell(60 + Note.chroma(name), key), false)));
          expect(ours).toEqual(names);
        }
      expect(keys).toBe(15);
    },
  );
});
