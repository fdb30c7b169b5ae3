import { describe, expect, test } from '@jest/globals';
import { perform, readShorthand, unroll } from '../src/notation/index.ts';
import { cutPieces, type CutPhrase } from '../src/pieces/index.ts';
import { DAYS_AWAY, forecast, masteryOf, type DatedResult } from '../src/progress/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const setup = { tuning: TUNINGS.standard, capo: 0 };
/** At 60 quarters a minute a quarter lasts a second. */
const play = (text: string, bpm = 60) => perform(readShorthand(text).phrase, { ...setup, bpm });
const ends = (text: string) =>
  play(text).map(({ startSeconds, durationSeconds }) => Math.round((startSeconds + durationSeconds) * 1000) / 1000);

describe('let ring', () => {
  test('a note rings on until its string is played again', () => expect(ends('/4 5Gl 7B 7G 5B')).toEqual([2, 2, 3, 4]));
  test('a rest ends it', () => expect(ends('/4 5Gl 7B - 7B')).toEqual([2, 2, 4]));
  test('no longer than a whole note past its own length', () => expect(ends('/4 5Gl 7B 7B 7B 7B 7B 7B 7B')[0]).toBe(5));
  test('where it stands alone it ends with the phrase', () => expect(ends('/4 5Gl 7B')).toEqual([2, 2]));
  test('a note that is cut does not ring', () => expect(ends('/4 5Gl, 7B')[0]).toBe(0.5));
});

describe('pitch', () => {
  // Source: the twelfth fret halves the string, the seventh a third; common practice.
  test.each([
    ['12G*', 67],
    ['7G*', 55 + 12 * Math.log2(3)],
    ['5G*', 79],
    ['7G*p', 55 + 7 + 12],
    ['7G', 62],
  ])('%s sounds at %d', (text, midi) => expect(play(text)[0]?.midi).toBeCloseTo(midi, 6));

  test('a dead note has none', () => expect(play('xG')[0]?.midi).toBeNull());
});

describe('tremolo picking', () => {
  test('a stroke each 32nd', () => expect(play('7Gz/4', 60)).toHaveLength(8));
  test('never faster than sixteen a second', () => expect(play('7Gz/1', 240)).toHaveLength(16));
  test('the strokes share the note', () => {
    const strokes = play('7Gz/4', 60);
    expect(strokes.map(({ durationSeconds }) => durationSeconds)).toEqual(Array(8).fill(0.125));
    expect(strokes.at(-1)?.startSeconds).toBeCloseTo(0.875, 9);
  });
});

describe('rakes', () => {
  test('brush two thicker strings on the way, none where there are none', () => {
    expect(play('/4 - 7Gk').map(({ string, midi }) => [string, midi])).toEqual([
      [5, null],
      [4, null],
      [3, 62],
    ]);
    expect(play('/4 - 7Ek')).toHaveLength(1);
    expect(play('/4 - 7Ak')).toHaveLength(2);
  });
  test('a stack is not raked', () => expect(play('/4 5A7Dk')).toHaveLength(2));
});

describe('a tap on a bent string', () => {
  /** Cents above the fret at the beginning of each note. */
  const begins = (text: string) => play(text).map(({ contour }) => Math.round(contour[0]?.cents ?? 0));
  test('starts bent', () => expect(begins('/4 7Gb1 t12')).toEqual([0, 200]));
  test('and a pull-off right after it falls back to the bent note', () =>
    expect(begins('/4 7Gb1 t12 p7')).toEqual([0, 200, 200]));
  test('to another fret it falls to that fret', () => expect(begins('/4 7Gb1 t12 p5')).toEqual([0, 200, 0]));
  test('a hammer-on does not', () => expect(begins('/4 7Gb1 t12 h14')).toEqual([0, 200, 0]));
  test('nor a pull-off with something between', () =>
    expect(begins('/4 7Gb1 t12 5B 9G p7')).toEqual([0, 200, 0, 0, 0]));
});

describe('passes', () => {
  const frets = (text: string) =>
    unroll(readShorthand(text).phrase).events.flatMap(({ item }) => item?.notes.map(({ fret }) => fret) ?? []);
  test.each([
    ['/4 [ 5G {1-2: 7G} ]2', [5, 7, 5, 7]],
    ['/4 [ 5G {1-2: 7G} ]3', [5, 7, 5, 7, 5]],
    ['/4 [ 5G {2-3: 7G} ]3', [5, 5, 7, 5, 7]],
    ['/4 [ 5G {last: 7G} ]2', [5, 5, 7]],
    ['/4 [ {1: 5G} {last: 7G} ]1', [5, 7]],
    ['/4 [ [ 5G {last: 7G} ]2 ]2', [5, 5, 7, 5, 5, 7]],
  ])('%s', (text, expected) => expect(frets(text)).toEqual(expected));
});

describe('a fix', () => {
  const fixes = (text: string) => readShorthand(text).problems.flatMap(({ fix }) => fix ?? []);
  test('is offered where something is wrong', () => expect(fixes('(7G')).toHaveLength(1));
  test('never inside a note to oneself', () => {
    expect(fixes('# 7g (5G')).toEqual([]);
    expect(fixes('7G # and then (7G')).toEqual([]);
  });
  test('in the line behind one', () => expect(fixes('# a note\n(7G')).toMatchObject([{ span: { from: 12, to: 12 } }]));
});

describe('held', () => {
  const clean = (day: string, medium: 'ink' | 'pencil', bpm = 100): DatedResult => ({
    ...{ bpm, percent: 100, outcome: 'clean', medium, day },
  });
  const missed = (day: string, bpm = 100): DatedResult => ({ ...clean(day, 'ink', bpm), outcome: 'not-yet' });
  const states = (...history: readonly DatedResult[]) => masteryOf(history, 100);

  test('one clean take in ink is at target, not held', () =>
    expect(states(clean('2026-03-01', 'ink'))).toMatchObject({ state: 'at target in ink', heldSince: null }));

  test('a second on the next day holds nothing; after three days it does', () => {
    expect(DAYS_AWAY).toBe(3);
    expect(states(clean('2026-03-01', 'ink'), clean('2026-03-03', 'ink')).state).toBe('at target in ink');
    expect(states(clean('2026-03-01', 'ink'), clean('2026-03-04', 'ink'))).toMatchObject({
      state: 'held',
      heldSince: '2026-03-04',
    });
  });

  test('two in pencil weigh as one in ink; one does not', () => {
    const inked = clean('2026-03-01', 'ink');
    expect(states(inked, clean('2026-03-05', 'pencil')).state).toBe('at target in ink');
    expect(states(inked, clean('2026-03-05', 'pencil'), clean('2026-03-06', 'pencil'))).toMatchObject({
      state: 'held',
      heldSince: '2026-03-06',
    });
  });

  test('pencil alone never holds', () =>
    expect(
      states(clean('2026-03-01', 'pencil'), clean('2026-03-09', 'pencil'), clean('2026-03-10', 'pencil')).state,
    ).toBe('at target in pencil'));

  test('a miss near the target takes it away, one far below does not', () => {
    const held = [clean('2026-03-01', 'ink'), clean('2026-03-09', 'ink')];
    expect(states(...held, missed('2026-03-10')).state).toBe('slipping');
    expect(states(...held, missed('2026-03-10', 60)).state).toBe('held');
  });
});

describe('a forecast', () => {
  const on = (day: string, bpm: number): DatedResult => ({
    bpm,
    percent: 100,
    outcome: 'clean',
    medium: 'pencil',
    day,
  });
  const middle = (history: readonly DatedResult[], today: string) => {
    const said = forecast(history, { target: 120, today });
    return 'says' in said ? said.says.middle : said.tooLittle;
  };
  const steady = [on('2026-03-01', 80), on('2026-03-03', 84), on('2026-03-05', 88), on('2026-03-07', 92)];

  test('days off count: the same tempos over twice the days reach it later', () => {
    const spread = [on('2026-02-23', 80), on('2026-02-27', 84), on('2026-03-03', 88), on('2026-03-07', 92)];
    expect(middle(spread, '2026-03-07') > middle(steady, '2026-03-07')).toBe(true);
  });

  test('the best of a day counts, whatever else was played on it', () =>
    expect(middle([...steady, on('2026-03-07', 60)], '2026-03-07')).toBe(middle(steady, '2026-03-07')));

  test('three days with a clean take are too few, four are enough', () => {
    expect(middle(steady.slice(1), '2026-03-07')).toMatch(/^Too little to say: 3 days/);
    expect(middle(steady, '2026-03-07')).toMatch(/^2026-/);
  });
});

describe('the order of joins', () => {
  const phrase = (id: string, sectionId: string, difficulty = 10): CutPhrase => ({
    ...{ length: 8, headTo: 4, tailFrom: 4 },
    ...{ id, sectionId, difficulty, bars: 2, hard: null, middle: null },
  });
  const order = (school: 'front to back' | 'alone, then joined' | 'hardest first', phrases: readonly CutPhrase[]) =>
    cutPieces(phrases, school).map(({ kind, parts }) => `${kind} ${parts.map(({ phraseId }) => phraseId).join('')}`);
  const song = [phrase('a', '1'), phrase('b', '1', 90), phrase('c', '2', 50)];

  test('front to back: a join as soon as both its sides are there', () =>
    expect(order('front to back', song)).toEqual([
      'phrase a',
      'phrase b',
      'join ab',
      'phrase c',
      'join bc',
      'run abc',
    ]));

  test('alone, then joined: all phrases before any join', () =>
    expect(order('alone, then joined', song)).toEqual([
      'phrase a',
      'phrase b',
      'phrase c',
      'join ab',
      'join bc',
      'run abc',
    ]));

  test('hardest first: the hardest phrase, and a join when its other side comes', () =>
    expect(order('hardest first', song)).toEqual([
      'phrase b',
      'phrase c',
      'join bc',
      'phrase a',
      'join ab',
      'run abc',
    ]));
});
