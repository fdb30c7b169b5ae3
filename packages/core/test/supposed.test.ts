import { describe, expect, test } from '@jest/globals';
import {
  changesWith,
  checkForm,
  tempoChangesOf,
  tempoFromTaps,
  timeForm,
  type FormSection,
} from '../src/form/index.ts';

const section = (label: string, bars: number, more: Partial<FormSection> = {}): FormSection => ({
  ...{ id: label, label, bars, times: 1, startSeconds: 0, passes: [] },
  ...more,
});

describe('a form that is not all known', () => {
  const tempoChanges = tempoChangesOf({ bpm: 120, meter: { beats: 4, unit: 4 } }, []);
  const codes = (sections: readonly FormSection[], more: object = {}) =>
    checkForm({ sections, tempoChanges, phraseBars: new Map(sections.map(({ id, bars }) => [id, bars])), ...more }).map(
      ({ code, sectionId }) => `${code} ${sectionId}`,
    );
  const at = (label: string, startSeconds: number, more: Partial<FormSection> = {}) =>
    section(label, 4, { startSeconds, ...more });

  test('a section whose start is supposed follows the one before it, whatever is supposed', () => {
    const sections = [at('1A', 10), at('1B', 99, { startKnown: false }), at('1C', 30)];
    expect(timeForm(sections, tempoChanges).map(({ fromSeconds }) => fromSeconds)).toEqual([10, 18, 30]);
  });

  test('coming again it is heard where that is stamped, and follows where it is not', () => {
    const sections = [at('1A', 10, { times: 3, returns: new Map([[3, 40]]) }), at('1B', 60)];
    expect(timeForm(sections, tempoChanges).map(({ fromSeconds }) => fromSeconds)).toEqual([10, 18, 40, 60]);
  });

  test('nothing is held against what is only supposed', () => {
    expect(codes([at('1A', 10), at('1B', 30)])).toEqual(['gap 1A']);
    expect(codes([at('1A', 10), at('1B', 30, { startKnown: false })])).toEqual([]);
    expect(codes([at('1A', 10, { barsKnown: false }), at('1B', 30)])).toEqual([]);
    expect(codes([at('1A', 10), at('1B', 30)], { tempoKnown: false })).toEqual([]);
    expect(codes([at('1A', 10), at('1B', 5, { startKnown: false })])).toEqual([]);
  });

  test('a length that nobody said is that of the phrases', () => {
    const phraseBars = new Map([['1A', 7]]);
    expect(codes([at('1A', 10)], { phraseBars })).toEqual(['phrases-long 1A']);
    expect(codes([at('1A', 10, { barsKnown: false })], { phraseBars })).toEqual([]);
  });

  test('the end of the recording says nothing of a start that is supposed', () => {
    expect(codes([at('1A', 90)], { songSeconds: 60 })).toEqual(['beyond-song 1A']);
    expect(codes([at('1A', 90, { startKnown: false })], { songSeconds: 60 })).toEqual([]);
  });
});

describe('taps that were missed', () => {
  // A gap counts as many beats as it has medians: 0.5 0.5 1 1.9 have 0.75, 0.5 0.9 1.9 have 0.9.
  test.each([
    [[0, 0.5, 1, 2, 3.9], 2],
    [[0, 0.5, 1.4, 3.3], 1],
  ])('%j: %i', (times, missed) => expect(tempoFromTaps(times)?.missed).toBe(missed));
});

describe('a change at a place of the song', () => {
  const change = (atSeconds: number, tempo: number) => ({ atSeconds, tempo, meter: '4/4', key: '' });
  const changes = [change(10, 90), change(40, 120)];

  test('is said anew, added in the order of the clock, or taken out', () => {
    expect(changesWith(changes, 10, change(10, 100)).map(({ tempo }) => tempo)).toEqual([100, 120]);
    expect(changesWith(changes, 20, change(20, 100)).map(({ tempo }) => tempo)).toEqual([90, 100, 120]);
    expect(changesWith(changes, 40, undefined).map(({ tempo }) => tempo)).toEqual([90]);
    expect(changesWith(changes, 30, undefined)).toEqual(changes);
  });
});
