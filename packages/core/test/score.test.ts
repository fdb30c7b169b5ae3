import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FIRST_ROUND, inRound, readShorthand, scoreOf, ticksOf, unroll, writeValue } from '../src/notation/index.ts';
import { typedText } from './typing.ts';

const page = (text: string) =>
  scoreOf(readShorthand(text).phrase).map(({ events }) =>
    events.map(({ item, values, tied }) => {
      const name = item ? item.notes.map(({ string, fret }) => `${fret ?? 'x'}@${string}`).join('+') : '-';
      return `${tied ? '~' : ''}${name}/${values.map(writeValue).join('_')}`;
    }),
  );

describe('a phrase on the page', () => {
  test('holds inside a bar merge into one value where there is one', () => {
    expect(page('/8 7D _ 5D _ _ 7D _ _')).toEqual([['7@4/4', '5@4/4.', '7@4/4.']]);
    expect(page('/8 7D _ _ _ _')).toEqual([['7@4/2_8']]);
  });

  test('a hold over a bar line is tied', () => {
    expect(page('/2 7D 5D | _ -')).toEqual([
      ['7@4/2', '5@4/2'],
      ['~5@4/2', '-/2'],
    ]);
  });

  test('a hold after a rest over a bar line is a rest, not tied', () => {
    expect(page('/1 - | _')).toEqual([['-/1'], ['-/1']]);
  });

  test('without bar lines the meter alone parts the bars', () => {
    expect(page('/4 7D 7D 7D 7D 5D').map((bar) => bar.length)).toEqual([4, 1]);
    expect(scoreOf(readShorthand('/4 7D 7D 7D 7D 5D').phrase)[0]?.line).toBe(false);
  });

  test('repeats stay folded, and passes carry their brackets', () => {
    const bars = scoreOf(readShorthand('[ /4 7G 5G {1-2: 0D 2G} {last: 0D2G} ]3').phrase);
    expect(
      bars.map(({ repeatStart, repeatEnd, passes }) => [repeatStart, repeatEnd?.times ?? null, passes?.label]),
    ).toEqual([
      [true, null, undefined],
      [false, null, '1–2'],
      [false, 3, 'last time'],
    ]);
    expect(bars[1]?.passes).toEqual({ label: '1–2', on: [[1, 2]], begins: true, ends: true });
  });

  test('chord symbols, words, graces and how sure go with their event', () => {
    const [bar] = scoreOf(readShorthand(':Em "soft" {guess: 5G/g 7G} :- 5G').phrase);
    expect(bar?.events[0]).toMatchObject({
      chord: 'Em',
      words: ['soft'],
      sureness: 'guess',
      graces: [{ notes: [{ fret: 5 }] }],
    });
    expect(bar?.events[1]).toMatchObject({ chord: null, words: [], sureness: null });
  });

  test('a meter that changes is shown, one that stays is not', () => {
    const bars = scoreOf(readShorthand('/2 7D 7D | 7D 7D | meter=3/4 /4 7D 7D 7D | 5D').phrase);
    expect(bars.map(({ showMeter }) => showMeter)).toEqual([true, false, true, false]);
  });

  test('shows as much time as is played, where nothing repeats', () => {
    fc.assert(
      fc.property(typedText, (typed) => {
        const text = typed.replace(/[[\]]/g, ' ').replace(/\{either:/g, '{m:');
        const phrase = inRound(readShorthand(text).phrase, FIRST_ROUND);
        const bars = scoreOf(phrase);
        const shown = bars
          .flatMap(({ events }) => events.flatMap(({ values }) => values))
          .reduce((sum, value) => sum + ticksOf(value), 0);
        // Passes are dropped outside repeats, so that what stands on the page is what is played.
        const timeline = unroll(phrase);
        const graceOnly = timeline.events.every((event) => event.marks.includes('grace'));
        if (!graceOnly) expect(shown).toBe(timeline.length);
      }),
      { numRuns: 300 },
    );
  });
});

describe('what no event follows', () => {
  const closing = (text: string) => scoreOf(readShorthand(text).phrase).map((bar) => bar.closing);

  test('stands behind the last event: words and chord symbols', () => {
    expect(closing('/4 5G 7G :Em "let it ring" "slowly"')).toEqual([{ chord: 'Em', words: ['let it ring', 'slowly'] }]);
    expect(closing('/4 5G | 7G | :-')).toEqual([undefined, { chord: null, words: [] }]);
    expect(closing('/4 5G :Em 7G "x" 5G')).toEqual([undefined]);
  });

  test('stands in a bar of its own where there is no event', () => {
    expect(closing('"wait for the drums"')).toEqual([{ words: ['wait for the drums'] }]);
    expect(closing('')).toEqual([]);
  });
});
