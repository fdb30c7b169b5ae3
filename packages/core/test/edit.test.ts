import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  eventsOf,
  insertItem,
  keepStrings,
  moveBetween,
  movedText,
  readShorthand,
  repeatEvent,
  rewriteEvents,
  sayMove,
  togglePalmMute,
  touchNeck,
  transpose,
  UNMOVED,
  wrapInRepeat,
  type Edit,
  type Edited,
  type EventItem,
  type Move,
  type Phrase,
  type Span,
} from '../src/notation/index.ts';
import { readKey, TUNINGS } from '../src/pitch/index.ts';
import { typedText } from './typing.ts';

const apply = (text: string, { span, text: inserted }: Edit) =>
  text.slice(0, span.from) + inserted + text.slice(span.to);
const phraseOf = (text: string) => readShorthand(text).phrase;
const all = (text: string): Span => ({ from: 0, to: text.length });

function outcome(text: string, edited: Edited): string {
  return edited.ok ? apply(text, edited.edit) : edited.why;
}
const edit = (how: (text: string, phrase: Phrase, span: Span) => Edited, text: string, span = all(text)) =>
  outcome(text, how(text, phraseOf(text), span));

describe('moving the selection along the neck', () => {
  const up = (text: string, frets: number, span?: Span) => edit((...of) => transpose(...of, frets), text, span);

  test('every fret moves, and no other number', () => {
    expect(up('/16 5D h7 p5 7A%2 15Bb1.5+12e 14eb>17/8. 7@32+5@5f1 (9Gtr12)', 2)).toBe(
      '/16 7D h9 p7 9A%2 17Bb1.5+14e 16eb>19/8. 9@32+7@5f1 (11Gtr14)',
    );
    expect(up('5A7D s3A5D xGB', 2)).toBe('7A9D s5A7D xGB');
    expect(up('7Dh9p7 <5G', -2)).toBe('5Dh7p5 <3G');
  });

  test('only what is selected', () => expect(up('5D 5D 5D', 1, { from: 3, to: 5 })).toBe('5D 6D 5D'));

  test('says which note would leave the neck', () => {
    expect(up('5D 1G', -2)).toBe('“1G” would go below the open string; nothing was moved.');
    expect(up('35D', 2)).toContain('beyond fret 36');
    expect(up('/8 |', 2)).toBe('Select the notes to move.');
  });

  test('up and back again is where it was, for any text', () => {
    fc.assert(
      fc.property(typedText, fc.integer({ min: 1, max: 5 }), (text, frets) => {
        // What lay off the neck may come to lie on it.
        if (readShorthand(text).problems.some(({ code }) => code === 'fret-range')) return;
        const there = transpose(text, phraseOf(text), all(text), frets);
        if (!there.ok) return;
        const moved = apply(text, there.edit);
        const before = eventsOf(phraseOf(text)).map(({ item }) => item.notes.map(({ fret }) => fret));
        const after = eventsOf(phraseOf(moved)).map(({ item }) => item.notes.map(({ fret }) => fret));
        expect(after).toEqual(before.map((frets_) => frets_.map((fret) => (fret === null ? null : fret + frets))));
        // A name may come back spelt otherwise.
        if (text.includes("'") || /[=>][A-G]/.test(text)) return;
        const back = transpose(moved, phraseOf(moved), all(moved), -frets);
        expect(back.ok && apply(moved, back.edit).replaceAll(/\b0+(?=\d)/g, '')).toBe(
          text.replaceAll(/\b0+(?=\d)/g, ''),
        );
      }),
      { numRuns: 300 },
    );
  });
});

describe('palm mute and repeats around a selection', () => {
  test('muting and muting again gives the text back', () => {
    const muted = edit(togglePalmMute, '0E 3E 5E 7A');
    expect(muted).toBe('{m: 0E 3E 5E 7A }');
    expect(edit(togglePalmMute, muted)).toBe('0E 3E 5E 7A');
    expect(edit(togglePalmMute, '0E 3E 5E', { from: 3, to: 5 })).toBe('0E {m: 3E } 5E');
  });

  test('a repeat is put around whole events', () => {
    expect(edit(wrapInRepeat, '0E 3E 5E', { from: 4, to: 7 })).toBe('0E [ 3E 5E ]2');
    expect(edit(wrapInRepeat, '[ 0E 3E ]2 5E')).toBe('The selection begins and ends in different brackets.');
  });
});

describe('typing less', () => {
  test('the event before the caret once more, a linked one with its root', () => {
    const again = (text: string) => outcome(text, repeatEvent(text, phraseOf(text), text.length));
    expect(again('5D 7Gb1r').trim()).toBe('5D 7Gb1r 7Gb1r');
    expect(again('5D h7').trim()).toBe('5D h7 5D h7');
    expect(again('/8')).toBe('There is no event before the caret.');
  });

  test('an inserted item stands apart', () => {
    expect(apply('5D7D', insertItem('5D7D', 4, '|'))).toBe('5D7D | ');
    expect(apply('5D 7D', insertItem('5D 7D', 3, '|'))).toBe('5D | 7D');
  });

  test('a touch of the neck adds an event, or a string to the event before', () => {
    const touch = (text: string, note: string, stack: boolean) =>
      apply(text, touchNeck(text, phraseOf(text), text.length, { note, stack }));
    expect(touch('5A', '7D', false)).toBe('5A 7D ');
    expect(touch('5A', '7D', true)).toBe('5A+7D');
    expect(touch('5A/4', '7D', true)).toBe('5A+7D/4');
    expect(touch('(5A)%2', '7D', true)).toBe('(5A+7D)%2');
    expect(touch('', '7D', true)).toBe('7D ');
  });
});

describe('a fret without a string', () => {
  const keep = (before: string, after: string) => keepStrings(before, after, phraseOf);
  test.each([
    ['5G 7 9', '5B 7 9', '5B 7G 9'],
    ['5G 7 9B 8', '5D 7 9B 8', '5D 7G 9B 8'],
    ['5GB 7', '5G 7', '5G 7GB'],
    ['5G 7', '5G 8', '5G 8'],
    ['5G (7)', '5B (7)', '5B (7G)'],
    ['5G d7 # 7', '5B d7 # 7', '5B d7G # 7'],
    ['5@3 7', '5@9 7', '5@9 7'],
    ['5G h7 9', '5B h7 9', '5B h7 9G'],
    ['2E 5G 7', '5G 7', '5G 7'],
    ['5G 7G', '5B 7G', '5B 7G'],
  ])('%s changed to %s is written %s', (before, after, kept) => expect(keep(before, after)).toBe(kept));

  test('lies where it lay, whatever a change before it does', () => {
    const strings = (text: string) =>
      eventsOf(phraseOf(text)).map(({ item }) => item.notes.map(({ string }) => string));
    const note = fc.tuple(fc.integer({ min: 1, max: 22 }), fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e', '', '', ''));
    fc.assert(
      fc.property(fc.array(note, { minLength: 2, maxLength: 12 }), fc.constantFrom('E', 'A', 'D', 'B'), (notes, to) => {
        const rest = notes.map(([fret, string]) => `${fret}${string}`).join(' ');
        const [before, after] = [`5G ${rest}`, `5${to} ${rest}`];
        expect(strings(keep(before, after)).slice(1)).toEqual(strings(before).slice(1));
      }),
    );
  });

  test('inside quiet brackets is written anew without them', () => {
    const text = '(9G 7G) 5G';
    const [first, second] = eventsOf(phraseOf(text)).map(({ item }) => item);
    if (!first || !second) throw new Error('nothing was read');
    const up = (item: EventItem): EventItem => ({ ...item, notes: item.notes.map((one) => ({ ...one, string: 2 })) });
    const changes = new Map([first, second].map((item) => [item, up(item)]));
    expect(rewriteEvents(text, changes, phraseOf)).toBe('(9B 7B) 5G');
    expect(transpose(text, phraseOf(text), all(text), 2)).toMatchObject({ ok: true, edit: { text: '11G 9G) 7G' } });
  });

  test('is moved and repeated as it stands', () => {
    expect(outcome('5G 7 9', transpose('5G 7 9', phraseOf('5G 7 9'), { from: 3, to: 6 }, 2))).toBe('5G 9 11');
  });
});

describe('a whole text moved along the neck', () => {
  const moved = (text: string, semitones: number, more: Partial<Move> = {}) =>
    movedText(
      text,
      phraseOf(text),
      { ...UNMOVED, semitones, ...more },
      { tuning: TUNINGS.standard, key: readKey('D') },
    );
  test.each([
    ['/8 5G  7G\n5B', 2, '/8 7G  9G\n7B'],
    [':Am /4 5D7G 10Bb>12r # at 5', 2, ':Bm /4 7D9G 12Bb>14r # at 5'],
    [':C {bar5: 5E7A7D } :G/B 7Gh9', 2, ':D {bar7: 7E9A9D } :A/C# 9Gh11'],
    ['{m: {bar3: 3E5A } 7Gtr9 } "at 5" :-', 2, '{m: {bar5: 5E7A } 9Gtr11 } "at 5" :-'],
    ['[ 5G 7G {last: 9G} ]2', -2, '[ 3G 5G {last: 7G} ]2'],
    ['xG 0E', 3, 'xG 3E'],
  ])('%s by %d', (text, frets, to) => expect(moved(text, frets)).toBe(to));
  test.each([
    ['5G 7 d9 (10)', 2, '7G 9 d11 (12)'],
    ['5G s+2 h-2', 2, '7G s+2 h-2'],
    ['14Gb1>16r>15 12B=F#', 2, '16Gb1>18r>17 14B=G#'],
    ['12Gb>A 7Gb1.5>Bb', 2, '14Gb>B 9Gb1.5>C'],
    ['7g 5a', 2, '9g 7a'],
    ['5G_ -/8 x 7', 2, '7G_ -/8 x 9'],
  ])('frets without a string, %s by %d', (text, frets, to) => expect(moved(text, frets)).toBe(to));
  test('nothing is moved off the neck', () => {
    expect(moved('5G 1G', -2)).toBeUndefined();
    expect(moved('{bar1: 5G }', -1)).toBeUndefined();
    expect(moved('35e', 3)).toBeUndefined();
  });
  test.each([
    ['5D 7D 7G', 5, 1, '5G 7G 8B'],
    ['5G 7G h9 7B', 5, 1, '6B 8B h10 7e'],
    ['5A7D 7Gb1r', 5, 1, '5D7G 8Bb1r'],
    ['7Gb>9 5Gtr7', 4, 1, '7Bb>9 5Btr7'],
    ['5DG x', 5, 1, '5G6B x'],
    ['xD 7D', 5, 1, 'xG 7G'],
    ['7@4 9@3', 5, 1, '7@3 10@2'],
    ['5e 7B', -12, -2, '2G 4D'],
    ['5G 7 h9 d8', 5, 1, '6B 8 h10 d9'],
    ['5DG 7', 5, 1, '5G6B 7G8B'],
    ['5DG 7', 9, 2, '5Be 7'],
    ['7Gb1=A s+2', 4, 1, '7Bb1=C# s+2'],
  ])('%s, %i semitones and %i strings: %s', (text, semitones, strings, to) =>
    expect(moved(text, semitones, { strings })).toBe(to),
  );
  test('a bar stays one only where all under it go equally far', () => {
    expect(moved('{bar5: 5A7D }', 5, { strings: 1 })).toBe('{bar5: 5D7G }');
    expect(moved('{bar5: 5D5G }', 5, { strings: 1 })).toBeUndefined();
  });
  test('no string is beyond the last', () => {
    expect(moved('5e', 5, { strings: 1 })).toBeUndefined();
    expect(moved('5E', -5, { strings: -1 })).toBeUndefined();
  });
  test('open strings stay open where they are to', () => {
    expect(moved('0E 5G {bar5: 5B5e } 0A7D', 2, { openStays: true })).toBe('0E 7G {bar7: 7B7e } 0A9D');
    expect(moved('0E 5G p0', 2, { openStays: true })).toBe('0E 7G p0');
  });

  describe('from one text to another', () => {
    const between = (from: string, to: string) =>
      moveBetween(
        { text: from, phrase: phraseOf(from) },
        { text: to, phrase: phraseOf(to) },
        { tuning: TUNINGS.standard, key: readKey('D') },
      );
    test.each([
      ['5G 7G', '5G 7G', UNMOVED],
      ['5G 7G', '7G 9G', { semitones: 2, strings: 0, openStays: false }],
      ['5D 7D 7G', '5G 7G 8B', { semitones: 5, strings: 1, openStays: false }],
      ['0E 5G 0E 7G', '0E 7G 0E 9G', { semitones: 2, strings: 0, openStays: true }],
      ['0E 2E', '2E 4E', { semitones: 2, strings: 0, openStays: false }],
      ['5G 7G', '7G  9G', undefined],
      ['5G 7G', '7G 10G', undefined],
      ['5G', '7G 9G', undefined],
      ['0E', '0A', { semitones: 5, strings: 1, openStays: false }],
      ['xG', 'xD', undefined],
    ])('%s to %s', (from, to, move) => expect(between(from, to)).toEqual(move));

    test.each([
      [UNMOVED, ''],
      [{ ...UNMOVED, semitones: 1 }, '1 fret higher'],
      [{ ...UNMOVED, semitones: -2, openStays: true }, '2 frets lower, open strings as they are'],
      [{ ...UNMOVED, semitones: 5, strings: 1 }, '1 string toward the thin ones, 5 semitones higher'],
      [{ ...UNMOVED, semitones: -12, strings: -2 }, '2 strings toward the thick ones, 12 semitones lower'],
    ])('%j is said “%s”', (move, says) => expect(sayMove(move)).toBe(says));
  });

  test('there and back again is the same text, byte for byte', () => {
    for (const text of [':C /8 {bar5: 5E7A }  8Bb1r\n# five\n12Gtr14', '[ 5G 7G ]2 "watch"'])
      expect(moved(moved(text, 4) ?? '', -4)).toBe(text);
  });
});
