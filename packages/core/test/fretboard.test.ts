import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  bestPath,
  gripMs,
  gripsFor,
  moveTo,
  oneBox,
  fretPositionsOf,
  positionsFor,
  usualGuitar,
  wayMs,
  withFretPositions,
  fretPositionsOnPath,
  type Grip,
  type Guitar,
} from '../src/fretboard/index.ts';
import { eventsOf, playOut, readShorthand, writeShorthand } from '../src/notation/index.ts';
import { readKey, TUNINGS } from '../src/pitch/index.ts';

const guitar = usualGuitar(TUNINGS.standard);
const read = (text: string) => readShorthand(text).phrase;
const write = (phrase: ReturnType<typeof read>) => writeShorthand(phrase, { strings: 'letters' });
const sounds = (phrase: ReturnType<typeof read>, on: Guitar = guitar) =>
  playOut(phrase, on).map(({ notes }) => notes.map(({ midi }) => midi));
const fingers = (text: string) =>
  bestPath(read(text), guitar, { asWritten: true }).steps.map(({ grip }) =>
    grip.notes.map(({ finger }) => finger).join('+'),
  );

describe('places of a pitch', () => {
  // Source: common practice; E4 is the open high e, B 5, G 9, D 14, A 19.
  test('E4 is found on five strings of a guitar with 22 frets', () =>
    expect(fretPositionsOf(64, guitar)).toEqual([
      { string: 1, fret: 0 },
      { string: 2, fret: 5 },
      { string: 3, fret: 9 },
      { string: 4, fret: 14 },
      { string: 5, fret: 19 },
    ]));

  test('two notes never share a string', () => {
    for (const places of positionsFor([64, 67, 71], guitar))
      expect(new Set(places.map(({ string }) => string)).size).toBe(3);
  });

  test('notes that cannot go together have no place', () => expect(positionsFor([40, 41], guitar)).toEqual([]));
});

describe('the cheapest path', () => {
  /** The same costs, every sequence of grips tried. */
  function bruteForce(text: string, on: Guitar): number {
    const events = eventsOf(read(text)).map(({ item }) => item);
    const options = events.map((item) => {
      const [note] = item.notes;
      const places =
        note?.fret == null ? [] : fretPositionsOf((TUNINGS.standard.openMidis[note.string - 1] ?? 0) + note.fret, on);
      return places.filter(({ fret }) => fret > 0).flatMap((place) => gripsFor(item, [place], { barre: null }));
    });
    const walk = (index: number, before: Grip | undefined): number => {
      if (index === options.length) return 0;
      const link = events[index]?.link === 'hammer' ? 'hammer' : events[index]?.link === 'slide' ? 'slide' : 'none';
      let best = Infinity;
      for (const grip of options[index] ?? []) {
        if (link !== 'none' && before?.notes[0]?.string !== grip.notes[0]?.string) continue;
        const way = before ? wayMs(before, grip, { link, free: false }, on) : 0;
        best = Math.min(best, gripMs(grip, on) + way + walk(index + 1, grip));
      }
      return best;
    };
    return walk(0, undefined);
  }
  const short = { ...guitar, frets: 9 };
  const note = fc.record({ fret: fc.integer({ min: 1, max: 9 }), letter: fc.constantFrom('G', 'B') });

  test('costs what the best of all sequences costs', () => {
    fc.assert(
      fc.property(fc.array(note, { minLength: 1, maxLength: 3 }), fc.boolean(), (notes, linked) => {
        const words = notes.map(({ fret, letter }) => `${fret}${letter}`);
        const last = notes.at(-1);
        if (linked && last && last.fret < 9) words.push(`h${last.fret + 1}`);
        const text = words.slice(-3).join(' ');
        // A link that lost its note is not one.
        if (/^h/.test(text)) return;
        const path = bestPath(read(text), short, { avoid: [] });
        const closed = path.steps.every(({ grip }) => grip.notes.every(({ fret }) => fret !== 0));
        const brute = bruteForce(text, short);
        if (closed) expect(path.costMs).toBeCloseTo(brute, 6);
        else expect(path.costMs).toBeLessThanOrEqual(brute + 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  test('the costs of its steps and ways add up to its own', () => {
    const { steps, costMs } = bestPath(read('5G 7G h9 8B 12e 0e 10B'), guitar);
    const held = steps.reduce((sum, step) => sum + step.gripMs, 0);
    expect(costMs).toBeGreaterThanOrEqual(held);
  });

  test('the pitches stay whatever places are found', () => {
    const text = '5G 7Gb1 8B p5 7Gs9 12e 13B7D /4 17B~';
    const path = fretPositionsOnPath(bestPath(read(text), guitar));
    expect(sounds(withFretPositions(read(text), (item) => path.get(item)))).toEqual(sounds(read(text)));
  });

  test('links stay on their string', () => {
    const strings = bestPath(read('7Dh9p7 12Gs14 15Bb1'), guitar).steps.map(({ grip }) => grip.notes[0]?.string);
    expect(new Set(strings.slice(0, 3)).size).toBe(1);
    expect(strings[3]).toBe(strings[4]);
  });

  test('open strings stay open where they should, and a string is avoided where there is another way', () => {
    const kept = fretPositionsOnPath(bestPath(read('0e 12B 0B'), guitar, { keepOpen: true }));
    expect([...kept.values()].map(([place]) => place?.fret === 0)).toEqual([true, false, true]);
    const avoided = bestPath(read('5e 8e 7e'), guitar, { avoid: [1] });
    expect(avoided.steps.every(({ grip }) => grip.notes[0]?.string !== 1)).toBe(true);
  });

  test('given notes stay', () => {
    const phrase = read('17B 5G 7G');
    const first = eventsOf(phrase)[0]?.item.span;
    const path = bestPath(phrase, guitar, { keep: (span) => span === first });
    expect(path.steps[0]?.grip.notes[0]).toMatchObject({ string: 2, fret: 17 });
  });
});

describe('fingers', () => {
  // Source: common practice, one finger a fret.
  test('a run of one finger a fret takes the four in order', () =>
    expect(fingers('5G 6G 7G 8G')).toEqual(['1', '2', '3', '4']));
  test('a whole-step bend takes the third', () => expect(fingers('7Gb1')).toEqual(['3']));
  test('a given finger is respected, and the others fit it', () => expect(fingers('5G 7Gf4')).toEqual(['2', '4']));
  test('a slide keeps its finger', () => {
    const [from, to] = fingers('5Gs9');
    expect(to).toBe(from);
  });
  test('an F barre chord lays the first finger over the strings', () =>
    expect(fingers('1E3A3D2G1B1e')).toEqual(['1+3+4+2+1+1']));
  test('an open string needs none', () => expect(fingers('0e 3e')[0]).toBe(''));

  test('others are offered with what they cost more', () => {
    const [, step] = bestPath(read('5G 7G 8G'), guitar, { asWritten: true }).steps;
    expect(step?.others.length).toBeGreaterThan(0);
    for (const { moreMs } of step?.others ?? []) expect(moreMs).toBeGreaterThanOrEqual(-1e-9);
  });
});

describe('one box', () => {
  test('a line up one string comes under a hand that stays', () => {
    const boxed = oneBox(read('5G 7G 9G 12G 14G'), guitar);
    expect(boxed?.outside).toEqual([]);
    expect(boxed && sounds(boxed.phrase)).toEqual(sounds(read('5G 7G 9G 12G 14G')));
    const positions = new Set(
      boxed?.path.steps.filter(({ grip }) => grip.notes[0]?.finger).map(({ grip }) => grip.position),
    );
    expect([...positions]).toEqual([boxed?.position]);
  });

  test('notes that no box holds together are told', () =>
    expect(oneBox(read('1E 20e'), guitar)?.outside).toHaveLength(1));
  test('nothing fretted has no box', () => expect(oneBox(read('- -'), guitar)).toBeUndefined());
});

describe('moving', () => {
  // Source: common practice: five frets up on the next thicker string, four across G and B.
  test('the same pitches one string thicker are five frets up, four across G and B', () => {
    expect(write(moveTo(read('5e 8B 7G 7D'), guitar, { strings: -1 }).phrase)).toBe('10B 12G 12D 12A');
  });

  test('a dead note does not leave the neck: it goes beside the rest, and that is told', () => {
    const over = moveTo(read('8B xe'), guitar, { semitones: 0, strings: 1 });
    expect(write(over.phrase)).toBe('3e xe');
    expect(over.lost.map(({ why }) => why)).toEqual([expect.stringContaining('one string thicker than the rest')]);
    expect(write(moveTo(read('xE'), guitar, { semitones: 0, strings: -1 }).phrase)).toBe('xE');
  });

  test('two frets up is a whole step, and the chord goes along', () =>
    expect(
      write(
        moveTo(read(':F#7 9D8G'), guitar, {
          semitones: 2,
          strings: 0,
          key: readKey('E') ?? { fifths: 4, mode: 'major' },
        }).phrase,
      ),
    ).toBe(':G#7 11D10G'));

  test('an octave up keeps the shape, twelve frets or other strings', () => {
    const { phrase, lost } = moveTo(read('3A 5A 2D 5D'), guitar, { octave: 1 });
    expect(lost).toEqual([]);
    expect(sounds(phrase)).toEqual(sounds(read('3A 5A 2D 5D')).map((notes) => notes.map((midi) => (midi ?? 0) + 12)));
  });

  test('there and back is the same phrase', () => {
    const shape = fc.array(
      fc.record({ fret: fc.integer({ min: 5, max: 12 }), letter: fc.constantFrom('A', 'D', 'G', 'B', 'e') }),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(shape, fc.integer({ min: -4, max: 9 }), (notes, semitones) => {
        const phrase = read(notes.map(({ fret, letter }) => `${fret}${letter}`).join(' '));
        const there = moveTo(phrase, guitar, { semitones, strings: 0 });
        expect(there.lost).toEqual([]);
        expect(write(moveTo(there.phrase, guitar, { semitones: -semitones, strings: 0 }).phrase)).toBe(write(phrase));
      }),
    );
  });

  test('bends do not come to lie on open strings, and chains move as one', () => {
    const { phrase, lost } = moveTo(read('5Gb1 7G h9'), guitar, { semitones: -5, strings: 0 });
    expect(write(phrase)).toBe('5Db1 2G h4G');
    expect(lost.map(({ why }) => why)).toEqual([expect.stringContaining('one string thicker')]);
  });

  test('fewer frets send high notes to a thinner string, or an octave lower, or say that they stay', () => {
    const small = { frets: 19 };
    expect(write(moveTo(read('21B'), guitar, { guitar: small }).phrase)).toBe('16e');
    const low = moveTo(read('/8 19e 22e'), guitar, { guitar: small, strings: 0, octaveBelow: true });
    expect(sounds(low.phrase).flat()).toEqual([83, 74]);
    expect(low.lost[0]?.why).toContain('octave lower');
    expect(moveTo(read('22e'), guitar, { guitar: small, strings: 0 }).lost[0]?.why).toContain('above fret 19');
  });

  test('another tuning keeps the pitches', () => {
    const dropD = { ...guitar, tuning: TUNINGS['drop D'] };
    const { phrase } = moveTo(read('3E 5E 2A'), guitar, { guitar: dropD });
    expect(sounds(phrase, dropD)).toEqual(sounds(read('3E 5E 2A')));
  });

  test('natural harmonics stay and are listed', () => {
    const { phrase, lost } = moveTo(read('12e* 5e'), guitar, { semitones: 2, strings: 0 });
    expect(write(phrase)).toBe('12e* 7e');
    expect(lost[0]?.why).toContain('harmonic');
  });

  test('a barre moves along', () =>
    expect(write(moveTo(read('{bar5: 5E 7A 5B }'), guitar, { semitones: 2, strings: 0 }).phrase)).toBe(
      '{bar7: 7E 9A 7B }',
    ));
});

describe('what a finger must press', () => {
  const low: Guitar = { ...guitar, frets: 12 };
  const places = (text: string, on: Guitar = guitar) =>
    bestPath(read(text), on).steps.map(({ grip }) =>
      grip.notes.map(({ string, fret }) => `${fret}/${string}`).join('+'),
    );

  test('is never put on an open string, a plain note may be', () => {
    expect(places('/8 0e 5B 0e')).toEqual(['0/1', '0/1', '0/1']);
    for (const marked of ['5B~', '5Bb1', '5Bpb1']) expect(places(`/8 0e ${marked} 0e`)[1]).not.toBe('0/1');
  });

  test('reaches its trill, too, on a neck that ends', () => {
    expect(places('/8 2e 7Btr10', low)[1]).not.toBe('11/3');
    for (const [, place] of [places('/8 12D 7Gtr11', low)]) {
      const fret = Number(place?.split('/')[0]);
      expect(fret + 4).toBeLessThanOrEqual(12);
    }
  });

  test('moved down to the open string it is looked for elsewhere; a plain note stays there', () => {
    const down = (text: string) => write(moveTo(read(text), guitar, { semitones: -2, strings: 0 }).phrase);
    expect(down('2G')).toBe('0G');
    expect(down('2Gb1')).toBe('5Db1');
    expect(down('2Gpb1')).toBe('5Dpb1');
    expect(down('2G~')).toBe('5D~');
    expect(down('<2G')).toBe('<5D');
  });
});
