import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { playOut, readShorthand, type Phrase } from '../src/notation/index.ts';
import { OPEN_KEY, readKey, TUNINGS } from '../src/pitch/index.ts';
import { JUST_TALK, readSpoken, sayPhrase } from '../src/spoken/index.ts';
import { readCorpus } from './corpus.ts';
import { CORRECT_PHRASES } from './phrases.ts';

/** Sentences and the shorthand they mean; `missed` where what is read is known to be another. Invented for the tests. */
function sentencesOf(
  file: string,
): readonly { readonly say: string; readonly means: string; readonly missed?: true }[] {
  return JSON.parse(readFileSync(new URL(file, import.meta.url), 'utf8')) as ReturnType<typeof sentencesOf>;
}
const vectors = [...sentencesOf('./narrations.json'), ...sentencesOf('./narrations-used.json')].filter(
  ({ missed }) => !missed,
);

/** What is played, lengths aside: strings, frets, links, bends and marks in order; the order within a stack does not count. */
function played(phrase: Phrase): readonly object[] {
  return playOut(phrase, { tuning: TUNINGS.standard, capo: 0 })
    .filter(({ notes }) => notes.length > 0)
    .map(({ notes, marks, barre }) => ({
      notes: [...notes].sort((a, b) => a.string - b.string),
      marks: [...marks].sort(),
      barre,
    }));
}
const heard = (text: string) => played(readShorthand(text).phrase);
const kindsOf = (said: string) => readSpoken(said).doubts.map(({ kind }) => kind);

describe('what a teacher says is read', () => {
  test.each(vectors.map(({ say, means }) => [say, means] as const))('%s', (say, means) => {
    expect(heard(readSpoken(say).shorthand)).toEqual(heard(means));
  });

  test('each note knows the words it comes from', () => {
    const said = 'well, 9 on the third string, then slide up into ten on the B';
    const { parts } = readSpoken(said);
    expect(parts.map(({ text, words }) => [text, said.slice(words.from, words.to)])).toEqual([
      ['9G', '9 on the third string'],
      ['<10B', 'ten on the B'],
    ]);
  });

  test('strings by number, where there are more than six', () => {
    const tuning = { name: 'seven', openMidis: [64, 59, 55, 50, 45, 40, 35] };
    expect(readSpoken('3 on the seventh string, 5 on the third string', { tuning }).shorthand).toBe('3@7 5@3');
  });

  test('what was said before is said again, moved', () => {
    expect(readSpoken('5 on the A, 7 on the A, the same thing one string thinner').shorthand).toBe('5A 7A 5D 7D');
    expect(readSpoken('5 on the A, 7 on the A, same again two frets up').shorthand).toBe('5A 7A 7A 9A');
    expect(readSpoken('5 on the A. 7 on the D. Do that three times.').shorthand).toBe('5A 7D 7D 7D');
  });
});

describe('what is not sure is asked', () => {
  test('a correction stands, and the first is kept', () => {
    const { shorthand, doubts } = readSpoken('eight, no wait, nine on the G');
    expect([shorthand, doubts]).toEqual([
      '9G',
      [
        expect.objectContaining({
          kind: 'correction',
          choices: [expect.objectContaining({ label: '9' }), expect.objectContaining({ label: '8' })],
        }),
      ],
    ]);
  });
  test.each([
    ['7 on the E', 'which E'],
    ['7 on the G then 9', 'string'],
    ['bend it', 'nothing before'],
    ['7 on the G, let it down', 'nothing before'],
    ['8 on the G, bend it', 'how far'],
    ['slide into 9 on the G', 'slide'],
    ['7 on the G, then detune it', 'not understood'],
    ['7 on the G, then whammy it', 'how far'],
    ['7 on the G, bend it a step', 'a step'],
    ['hit the A', 'open'],
    ['ninety nine on the G', 'fret'],
    ['5 on the A, same again one string up', 'which way'],
  ])('%s', (said, kind) => {
    expect(kindsOf(said)).toContain(kind);
  });
  test('with choices that are said in place of the words', () => {
    const said = '7 on the G, then 9 on the E, bend it';
    const chosen = (kind: string, at: number) => {
      const doubt = readSpoken(said).doubts.find((one) => one.kind === kind);
      if (!doubt) throw new Error(`${kind} is not asked`);
      return said.slice(0, doubt.span.from) + (doubt.choices[at]?.say ?? '') + said.slice(doubt.span.to);
    };
    expect(readSpoken(said).shorthand).toBe('7G 9eb1');
    expect([chosen('which E', 1), chosen('how far', 1)]).toEqual([
      '7 on the G, then 9 on the low E, bend it',
      '7 on the G, then 9 on the E, bend it a half step',
    ]);
    expect(readSpoken(chosen('which E', 1)).shorthand).toBe('7G 9Eb1');
    const stack = readSpoken('ten and twelve on the B and E together');
    expect([stack.shorthand, stack.doubts[0]?.choices.map(({ say }) => say)]).toEqual([
      '10B12e',
      ['the B and high E', 'the B and low E'],
    ]);
    expect(readSpoken(chosen('how far', 1)).shorthand).toBe('7G 9eb.5');
  });
  test('and what is taken meanwhile stays with its note, whatever is said after it', () => {
    expect(readSpoken('8 on the B, bend it, then 5 on the G').shorthand).toBe('8Bb1 5G');
    expect(readSpoken('bend 8 on the B, then 5 on the G, a half step').shorthand).toBe('8Bb.5 5G');
  });
  test('once, where what a teacher means is known', () => {
    const habits = { 'which E': 'low E', 'how far': 'a half step', slide: 'from above' } as const;
    expect(readSpoken('slide into 9 on the E, bend it', { habits })).toMatchObject({ shorthand: '>9Eb.5', doubts: [] });
    // The line stands by the other one: that is asked.
    expect(readSpoken('12 on the B, 9 on the E', { habits })).toMatchObject({
      shorthand: '12B 9e',
      doubts: [{ kind: 'which E' }],
    });
  });
  test('of words that are not understood, those that are talk are not asked again', () => {
    const [doubt] = readSpoken('7 on the G, my cactus').doubts;
    expect(doubt).toMatchObject({ kind: 'not understood', choices: [{ label: 'just talk', say: 'cactus' }] });
    expect(readSpoken('7 on the G, my cactus', { habits: { 'not understood': 'door cactus' } }).doubts).toEqual([]);
  });
  test('values that are said hold from the next note on', () => {
    expect(readSpoken('in eighths, 5 on the G, 7 on the G, then in triplets 5 7 5 on the G').shorthand).toBe(
      '/8 5G 7G /8t 5G 7G 5G',
    );
  });
  test('talk says nothing, and is not asked', () => {
    expect(readSpoken('So this is a really nice one, listen to how it sits, and remember to breathe.')).toEqual({
      shorthand: '',
      parts: [],
      doubts: [],
      stamps: [],
    });
  });
  test('stamps stand before what follows them, backwards too', () => {
    const { stamps, shorthand } = readSpoken('[1:09] 5 on the G [0:58.5] 7 on the G');
    expect([stamps, shorthand]).toEqual([
      [
        { seconds: 69, before: 0 },
        { seconds: 58.5, before: 1 },
      ],
      '5G 7G',
    ]);
  });
});

describe('a doubt that is answered', () => {
  const talks = vectors
    .map(({ say }) => say)
    .filter((say) => readSpoken(say).doubts.some(({ choices }) => choices.length > 0));
  test.each(talks)('is not asked again: %s', (say) => {
    for (const { kind, span, choices } of readSpoken(say).doubts)
      for (const choice of choices) {
        const words = say.slice(span.from, span.to);
        const answered = say.slice(0, span.from) + choice.say + say.slice(span.to);
        const habits = choice.label === JUST_TALK ? { [kind]: words.toLowerCase() } : {};
        const end = span.from + choice.say.length;
        const again = readSpoken(answered, { habits }).doubts.filter(
          (one) => one.kind === kind && one.span.from < end && one.span.to > span.from,
        );
        expect({ answered, again }).toEqual({ answered, again: [] });
      }
  });
});

describe('of several readings the likelier one is taken, and asked', () => {
  const keyed = (said: string, key: string) => readSpoken(said, { key: readKey(key) ?? OPEN_KEY });
  test('a bend of no size goes to a note of the key', () => {
    expect(keyed('5 on the G, 7 on the G, 9 on the G, bend it', 'A minor').shorthand).toBe('5G 7G 9Gb.5');
    const { shorthand, doubts } = keyed('5 on the G, 7 on the G, 9 on the G, bend it', 'A major');
    expect(shorthand).toBe('5G 7G 9Gb1');
    expect(doubts.map(({ kind, choices }) => [kind, choices[0]?.label])).toEqual([['how far', 'a whole step']]);
  });
  test('and so does the bend of “a step”', () => {
    expect(keyed('5 on the G, 7 on the G, 9 on the G, bend it a step', 'A minor').shorthand).toBe('5G 7G 9Gb.5');
  });
  test.each([
    ['So we talked about two or three hours, and my brother came with seven guitars.', ''],
    ['7 on the ninth string', '7G'],
    ['40 on the low E, 7 on the B', '7B'],
    ['5 on the A. Do that 1000000 times.', '5A'],
    ['5 on the A 1000 times', '5A'],
    ['not the 5, the 7 on the A', '7A'],
    ['Neunter Bund auf der dritten Saite, dann den zehnten', ''],
    ['🎸🔥', ''],
  ])('what cannot be is told, never written: %s', (said, shorthand) => {
    const reading = readSpoken(said);
    expect(reading.shorthand).toBe(shorthand);
    expect(reading.doubts.length > 0).toBe(said !== '🎸🔥');
  });
  test('what is shorthand already stands as it is', () => {
    const text = '/8 9G 10Bb1r 8B%2 | 5G h7 p5 7D |';
    expect(readSpoken(text)).toMatchObject({ shorthand: text, doubts: [{ kind: 'not understood' }] });
    expect(readSpoken('9B then 8B').shorthand).toBe('9B 8B');
  });
  test('of corrections the last one stands, and each is asked', () => {
    const { shorthand, doubts } = readSpoken('7 on the G, no, 8, I mean 9, sorry, on the B');
    expect(shorthand).toBe('9B');
    expect(doubts.map(({ kind }) => kind)).toEqual(['correction', 'correction', 'correction']);
  });
  test('a line moved up a string stays where the hand is', () => {
    const said = 'same again one string up';
    const before = '5A 7A 5A 7A';
    expect(readSpoken(`7 on the A, 7 on the D, ${said}`, { before }).doubts.map(({ kind }) => kind)).toEqual([
      'which way',
    ]);
  });
  test('an E that was not named is where the line is', () => {
    expect(readSpoken('12 on the B, 15 on the B, 12 on the E').shorthand).toBe('12B 15B 12e');
    expect(readSpoken('3 on the A, 5 on the A, 3 on the E').shorthand).toBe('3A 5A 3E');
  });
  test('a fret of no string stays on the string that stands before the words', () => {
    expect(readSpoken('then nine', { before: '5D 7D' }).shorthand).toBe('9D');
  });
  test('the more readings there are, the fewer are looked at: a sentence without end is read', () => {
    const said = Array.from({ length: 400 }, (_, at) => `${(at % 9) + 3} on the E then ${(at % 5) + 5}`).join(' then ');
    expect(readSpoken(said).parts).toHaveLength(800);
  });
});

describe('notes in words', () => {
  const say = (text: string, length: 'short' | 'full' = 'full', strings: 'letters' | 'numbers' = 'letters') =>
    sayPhrase(readShorthand(text).phrase, { strings, length });

  test('are a sentence a bar, and the same bar is the same again', () => {
    expect(say('/4 5G 7Gb1r h9 0E | 5G 7Gb1r h9 0E | - - 7A9D, 12e~ |')).toEqual([
      '5 on the G, then 7 on the G, bent up a whole step, let down, then hammer on to 9 on the G, then 0 on the low E.',
      'The same again.',
      'Rest, then 7 and 9 on the A and D together, cut short, then 12 on the high E, with vibrato.',
    ]);
  });
  test('are shorter without strokes and fingers', () => {
    expect(say('7Gdf3 xDG', 'short')).toEqual(['7 on the G, then dead notes on the D and G.']);
    expect(say('7Gdf3', 'full', 'numbers')).toEqual(['7 on the third string, third finger, down stroke.']);
  });

  /** Reads what is said of a phrase, and holds it against the phrase. */
  function holds(phrase: Phrase, strings: 'letters' | 'numbers'): void {
    const said = sayPhrase(phrase, { strings, length: 'full' }).join(' ');
    const { shorthand, doubts } = readSpoken(said);
    const again = heard(shorthand);
    if (JSON.stringify(again) !== JSON.stringify(played(phrase)) || doubts.length > 0)
      expect({ said, again, doubts }).toEqual({ said, again: played(phrase), doubts: [] });
  }

  test.each(['letters', 'numbers'] as const)(
    'read as what they say: every phrase of the repository, by %s',
    (strings) => {
      const phrases = [
        ...readCorpus().map(({ phrase }) => phrase),
        ...CORRECT_PHRASES.map(({ text }) => readShorthand(text).phrase),
      ];
      expect(phrases.length).toBeGreaterThan(250);
      for (const phrase of phrases) holds(phrase, strings);
    },
  );

  test('read as what they say: any phrase of places, links, bends and marks', () => {
    const place = fc.tuple(
      fc.integer({ min: 0, max: 22 }),
      fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e', 'DG', 'Be', 'ADG'),
    );
    const note = fc.constantFrom(
      '',
      '',
      '',
      'b1',
      'b.5r',
      'b1rb1.5',
      'pb1',
      'pb.5r',
      '~',
      '~~',
      '*',
      '*p',
      'tr14',
      'f1',
      'f3',
      'b2',
    );
    const mark = fc.constantFrom(
      '',
      '',
      '',
      'm',
      'l',
      'd',
      'u',
      ',',
      '!',
      'k',
      'o',
      'q',
      'qm',
      'z',
      '>',
      '<',
      '%2',
      '%3',
    );
    const event = fc
      .tuple(place, note, mark)
      .map(([[fret, strings], done, marked]) => `${fret}${strings}${done}${marked}`);
    const other = fc.constantFrom(
      '-',
      '_',
      '|',
      'xA',
      'xDGd',
      '7AxD9G',
      '5A7D',
      '5A7Dl',
      '(7G)',
      '15Bb1+12e',
      '9D+7Gb1~',
      '{bar5: 5GB }',
      '<12B',
      '>7D',
      '{likely: 5G }',
      '{optional: 7D }',
      '5G/g',
      '7Gw-1',
      '7Gw-.5w+1',
      '5Gbb1rr',
      '9Gf13',
      '9Gb1f3&2',
    );
    const linked = fc.constantFrom(
      '5G h7',
      '9D p7',
      '7A s9',
      '7B S9',
      '12e t15 p12',
      '5DG s7',
      '5A7D s7A9D',
      '8Bb1 8B^',
    );
    const text = fc.array(fc.oneof({ weight: 4, arbitrary: event }, other, linked), { minLength: 1, maxLength: 14 });
    fc.assert(
      fc.property(text, fc.constantFrom('letters' as const, 'numbers' as const), (items, strings) =>
        holds(readShorthand(items.join(' ')).phrase, strings),
      ),
      { numRuns: 600 },
    );
  });
});

describe('any text at all', () => {
  test('is read without throwing, and its doubts lie inside it', () => {
    const words = fc.constantFrom(
      ...'five seven ninth fret string third on the G B high E bend it up down release slide into from to hammer pull off then twice again same more times rake let ring sorry no wait and together , . ; [1:09] 12 99 x open 🎸 Ω verse'.split(
        ' ',
      ),
    );
    const said = fc.oneof(
      fc.string({ unit: 'grapheme', maxLength: 120 }),
      fc.array(words, { maxLength: 60 }).map((all) => all.join(' ')),
    );
    fc.assert(
      fc.property(said, (text) => {
        const { doubts, parts } = readSpoken(text);
        const spans = [...doubts.map(({ span }) => span), ...parts.map(({ words: span }) => span)];
        expect(spans.filter(({ from, to }) => !(0 <= from && from <= to && to <= text.length))).toEqual([]);
      }),
      { numRuns: 1500 },
    );
  });
  test('a page that is shorthand already is told, and nothing of it is lost on the way', () => {
    const { shorthand } = readSpoken('5G 7G 5B 8B');
    expect(heard(shorthand)).toEqual(heard('5G 7G 5B 8B'));
  });
});
