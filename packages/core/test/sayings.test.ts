import { describe, expect, test } from '@jest/globals';
import { foldCase, readShorthand, samePhrase, sayAnotherWay, swapWays, type Edited } from '../src/notation/index.ts';
import { readCorpus } from './corpus.ts';

const read = (text: string) => readShorthand(text).phrase;
const done = (text: string, edited: Edited) =>
  edited.ok ? text.slice(0, edited.edit.span.from) + edited.edit.text + text.slice(edited.edit.span.to) : edited.why;
const all = (text: string) => ({ from: 0, to: text.length });
const another = (text: string, span = all(text)) => done(text, sayAnotherWay(text, read(text), span, read));

describe('a selection said another way', () => {
  test.each([
    ['7G 9G 5G', '7@3 9@3 5@3'],
    ['7@3 9@3 5@3', '7G 9 5'],
    ['7G 9 5', '7G 9G 5G'],
    ['0E7A9D', '0@6+7@5+9@4'],
    ['7GB 5GB%2 h7', '7@32 5@32%2 h7'],
    ['12Bb1 12el rB', '12@2b1 12@1l r@2'],
    ['5G/8 7G~ (9G)', '5@3/8 7@3~ (9@3)'],
    ['d12B [ 10B 9G ]x3', 'd12@2 [ 10@2 9@3 ]x3'],
  ])('%s → %s', (text, other) => expect(another(text)).toBe(other));

  test('only what is selected', () => expect(another('7G 9G 5G', { from: 3, to: 5 })).toBe('7G 9@3 5G'));
  test('nothing to say', () => expect(another('- |')).toBe('There is no other way to say this.'));

  test('always says the same, over the corpus, and comes round again', () => {
    for (const { text, meter } of readCorpus().slice(0, 60)) {
      const reading = (one: string) => readShorthand(one, { meter }).phrase;
      let now = text;
      const seen = new Set([text]);
      for (let turn = 0; turn < 3; turn += 1) {
        const edited = sayAnotherWay(now, reading(now), all(now), reading);
        if (!edited.ok) break;
        now = done(now, edited);
        expect([now, samePhrase(reading(now), reading(text))]).toEqual([now, true]);
        seen.add(now);
      }
      expect(seen.size).toBeGreaterThan(1);
    }
  });
});

describe('the case of letters', () => {
  test.each([
    ['12E', '12e'],
    ['12e', '12E'],
    ['7g 9a', '7G 9A'],
    ['0E7A9D', '0e7A9D'],
    ['7Gb1 12e', '7Gb1 12E'],
  ])('%s → %s', (text, other) => expect(done(text, foldCase(text, read(text), all(text)))).toBe(other));
  test('nothing to fold', () => {
    expect(done('7@3', foldCase('7@3', read('7@3'), all('7@3')))).toBe('There is no letter of a string here.');
  });
});

describe('two ways', () => {
  test('change places in one step, and back', () => {
    const text = '5G {either: 12G 14 // 7B 9B } 5G';
    const swapped = done(text, swapWays(text, read(text), 16));
    expect(swapped).toBe('5G {either: 7B 9B // 12G 14 } 5G');
    expect(done(swapped, swapWays(swapped, read(swapped), 16))).toBe(text);
    expect(done(text, swapWays(text, read(text), 1))).toBe('Stand inside {either: … // … } to swap its ways.');
  });
});
