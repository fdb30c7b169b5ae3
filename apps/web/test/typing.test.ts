import { describe, expect, test } from '@jest/globals';
import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { readShorthand } from '@jam-ledger/core/notation';
import { makeTuning, readKey, OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { clockText, dayIn, dayText, daysBetween, momentText, readClock, writtenDay } from '../src/ui/useDays.ts';
import { completeShorthand, type Surroundings } from '../src/tab/editor/completion.ts';

/** What is offered at the end of a text, the best first. */
function offered(text: string, more: Partial<Surroundings> = {}, explicit = false): readonly string[] {
  const context = new CompletionContext(EditorState.create({ doc: text }), text.length, explicit);
  const phrase = readShorthand(text).phrase;
  const result = completeShorthand(context, {
    phrase,
    tuning: TUNINGS.standard,
    capo: 0,
    key: OPEN_KEY,
    frets: 22,
    names: 'letters',
    ...more,
  });
  const options = [...(result?.options ?? [])].sort((a, b) => (b.boost ?? 0) - (a.boost ?? 0));
  return options.map(({ label, detail }) => `${label} ${detail ?? ''}`);
}

describe('what may come next', () => {
  test('a fret is offered on the string used last, then on its neighbours', () => {
    expect(offered('5G 7').slice(0, 3)).toEqual(['7G D4, same string', '7B F♯4, string 2', '7D A3, string 4']);
    expect(offered('5e 7')[0]).toBe('7e B4, same string');
  });

  test('names are spelt for the key and sound through the capo', () => {
    expect(offered('5G 8', { key: readKey('Eb') ?? OPEN_KEY })[0]).toBe('8G E♭4, same string');
    expect(offered('5G 8', { key: readKey('E') ?? OPEN_KEY })[0]).toBe('8G D♯4, same string');
    expect(offered('5G 7', { capo: 2 })[0]).toBe('7G E4, same string');
  });

  test('links go on from the fret before, never beyond the neck', () => {
    expect(offered('5G h').slice(0, 2)).toEqual(['h6 D♭4', 'h7 D4']);
    expect(offered('2G p')).toEqual(['p1 A♭3', 'p0 G3']);
    expect(offered('22G h')).toEqual([]);
  });

  test('values, heads, settings and chords used before', () => {
    expect(offered('5G /')).toContain('/16 sixteenth');
    expect(offered('5G {')).toContain('{guess: a guess');
    expect(offered('me')).toEqual(['meter=3/4 from here on']);
    expect(offered(':Am 5G :')).toEqual([':Am used above']);
  });

  test('asked for, the notes under the hand; unasked, nothing at a space', () => {
    expect(offered('7G ', {}, true)[0]).toBe('7G D4, string 3');
    expect(offered('7G ')).toEqual([]);
  });

  test('with seven strings numbers are offered', () => {
    const tuning = makeTuning('seven', [64, 59, 55, 50, 45, 40, 35]);
    expect(offered('7', { tuning })[0]).toMatch(/^7@\d /);
  });
});

describe('clock and calendar', () => {
  test.each([
    ['1:09', 69],
    ['0:17.5', 17.5],
    ['0:17,5', 17.5],
    ['69', 69],
    ['12:00', 720],
  ])('%s is %f seconds', (text, seconds) => expect(readClock(text)).toBe(seconds));

  test.each(['', '1:60', 'a while', '-3', '1:2:3'])('“%s” is no time', (text) =>
    expect(readClock(text)).toBeUndefined(),
  );

  test('what is written is read again', () => {
    for (const seconds of [0, 17, 69, 69.5, 600, 3599]) expect(readClock(clockText(seconds))).toBe(seconds);
  });

  test('days between days count over months and clock changes', () => {
    expect(daysBetween('2026-03-14', '2026-04-14')).toBe(31);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysBetween('2026-03-14', '2026-03-10')).toBe(-4);
    expect(dayText('2026-03-14')).toMatch(/14/);
  });

  test('a moment has the day and the hour of its zone', () => {
    const moment = '2026-03-14T23:30:00Z';
    expect(dayIn(moment, 'America/New_York')).toBe('2026-03-14');
    expect(dayIn(moment, 'Asia/Tokyo')).toBe('2026-03-15');
    expect(momentText(moment, 'Asia/Tokyo')).toMatch(/15\D.*\b0?8:30/);
  });

  test('a day that was chosen on this device is written as that day', () => {
    expect(writtenDay(new Date(2026, 0, 5))).toBe('2026-01-05');
    expect(writtenDay(new Date(2026, 11, 31, 23, 59))).toBe('2026-12-31');
  });
});
