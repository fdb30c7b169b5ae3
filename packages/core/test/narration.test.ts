import { describe, expect, test } from '@jest/globals';
import { cutNarration } from '../src/spoken/index.ts';

/** Invented for the tests. */
const PAGE = `Okay, this one is all about the bends, take your time with it.

[0:17] Start with five on the G, then seven on the G, bend it a whole step and let it down.
Next lick: eight on the B, bend it a whole step, then five on the high E.

[0:28.5] The solo goes ten on the B, hammer on to twelve, pull off to ten. That is the hook.
Part two is the same place: twelve on the G, then ten on the B with vibrato.

The chorus, in eighths: open low E twice, then three on the A.
Thank you for listening, and see you next week!`;

const lines = (page: string) =>
  cutNarration(page).map(({ label, role, phrases }) => [label, role, phrases.map(({ text }) => text)]);

describe('a page of talk', () => {
  test('is cut at its stamps, headings and next licks, each phrase with its words', () => {
    expect(lines(PAGE)).toEqual([
      ['1', 'riff', ['@0:17 /? 5G 7Gb1r', '/? 8Bb1 5e']],
      ['2', 'solo', ['@0:28.5 /? 10B h12B p10B', '/? 12G 10B~']],
      ['3', 'chorus', ['/8 0E%2 3A']],
    ]);
    const words = cutNarration(PAGE).flatMap(({ phrases }) =>
      phrases.map(({ words: { from, to } }) => PAGE.slice(from, to)),
    );
    expect(words[1]).toMatch(/^Next lick: eight on the B/);
    // Between them they are the whole page, up to what comes behind the last note.
    expect(words.join('').length).toBeGreaterThan(0.85 * PAGE.length);
  });

  test('without a note in it has no section', () => {
    expect(cutNarration('We talked about the weather for an hour.\n\nThen we had tea.')).toEqual([]);
    expect(cutNarration('')).toEqual([]);
  });

  test('with stamps that run backwards keeps the order in which it is told', () => {
    expect(lines('[1:09] 5 on the G. [0:30] 7 on the G.')).toEqual([['1', 'riff', ['@1:09 /? 5G', '@0:30 /? 7G']]]);
  });

  test('in another language, with signs of all kinds, or of 100,000 words is read without throwing', () => {
    expect(cutNarration('Zuerst den fünften Bund auf der G-Saite, dann den siebten. 🎸🎸\n\nОтлично!')).toBeInstanceOf(
      Array,
    );
    const long = 'five on the G, then seven on the B. '.repeat(12_500);
    expect(cutNarration(long)[0]?.phrases[0]?.reading.parts).toHaveLength(25_000);
  });

  test('that is shorthand already comes out as it is', () => {
    expect(lines('5G 7G 5B 8B')).toEqual([['1', 'riff', ['/? 5G 7G 5B 8B']]]);
  });
});
