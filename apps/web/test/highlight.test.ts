import { syntaxTree } from '@codemirror/language';
import { EditorState } from '@codemirror/state';
import { describe, expect, test } from '@jest/globals';
import { shorthandLanguage } from '../src/tab/editor/language.ts';

/** Each stretch of a text that has a colour, with what it means. */
function coloured(text: string): readonly (readonly [text: string, meaning: string])[] {
  const state = EditorState.create({ doc: text, extensions: shorthandLanguage() });
  const found: (readonly [string, string])[] = [];
  syntaxTree(state).iterate({
    enter: ({ name, from, to }) => {
      if (name !== 'Document') found.push([text.slice(from, to), name.split(' ')[0] ?? name]);
    },
  });
  return found;
}

describe('the colours of the shorthand', () => {
  test('a link is none where the letter is a mark', () => {
    expect(coloured('12D*p10')).toEqual([
      ['D', 'string'],
      ['*', 'mark'],
      ['p', 'link'],
    ]);
    expect(coloured('12D*p')).toEqual([
      ['D', 'string'],
      ['*p', 'mark'],
    ]);
  });

  test('bends with all they say, values, counts', () => {
    expect(coloured('7Gb1-1.5r/8.')).toEqual([
      ['G', 'string'],
      ['b1-1.5r', 'bend'],
      ['/8.', 'value'],
    ]);
    expect(coloured('0E%4')).toEqual([
      ['E', 'string'],
      ['%4', 'value'],
    ]);
  });

  test('what stands around the events', () => {
    expect(coloured('# a note')).toEqual([['# a note', 'aside']]);
    expect(coloured('"mind this"')).toEqual([['"mind this"', 'words']]);
    expect(coloured('{m: -}').map(([, meaning]) => meaning)).toEqual(['bracket', 'silence', 'bracket']);
    expect(coloured(':Em | tempo=96').map(([, meaning]) => meaning)).toEqual(['chord', 'bar', 'setting']);
  });
});
