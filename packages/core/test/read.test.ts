import { describe, expect, test } from '@jest/globals';
import { makeTuning, TUNINGS } from '../src/pitch/index.ts';
import {
  barTicks,
  fractionOfWhole,
  playOut,
  readMeter,
  readShorthand,
  readValue,
  ticksOf,
  valueOfTicks,
  writeShorthand,
  writeValue,
  type ProblemCode,
  eventsOf,
} from '../src/notation/index.ts';

const problemsOf = (text: string) =>
  readShorthand(text).problems.map(({ code, span }) => [code, text.slice(span.from, span.to)]);
const fixed = (text: string) => {
  const fix = readShorthand(text).problems.find((problem) => problem.fix)?.fix;
  return fix ? text.slice(0, fix.span.from) + fix.text + text.slice(fix.span.to) : undefined;
};
const frets = (text: string) =>
  playOut(readShorthand(text).phrase, { tuning: TUNINGS.standard, capo: 0 }).map(({ notes }) =>
    notes.map(({ fret, string }) => `${fret ?? 'x'}@${string}`).join('+'),
  );
const written = (text: string, strings: 'letters' | 'numbers' = 'letters') =>
  writeShorthand(readShorthand(text).phrase, { strings });

describe('every problem, with its place', () => {
  test.each<[ProblemCode, string, string]>([
    ['unknown-item', '5G zz 7G', 'zz'],
    ['unknown-item', '5G "no end', '"no end'],
    ['unknown-item', '5G ] 7G', ']'],
    ['unknown-item', '5G tempo=fast 7G', 'tempo=fast'],
    ['unknown-item', '{loud: 5G }', '{loud:'],
    ['string-missing', '10 7G', '10'],
    ['string-missing', '5A7D 10', '10'],
    ['string-or-mark', '5G 9b', '9b'],
    ['string-or-mark', '5G d7', 'd7'],
    ['shape-changes', '7A9D s5', 's5'],
    ['fret-range', '5A7D s-6', 's-6'],
    ['string-missing', '5@9', '5@9'],
    ['fret-range', '37G', '37'],
    ['fret-range', '{bar40: 5G }', '{bar40:'],
    ['same-string-twice', '5D7D', '7D'],
    ['link-without-note', 'h5 7G', 'h5'],
    ['link-without-note', '_ 7G', '_'],
    ['link-without-note', '5G - h7', 'h7'],
    ['hammer-not-up', '7G h5', 'h5'],
    ['pull-not-down', '5G p7', 'p7'],
    ['slide-nowhere', '5G s5', 's5'],
    ['slide-nowhere', '<0G', '<0G'],
    ['release-without-bend', '9Gr 7G', 'r'],
    ['bend-on-open-string', '0Gb1', '0Gb1'],
    ['bend-too-wide', '7Gb3', '7Gb3'],
    ['bend-target', '14eb>12', 'b>12'],
    ['bend-unsized', '9Gb?', 'b?'],
    ['not-a-harmonic', '6D*', '6D*'],
    ['bar-length', '/4 5G 5G 5G 5G 5G | 5G 5G 5G 5G', '5G 5G 5G 5G 5G'],
    ['value-unknown', '/13 5G', '/13'],
    ['value-unknown', '5G/13', '/13'],
    ['repeat-unclosed', '[ 5G 7G', '['],
    ['repeat-unclosed', '{m: 5G', '{m:'],
    ['pass-outside-repeat', '[ 5G {4: 7G } ]3', '{4: 7G }'],
    ['too-long', '5G%5000', '%5000'],
    ['chord-unknown', ':Zz 5G', ':Zz'],
  ])('%s in “%s”', (code, text, place) => expect(problemsOf(text)).toEqual([[code, place]]));

  test('a bar that does not add up says which, how much it holds and how much it should', () => {
    const [problem] = readShorthand('/4 5G 5G 5G | 5G 5G 5G 5G').problems;
    expect(problem?.message).toBe('Bar 1 adds up to 3/4 of a whole note; 4/4 wants 1.');
  });
});

describe('what is certain is fixed', () => {
  test.each([
    ['9Gr 7G', '9G 7G'],
    ['7G h5', '7G p5'],
    ['5G p7', '5G h7'],
    ['/12 5G', '/8t 5G'],
    ['[ 5G 7G', '[ 5G 7G ]2'],
    ['{m: 5G', '{m: 5G }'],
    ['"soft', '"soft"'],
    ['5G 9b', '5G 9B'],
    ['5A7D s7', '5A7D s+2'],
    ['(5G 7G', '(5G) 7G'],
    ['5G) 7G', '(5G) 7G'],
  ])('“%s” becomes “%s”', (text, expected) => {
    expect(fixed(text)).toBe(expected);
    expect(readShorthand(expected).problems).toEqual([]);
  });

  test('what could be meant in two ways has no fix', () => {
    for (const text of ['10 5D', '5D7D', '7Gb3', '5G s5']) expect(fixed(text)).toBeUndefined();
  });
});

describe('events', () => {
  test('one fret on several strings, stacks with and without plus, numbers', () => {
    expect(frets('7GB 5A7D 15Bb1+12e xDGB 7@32 5@5+7@4')).toEqual([
      '7@3+7@2',
      '5@5+7@4',
      '15@2+12@1',
      'x@4+x@3+x@2',
      '7@3+7@2',
      '5@5+7@4',
    ]);
  });

  test('a linked fret takes the strings before it, a linked stack its own', () => {
    expect(frets('5A7D s3A5D s7')).toEqual(['5@5+7@4', '3@5+5@4', '7@5+7@4']);
    expect(frets('7Dh9p7')).toEqual(['7@4', '9@4', '7@4']);
  });

  test('so many in a row, and repeats within repeats', () => {
    expect(frets('0E%3')).toHaveLength(3);
    expect(frets('[ [ 0E ]2 3E ]3')).toHaveLength(9);
    expect(frets('[ 0E {1: 3E } {2-3: 5E } {last: 7E } ]4').join(' ')).toBe('0@6 3@6 0@6 5@6 0@6 5@6 0@6 7@6');
  });

  test('spans give their marks to all inside, and own marks stay', () => {
    const events = playOut(readShorthand('{m l: 5G 7G! } 9G').phrase, { tuning: TUNINGS.standard, capo: 0 });
    expect(events.map(({ marks }) => marks)).toEqual([
      ['palm-mute', 'let-ring'],
      ['accent', 'palm-mute', 'let-ring'],
      [],
    ]);
  });

  test('seven strings are numbers only', () => {
    const tuning = makeTuning('seven', [64, 59, 55, 50, 45, 40, 35]);
    expect(readShorthand('0@7 5@1', { tuning }).problems).toEqual([]);
    expect(readShorthand('7G', { tuning }).problems[0]?.message).toBe(
      'With 7 strings, write numbers: @1 is the thinnest.',
    );
  });

  test('a comment begins only where an item may', () => {
    expect(frets('5G # 7G 9G\n10G')).toEqual(['5@3', '10@3']);
    expect(problemsOf(':F#7/E 5G')).toEqual([]);
  });
});

describe('values and meters', () => {
  // Source: common practice: a dot adds half, a second one a quarter; three in the time of two.
  test.each([
    ['4', '1/4'],
    ['4.', '3/8'],
    ['4..', '7/16'],
    ['8t', '1/12'],
    ['16t5', '1/20'],
    ['8t6', '1/12'],
    ['16t7', '1/28'],
    ['8t9', '1/9'],
    ['64', '1/64'],
    ['?', '1/8'],
    ['g', '0'],
  ])('/%s lasts %s of a whole note', (text, fraction) => {
    const value = readValue(text);
    expect(value && fractionOfWhole(ticksOf(value))).toBe(fraction);
    expect(value && writeValue(value)).toBe(text);
  });

  test.each(['3', '128', '4...', '8t4', '8t1', '', 'x'])('/%s is none', (text) =>
    expect(readValue(text)).toBeUndefined(),
  );

  test('a meter has 1 to 32 beats of a whole note to a 32nd', () => {
    expect(readMeter('12/8')).toEqual({ beats: 12, unit: 8 });
    expect(fractionOfWhole(barTicks({ beats: 6, unit: 8 }))).toBe('3/4');
    for (const text of ['0/4', '33/4', '4/3', '4', 'a/b', '4/4 ']) expect(readMeter(text)).toBeUndefined();
  });

  test('the one plain value that lasts so long, where there is one', () => {
    expect(valueOfTicks(ticksOf({ base: 4, dots: 1 }))).toEqual({ base: 4, dots: 1 });
    expect(valueOfTicks(ticksOf({ base: 8, dots: 0 }) * 5)).toBeUndefined();
  });
});

describe('the canonical text', () => {
  test.each([
    ['5G  7G\n\n9G', '5G 7G 9G'],
    ['/8 5G /8 7G', '5G 7G'],
    ['7Dh9p7', '7D h9D p7D'],
    ['9Gb½ 9Gb', '9Gb.5 9Gb1'],
    ['14eb>17r0', '14eb1.5r'],
    ['5Gmd~', '5G~md'],
    ['[ 5G ]', '[ 5G ]2'],
    ['5@5+7@4', '5A7D'],
    ['/16 5G 7G/4 9G', '/16 5G /4 7G /16 9G'],
  ])('“%s” is written “%s”', (text, expected) => expect(written(text)).toBe(expected));

  test('with numbers', () => expect(written('5A7D 15Bb1+12e', 'numbers')).toBe('5@5+7@4 15@2b1+12@1'));
});

describe('a bend by the name of where it goes', () => {
  const steps = (text: string, capo = 0) =>
    eventsOf(readShorthand(text, { capo }).phrase).map(({ item }) => item.notes[0]?.moves?.map((move) => move.steps));
  test.each([
    ['12Gb>A', 0, [1]],
    ['12Gb>B', 0, [2]],
    ['12Gb>Bb', 0, [1.5]],
    ['12Gb>G#', 0, [0.5]],
    ['12Gb>B', 2, [1]],
    ['12G h14b>B', 0, [1]],
    ['12G 14b>B', 0, [1]],
    ['15Bb1r>D', 0, [1, 0]],
    ['15Bb1.5r>16', 0, [1.5, 0.5]],
    ['14Gb1>16', 0, [1]],
    ['15Bfull', 0, [1]],
    ['15Bhalf', 0, [0.5]],
  ])('%s with the capo at %i', (text, capo, expected) => expect(steps(text, capo).at(-1)).toEqual(expected));
});

describe('common slips of the hand', () => {
  /** The text after each of the fixes of its only problem, the likeliest first. */
  const meant = (text: string) => {
    const { problems } = readShorthand(text);
    expect(problems).toHaveLength(1);
    const [{ fix, otherFixes = [] } = { fix: undefined }] = problems;
    return [fix, ...otherFixes].flatMap((one) =>
      one ? [text.slice(0, one.span.from) + one.text + text.slice(one.span.to)] : [],
    );
  };
  test.each([
    ['5G B17', ['5G 17B']],
    ['9G/11', ['9G s11', '9G 11']],
    ['9G\\7', ['9G s7', '9G 7']],
    ['7G-9G', ['7G 9G', '7G s9']],
    ['7G-9', ['7G 9G', '7G s9']],
    ['7G-8B', ['7G 8B']],
    ['15B b1', ['15Bb1']],
    ['15B  ~~ 12B', ['15B~~ 12B']],
    ['5G 7d', ['5G 7D']],
    ['5A7D 7', ['5A7D 7A', '5A7D 7D']],
    ['14Gb1>17', ['14Gb1.5', '14Gb1']],
  ])('%s may mean %j', (text, ways) => {
    expect(meant(text)).toEqual(ways);
    for (const way of ways) expect(readShorthand(way).problems).toEqual([]);
  });
  test('a mark behind a rest, and nonsense, mean nothing', () => {
    expect(readShorthand('15B - b1').problems.map(({ fix }) => fix)).toEqual([undefined]);
    expect(readShorthand('hello').problems.map(({ fix }) => fix)).toEqual([undefined]);
  });
});
