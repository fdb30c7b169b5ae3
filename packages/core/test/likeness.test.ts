import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ALIKE, compare, findAlike, sayLikeness } from '../src/likeness/index.ts';
import { readShorthand, transpose } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const options = { tuning: TUNINGS.standard, capo: 0, key: { fifths: 0, mode: 'major' } } as const;
const read = (text: string) => readShorthand(text).phrase;
const like = (a: string, b: string) => compare(read(a), read(b), options);
const LICK = '/8 5G 7G 5B 8B 7G 5G 7D 5D';

describe('what one phrase is of another', () => {
  test('itself', () => expect(like(LICK, LICK)).toMatchObject({ likeness: 1, kinship: 'same', differences: [] }));

  test('moved along the neck', () => {
    expect(like(LICK, '/8 7G 9G 7B 10B 9G 7G 9D 7D')).toMatchObject({
      likeness: 1,
      kinship: 'moved',
      frets: 2,
      semitones: 2,
    });
  });

  test('the same notes at another place, with the B string one fret off', () => {
    // Source: common practice: G and B string lie four semitones apart, all others five.
    expect(like('/8 5G 7G 5B 7B', '/8 10D 12D 9G 11G')).toMatchObject({
      likeness: 1,
      kinship: 'elsewhere',
      semitones: 0,
    });
  });

  test('an octave higher on other strings', () => {
    // Source: common practice: two strings and two frets, three where the B string is crossed.
    expect(like('/8 5A 7A 5D 7D', '/8 7G 9G 8B 10B')).toMatchObject({ likeness: 1, kinship: 'octave', semitones: 12 });
  });

  test('the same shape on the string below is a fourth lower', () => {
    const found = like('/8 5G 7G 9G 10G 9G', '/8 5D 7D 9D 10D 9D');
    expect(found).toMatchObject({ likeness: 1, kinship: 'transposed', semitones: -5 });
  });

  test('the contour two scale steps lower', () => {
    // G A B C and E F G A in C major: the semitone lies at another place.
    expect(like('/8 8B 10B 12B 13B', '/8 5B 6B 8B 10B')).toMatchObject({ likeness: 1, kinship: 'sequence', steps: -2 });
  });

  test('but for one beat', () => {
    const found = like('/4 5G 7G 5B 8B | 7G 5G 7D 5D', '/4 5G 7G 5B 8B | 7G 5G 7D 9D');
    expect(found).toMatchObject({ likeness: 7 / 8, differences: [{ place: 'bar 2, beat 4', what: 'changed' }] });
  });

  test('with a note more, a note less, another length', () => {
    expect(like('/8 5G 7G 5B 8B', '/8 5G 7G 9G 5B 8B').differences).toEqual([
      { place: 'bar 1, beat 2', what: 'added' },
    ]);
    expect(like('/8 5G 7G 5B 8B', '/8 5G 5B 8B').differences).toEqual([{ place: 'bar 1, beat 1', what: 'left out' }]);
    expect(like('/8 5G 7G 5B 8B', '/8 5G 7G 5B 8B/4').likeness).toBe(7 / 8);
  });

  test('nothing, of an empty one', () => expect(like('', LICK)).toMatchObject({ likeness: 0, kinship: 'none' }));

  test('moving any phrase along the neck is found again, by as many frets', () => {
    const notes = fc.array(fc.tuple(fc.integer({ min: 3, max: 12 }), fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e')), {
      minLength: 5,
      maxLength: 20,
    });
    fc.assert(
      fc.property(notes, fc.integer({ min: 1, max: 7 }), (line, frets) => {
        const text = line.map(([fret, string]) => `${fret}${string}`).join(' ');
        const moved = transpose(text, read(text), { from: 0, to: text.length }, frets);
        const found = like(text, moved.ok ? moved.edit.text : '');
        expect(found).toMatchObject({ likeness: 1, kinship: 'moved', frets });
      }),
    );
  });
});

describe('the threshold, on labelled pairs', () => {
  const ALIKE_PAIRS = [
    [LICK, '/8 5G 7G 5B 8B 7G 5G 7D 7D'],
    [LICK, '/8 5G 7G 5B 8Bb1 7G 5G 7D 5D'],
    [LICK, '/8 7G 9G 7B 10B 9G 7G 9D 9D'],
    [LICK, '/16 5G 7G /8 5B 8B 7G 5G 7D 5D'],
    ['/8 0E 0E 3E 5E 0E 0E 6E 5E', '/8 0E 0E 3E 5E 0E 0E 3E 0E'],
    ['/4 3A 2D 0G 1B', '/4 3A 2D 0G 3B'],
  ] as const;
  const OTHER_PAIRS = [
    [LICK, '/8 0E 3E 5E 0E 3E 6E 5E 3E'],
    [LICK, '/4 12e 15e 12B 14G'],
    [LICK, '/8 8e 5e 8B 5B 7G 5G 7D 5D'],
    ['/8 0E 0E 3E 5E 0E 0E 6E 5E', '/8 7A 7D 9D 7G 9G 7B 10B 7e'],
    ['/4 3A 2D 0G 1B', '/8 5D 7D 5G 7G'],
    ['/16 12e 14e 15e 14e 12e 15B 13B 12B', '/16 5D 7D 5G 5D 7A 5A 7A 5D'],
  ] as const;

  test('parts what is alike from what is not', () => {
    expect(ALIKE_PAIRS.map(([a, b]) => like(a, b).likeness >= ALIKE)).toEqual(ALIKE_PAIRS.map(() => true));
    expect(OTHER_PAIRS.map(([a, b]) => like(a, b).likeness >= ALIKE)).toEqual(OTHER_PAIRS.map(() => false));
  });
});

describe('in words', () => {
  const index = [
    { id: '1', name: '1A Opening', phrase: read(LICK) },
    { id: '2', name: '1B Low riff', phrase: read('/8 0E 0E 3E 5E 0E 0E 6E 5E') },
  ];
  const say = (text: string) => findAlike(read(text), index, options).map(sayLikeness);

  test('says what it is, and where it differs', () => {
    expect(say('/8 7G 9G 7B 10B 9G 7G 9D 7D')).toEqual(['1A Opening, moved up 2 frets.']);
    expect(say('/8 5G 7G 5B 8B 7G 5G 7D 7D')).toEqual(['The same as 1A Opening, but for bar 1, beat 4.']);
    expect(say('/8 12e 15e 12B 14G')).toEqual([]);
    expect(say('5G 7G')).toEqual([]);
  });
});

describe('looking only at what can be alike', () => {
  const NOTES = ['5G', '7G', '5B', '8B', '7D', '5D', '5e', '8e', '5G+5B'];
  const phrases = fc
    .array(fc.constantFrom(...NOTES), { minLength: 1, maxLength: 14 })
    .map((notes) => `/8 ${notes.join(' ')}`);

  test('finds what comparing everything note by note finds', () => {
    fc.assert(
      fc.property(
        phrases,
        fc.array(phrases, { maxLength: 5 }),
        fc.integer({ min: -3, max: 5 }),
        (own, others, frets) => {
          // One of them is the phrase itself, moved.
          const { phrase } = readShorthand(own);
          const moved = transpose(own, phrase, { from: 0, to: own.length }, frets);
          const texts = [...others, moved.ok ? moved.edit.text : own];
          const index = texts.map((text, at) => ({ id: String(at), name: String(at), phrase: read(text) }));
          const all = index
            .map(({ id, name, phrase: known }) => ({ ...compare(known, phrase, options), id, name }))
            .filter(
              ({ likeness, kinship, differences }) =>
                likeness >= ALIKE && kinship !== 'none' && phrase.items.length - differences.length >= 4,
            )
            .sort((a, b) => b.likeness - a.likeness);
          expect(findAlike(phrase, index, options)).toEqual(all);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('parts', () => {
  const say = (first: string, second: string) =>
    findAlike(read(second), [{ id: '1', name: '1A', phrase: read(first) }], options).map(sayLikeness);
  test.each([
    ['a phrase inside another', LICK, '/8 5B 8B 7G 5G 7D', 'A part of 1A.'],
    ['a part moved', LICK, '/8 7B 10B 9G 7G 9D', 'A part of 1A, 2 semitones higher.'],
    [
      'a lick that grows',
      '/8 5G 7G 5B 8B 7G',
      '/8 5E 8E 5G 7G 5B 8B 7G 10G 12G 9D',
      '1A, with more to it, from bar 1, beat 2.',
    ],
    [
      'a tail an octave lower',
      '/8 12e 15e 12e 7G 5G 7D 5D 7A',
      '/8 3E 0A 2A 5A 3A 5E 3E 0E',
      'Ends like 1A, an octave lower, from bar 1, beat 2.',
    ],
  ])('%s', (_, first, second, says) => expect(say(first, second)).toEqual([says]));
  test('four notes alike are no part', () => expect(say(LICK, '/8 12e 15e 12B 5G 7G 5B 8B 0E 3E')).toEqual([]));
});

describe('what sounds', () => {
  test('a bend is no plain note, and a bent pitch is the pitch it is bent to', () => {
    expect(like('/8 9G 7G 5G 7G', '/8 9Gb1 7G 5G 7G').likeness).toBe(0.75);
    expect(like('/8 8B 5B 8B 5B', '/8 7Bb.5 5B 7Bb.5 5B')).toMatchObject({ likeness: 1, hands: ['picked', 'bent'] });
  });
  test('a bend up and back is not hammered and pulled a step', () =>
    expect(like('10G h12 p10 12D', '5B 7Bb>8r 5B 7G')).not.toMatchObject({ kinship: 'moved', likeness: 1 }));
  test('the same pitches made otherwise are told so', () => {
    const index = [{ id: 'a', name: '1A', phrase: readShorthand('/8 5G 7G s9 7G 5G 7D').phrase }];
    const [found] = findAlike(readShorthand('/8 5G 7G 7Gb1 7G 5G 7D').phrase, index, options);
    expect(found && sayLikeness(found)).toBe('The notes of 1A at another place of the neck, bent instead of slid.');
  });
  test('where one has no rhythm, lengths are not compared, and notes are counted', () => {
    expect(like('/? 5G 7G 5B 8B', '/4 5G /8 7G /2 5B 8B').likeness).toBe(1);
    expect(like('/? 5G 7G 5B 8B', '/? 5G 7G 6B 8B').differences).toEqual([{ place: 'note 3', what: 'changed' }]);
  });
});

describe('the band that is looked at', () => {
  const note = fc
    .tuple(fc.integer({ min: 0, max: 12 }), fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e'))
    .map(([fret, string]) => `${fret}${string}`);
  /** The edit distance by its whole table, as handbooks have it; lengths of notes left out, since all are eighths. */
  function whole(a: readonly number[], b: readonly number[]): number {
    let above = Array.from({ length: b.length + 1 }, (_, j) => j);
    for (const [i, one] of a.entries()) {
      const row = [i + 1];
      for (const [j, other] of b.entries())
        row.push(Math.min((above[j] ?? 0) + (one === other ? 0 : 1), (above[j + 1] ?? 0) + 1, (row[j] ?? 0) + 1));
      above = row;
    }
    return above[b.length] ?? 0;
  }
  const OPEN: Readonly<Record<string, number>> = { E: 40, A: 45, D: 50, G: 55, B: 59, e: 64 };
  const midiOf = (typed: string) => (OPEN[typed.slice(-1)] ?? 0) + Number(typed.slice(0, -1));

  test('holds the least that turns one phrase into the other, however far they are apart', () => {
    fc.assert(
      fc.property(
        fc.array(note, { minLength: 1, maxLength: 60 }),
        fc.array(fc.tuple(fc.nat(59), fc.constantFrom('out', 'in', 'other'), note), { maxLength: 40 }),
        fc.integer({ min: 0, max: 5 }),
        (first, edits, moved) => {
          const second = [...first];
          for (const [at, what, other] of edits)
            second.splice(Math.min(at, second.length), what === 'in' ? 0 : 1, ...(what === 'out' ? [] : [other]));
          if (second.length === 0) return;
          const higher = second.map((one) => `${Number(one.slice(0, -1)) + moved}${one.slice(-1)}`);
          const found = like(`/8 ${first.join(' ')}`, `/8 ${higher.join(' ')}`);
          if (found.kinship === 'sequence' || found.kinship === 'none') return;
          const shifted = first.map((one) => midiOf(one) + found.semitones);
          const least = whole(shifted, higher.map(midiOf));
          expect(found.likeness).toBeCloseTo(1 - least / Math.max(first.length, higher.length), 9);
        },
      ),
    );
  });
});
