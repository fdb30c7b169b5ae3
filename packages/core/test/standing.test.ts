import { describe, expect, test } from '@jest/globals';
import {
  centsAt,
  eventsOf,
  heardOf,
  perform,
  playOut,
  readShorthand,
  samePhrase,
  techniquesOf,
  unroll,
  writeShorthand,
  type PlayedNote,
} from '../src/notation/index.ts';
import { moveTo, usualGuitar, withFretPositions, bestPath, fretPositionsOnPath } from '../src/fretboard/index.ts';
import { planStrokes } from '../src/picking/index.ts';
import { cutPoints } from '../src/pieces/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { makeVariant } from '../src/variants/index.ts';

const SETUP = { tuning: TUNINGS.standard, capo: 0 };
const read = (text: string) => readShorthand(text).phrase;
const play = (text: string) => perform(read(text), { ...SETUP, bpm: 60 });
const told = (text: string) => readShorthand(text).problems.map(({ code }) => code);
const mends = (text: string) =>
  readShorthand(text).problems.flatMap(({ fix, otherFixes = [] }) =>
    [fix, ...otherFixes].flatMap((one) =>
      one ? [text.slice(0, one.span.from) + one.text + text.slice(one.span.to)] : [],
    ),
  );
/** Start, length, string and how it is set going. */
const struck = (notes: readonly PlayedNote[]) =>
  notes.map(({ startSeconds, durationSeconds, string, attack }) => [startSeconds, durationSeconds, string, attack]);
/** The pitch that a string sounds at a time, MIDI. */
const pitchAt = (notes: readonly PlayedNote[], string: number, seconds: number) => {
  const note = notes.findLast((one) => one.string === string && one.startSeconds <= seconds);
  return (note?.midi ?? NaN) + centsAt(note?.contour ?? [], seconds - (note?.startSeconds ?? 0)) / 100;
};

describe('a bend that stands', () => {
  test('rings on until it is let down, over another note; it is picked once', () => {
    const notes = play('/4 12Bb1 12el r -');
    expect(struck(notes)).toEqual([
      [0, 2, 2, 'pick'],
      [1, 2, 1, 'pick'],
      [2, 1, 2, 'none'],
    ]);
    expect([0, 0.25, 1.9, 2, 2.25, 2.9].map((at) => pitchAt(notes, 2, at))).toEqual([71, 73, 73, 73, 71, 71]);
  });

  test('is let down as something else is struck', () => {
    const notes = play('/4 12Bb1 12e+rB');
    expect(struck(notes).slice(1)).toEqual([
      [1, 1, 1, 'pick'],
      [1, 1, 2, 'none'],
    ]);
    expect([pitchAt(notes, 2, 1), pitchAt(notes, 2, 1.25)]).toEqual([73, 71]);
  });

  test('is what a pull-off after a tap falls back to, and is let down then', () => {
    const notes = play('/8 14Gb.5 t18 p14r');
    expect([0.4, 0.6, 1, 1.3].map((at) => pitchAt(notes, 3, at))).toEqual([70, 74, 70, 69]);
    expect(told('/8 14Gb.5 t18 p14r')).toEqual([]);
  });

  test('is struck again where it stands, and told where the fret is another', () => {
    expect(pitchAt(play('/4 15Bb1 15B^'), 2, 1.1)).toBe(76);
    expect(told('/4 15Bb1 12B^')).toEqual(['struck-unbent']);
    expect(mends('/4 15B 12B^')).toEqual(['/4 15B 12Bpb1']);
    expect(techniquesOf(read('15Bb1 15B^')).has('picked again while bent')).toBe(true);
  });

  test('goes on by so much, slowly, and with vibrato', () => {
    const [, event] = eventsOf(read('15Bb.5 bb1.5B~'));
    expect(event?.item.notes).toEqual([
      { string: 2, fret: 15, held: 0.5, moves: [{ kind: 'bend', steps: 1.5, slow: true }], vibrato: 'narrow' },
    ]);
  });

  test.each(['15Bb1 - r', '15Bb1 12B r', '15Bb1, r', '15B r', 'r', 'rG', '15Bb1 xB rB'])('%s: nothing stands', (text) =>
    expect(told(text)).toEqual(['nothing-bent']),
  );

  test.each([
    ['15B b1', '15Bb1'],
    ['15B full', '15Bb1'],
    ['15Bb1r b.5', '15Bb1rb.5'],
    ['15GB b1>17', '15GBb1'],
  ])('%s is read as %s, where nothing stands bent, and that is told', (text, same) => {
    expect(samePhrase(read(text), read(same))).toBe(true);
    expect(told(text)).toEqual(['bend-whose']);
  });

  test('where another string stands bent, it is asked which is meant', () => {
    expect(mends('12Bb1 15e b1')).toEqual(['12Bb1 15e b1B', '12Bb1 15eb1']);
    expect(mends('12Bb1 16Gb.5 r').slice(0, 2)).toEqual(['12Bb1 16Gb.5 rG', '12Bb1 16Gb.5 rB']);
  });

  test('without a later move nothing rings longer than it is written', () => {
    for (const { startSeconds, durationSeconds } of play('/4 12Bb1 12e 12Bb1 -'))
      expect([startSeconds, durationSeconds]).toEqual([startSeconds, 1]);
  });

  test.each(['/4 12Bb1 12el rB', '/4 12Bb1 12e+rB', '14Gb.5 t18G p14Gr', '12Bb1 rb.5B~', '15Bb1 15B^r', '14GBb1 rGB'])(
    '%s is written back as it stands',
    (text) => {
      const phrase = read(text);
      expect(samePhrase(read(writeShorthand(phrase, { strings: 'letters' })), phrase)).toBe(true);
      expect(samePhrase(read(writeShorthand(phrase, { strings: 'numbers' })), phrase)).toBe(true);
    },
  );

  test('is heard where it goes', () => {
    expect(heardOf(read('/4 12Bb1 12el r'), SETUP).map(({ struck: from, rests }) => [from, rests])).toEqual([
      [71, 73],
      [76, 76],
      [73, 71],
    ]);
  });

  test('what goes on takes no stroke of the pick', () => {
    const strokes = planStrokes(read('/8 12Bb1 12e r 12e'), 'alternate from down').strokes.map(({ stroke }) => stroke);
    expect(strokes).toEqual(['down', 'up', 'legato', 'down']);
    expect(playOut(read('{alt: 12Bb1 12e r 12e}'), SETUP).map(({ marks }) => marks.join())).toEqual([
      'down',
      'up',
      '',
      'down',
    ]);
  });

  test('moves over the neck together with its bend', () => {
    const guitar = usualGuitar(TUNINGS.standard);
    const phrase = read('/8 12Bb1 12e rB 5G');
    const moved = writeShorthand(moveTo(phrase, guitar, { strings: -1 }).phrase, { strings: 'letters' });
    expect(moved).toBe('16Gb1 17B rG 10D');
    const path = fretPositionsOnPath(bestPath(phrase, guitar, {}));
    const cheap = withFretPositions(phrase, (item) => path.get(item));
    const [first, , third] = eventsOf(cheap).map(({ item }) => item.notes[0]);
    expect([third?.string, third?.fret]).toEqual([first?.string, first?.fret]);
  });

  test('made easier, a wide bend that is let down later becomes two frets', () => {
    const { phrase } = makeVariant(read('/8 12Bb2 12e rB 5G'), 'easier', usualGuitar(TUNINGS.standard));
    expect(writeShorthand(phrase, { strings: 'letters' })).toBe('16B 12e 12B 5G');
  });

  test('no piece is cut off between the bend and where it goes on', () => {
    const phrase = read('/4 5G 12Bb1 12e rB | 5G 5G 5G 5G');
    const beats = cutPoints(phrase).map(({ at }) => at / 20_160);
    expect(beats).toEqual([1, 4, 5, 6, 7]);
  });
});

describe('the tremolo arm', () => {
  test('takes every string that sounds with it, and goes up and down several times', () => {
    const notes = play('/4 12el 5A+7Dw-1w+.5');
    expect(pitchAt(notes, 5, 1.125)).toBe(48);
    expect(pitchAt(notes, 4, 1.125)).toBe(55);
    expect(pitchAt(notes, 1, 1.125)).toBe(74);
    expect([pitchAt(notes, 5, 1.5), pitchAt(notes, 5, 1.625)]).toEqual([50, 51]);
  });

  test('holds over a span, but where an event says its own', () => {
    expect(eventsOf(read('{w-1: 7G 9Gw+2}')).map(({ item }) => item.arm)).toEqual([[-1], [2]]);
  });
});

describe('softer and louder', () => {
  test('by even steps of time', () => {
    const [first, , , last] = play('{fade: 7G 7 7 7}').map(({ level }) => level);
    expect(first).toBe(0.75);
    expect(last).toBeCloseTo(0.75 * 0.3);
    const [soft, loud] = play('{grow: 7G! 7}').map(({ level }) => level);
    expect(soft).toBeCloseTo(0.3);
    expect(loud).toBe(0.75);
  });
});

describe('notes of one stack that differ', () => {
  test('one is quiet', () => {
    expect(play('0E7A9D+(9G)').map(({ string, level }) => [string, level])).toEqual([
      [6, 0.75],
      [5, 0.75],
      [4, 0.75],
      [3, 0.4],
    ]);
    expect(samePhrase(read('(9G)+0E7A9D'), read('+0E7A9D'))).toBe(false);
    expect(eventsOf(read('(9G)+0E7A'))[0]?.item.notes[0]).toEqual({ string: 3, fret: 9, quiet: true });
  });

  test('one may be left out', () => {
    expect(eventsOf(read('0E7A9D+{optional: 9G}'))[0]?.item.notes[3]).toEqual({
      ...{ string: 3, fret: 9, sureness: 'optional' },
    });
  });

  test('each is plucked by its own finger; a letter at the end is of all', () => {
    expect(eventsOf(read('12Gqm+14Bqa'))[0]?.item.notes.map(({ plucked }) => plucked)).toEqual([
      'plucked-middle',
      'plucked-ring',
    ]);
    expect(eventsOf(read('12G+14Bqa'))[0]?.item.marks).toEqual(['plucked-ring']);
    expect(play('12Gqm+14B').map(({ attack }) => attack)).toEqual(['finger', 'pick']);
  });

  test('a finger has help, or another will do', () => {
    expect(eventsOf(read('9Gb1f3&2 9Gf34')).map(({ item }) => item.notes[0])).toMatchObject([
      { finger: '3', fingerBehind: '2' },
      { finger: '3', fingerOr: '4' },
    ]);
  });

  test.each(['0E+(9G', '0E+{optional: 9G', '0E+{nonsense: 9G}', '0E+()', '12Gqm+', '9Gf3&', '9Gf&2'])(
    '%s is told, and nothing is thrown',
    (text) => expect(told(text).length).toBeGreaterThan(0),
  );
});

describe('links of the second edition', () => {
  test('hammered from nowhere, with the string before as a way out', () => {
    expect(told('5G h14D')).toEqual(['hammer-from-nowhere']);
    expect(mends('5G h14D')).toEqual(['5G h14G']);
    expect(play('5G h14D')[1]?.attack).toBe('hammer');
  });

  test('a slide that goes on to another string: away from the one, into the other', () => {
    const notes = play('/4 10B S9G');
    expect(told('/4 10B S9G')).toEqual([]);
    expect(pitchAt(notes, 2, 0.99)).toBeLessThan(66);
    expect([pitchAt(notes, 3, 1), pitchAt(notes, 3, 1.5)]).toEqual([66, 64]);
    expect(mends('10B s9G')).toEqual(['10B S9G']);
  });
});

describe('two ways of a few notes', () => {
  test('the first plays, and its string is the one that stays', () => {
    expect(playOut(read('{either: 12G 14 // 7B 9} 5'), SETUP).map(({ notes }) => notes[0]?.midi)).toEqual([67, 69, 60]);
  });

  test.each([
    ['{either: 12G 14 // 7B}', ['ways-differ']],
    ['5G {either: h7 // 9G} h9', ['ways-differ', 'link-without-note', 'link-without-note']],
    ['{either: 12G}', ['unknown-item']],
    ['7G // 9G', ['unknown-item']],
    ['{either: {m: 7G // 9G }}', ['unknown-item', 'unknown-item']],
  ])('%s: %j', (text, codes) => expect(told(text)).toEqual(codes));
});

describe('stamps in a phrase', () => {
  test('say when what follows is heard, on its first pass', () => {
    const { stamps } = unroll(read('/4 5G @1:09.5 7G [ @1:12 5G ]2'));
    expect(stamps.map(({ at, seconds }) => [at / 20_160, seconds])).toEqual([
      [1, 69.5],
      [2, 72],
    ]);
  });

  test.each(['@1:75 7G', '@:10 7G', '@1:9 7G'])('%s is no time', (text) =>
    expect(told(text)).toEqual(['unknown-item']),
  );
  test('running backwards is told', () => expect(told('@0:10 7G @0:09 7G')).toEqual(['stamp-backwards']));
});
