import { CompletionContext } from '@codemirror/autocomplete';
import { EditorState } from '@codemirror/state';
import { describe, expect, test } from '@jest/globals';
import { readShorthand, SURENESSES } from '@jam-ledger/core/notation';
import { OPEN_KEY, TUNINGS } from '@jam-ledger/core/pitch';
import { completeShorthand, type Surroundings } from '../src/tab/editor/completion.ts';

/** What is offered at the end of a text. */
function offered(text: string, around: Partial<Surroundings> = {}, explicit = false) {
  const context = new CompletionContext(EditorState.create({ doc: text }), text.length, explicit);
  const surroundings = {
    phrase: readShorthand(text).phrase,
    tuning: TUNINGS.standard,
    capo: 0,
    key: OPEN_KEY,
    frets: 22,
  };
  return completeShorthand(context, { ...surroundings, names: 'letters', ...around })?.options ?? [];
}
const labels = (...asked: Parameters<typeof offered>) => offered(...asked).map(({ label }) => label);

describe('what is offered while a phrase is typed', () => {
  test('a fret alone: every string, the one before first', () => {
    const options = offered('/8 5D 7');
    expect(options.map(({ label }) => label)).toEqual(['7e', '7B', '7G', '7D', '7A', '7E']);
    const best = options.toSorted((a, b) => (b.boost ?? 0) - (a.boost ?? 0))[0];
    expect(best).toMatchObject({ label: '7D', detail: 'A3, same string' });
  });

  test('strings by number, where they are named so', () =>
    expect(labels('7', { names: 'numbers' })).toEqual(['7@1', '7@2', '7@3', '7@4', '7@5', '7@6']));

  test('no fret that no guitar has', () => expect(labels('/8 5D 77')).toEqual([]));

  test.each([
    ['/8 5G h', ['h6', 'h7', 'h8', 'h9']],
    ['/8 5G p', ['p4', 'p3', 'p2', 'p1']],
    ['/8 1G p', ['p0']],
    ['/8 5G s', ['s6', 's7', 's8', 's10', 's4', 's3', 's2', 's0']],
    ['/8 5G S1', ['S6', 'S7', 'S8', 'S10', 'S4', 'S3', 'S2', 'S0']],
  ])('%s: where it can go from the note before', (text, expected) => expect(labels(text)).toEqual(expected));

  test('no link to nowhere, nor beyond the last fret', () => {
    expect(labels('/8 h')).toEqual([]);
    expect(labels('/8 21G h')).toEqual(['h22']);
  });

  test('a brace: spans, how sure, barres and passes, each with what it means', () => {
    const heads = offered('/8 {');
    expect(heads.map(({ label }) => label)).toEqual([
      '{m:',
      '{l:',
      '{m l:',
      ...SURENESSES.map((word) => `{${word}:`),
      '{bar5:',
      '{quiet:',
      '{~:',
      '{alt:',
      '{altu:',
      '{1-2:',
      '{last:',
      '{round last:',
      '{fade:',
      '{grow:',
      '{w-1:',
      '{either:',
    ]);
    expect(heads.find(({ label }) => label === '{m l:')?.detail).toBe('palm mute, let ring');
  });

  test('what is begun behind a note: the marks that begin so', () => {
    expect(labels('/8 7Gq')).toEqual(['7Gq', '7Gqp', '7Gqi', '7Gqm', '7Gqa', '7Gqc']);
    expect(labels('/8 7@4k')).toEqual(['7@4k']);
    expect(offered('/8 7Gtr').map(({ detail }) => detail)).toEqual(['trill with a fret']);
    expect(labels('/8 7G')).toEqual([]);
  });

  test('values, chords used above, settings', () => {
    expect(labels('/8 5G /1')).toContain('/16t');
    expect(labels(':Em 5G :Am 7G :')).toEqual([':Em', ':Am']);
    expect(labels('5G fe')).toEqual(['feel=swing', 'feel=straight']);
  });

  test('asked for at an empty place: what lies under the hand', () => {
    expect(labels('/8 5G ', {}, false)).toEqual([]);
    const under = offered('/8 5G ', {}, true);
    expect(under).toHaveLength(12);
    expect(under[0]).toMatchObject({ label: '5G', detail: 'C4, string 3' });
  });
});
