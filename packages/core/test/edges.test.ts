import { describe, expect, test } from '@jest/globals';
import { tempoFromTaps } from '../src/form/index.ts';
import { positionsFor, usualGuitar } from '../src/fretboard/index.ts';
import {
  cutPieces,
  halvesOf,
  isReady,
  joinOf,
  READY_SHARE,
  sayCut,
  startTempo,
  type CutPhrase,
} from '../src/pieces/index.ts';
import { priorOf } from '../src/progress/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';

const phrase = (more: Partial<CutPhrase> = {}): CutPhrase => ({
  ...{ id: 'a', sectionId: '1', difficulty: 10, bars: 2, length: 8, headTo: 4, tailFrom: 4, middle: 4, hard: null },
  ...more,
});

describe('where a piece begins by rule', () => {
  const share = (difficulty: number) => startTempo(100, { difficulty, shown: [] }).bpm;
  test('falls with how hard it is, evenly, and no further than the ends of the scale', () => {
    const [easiest, middle, hardest] = [share(0), share(50), share(100)];
    expect(easiest).toBeGreaterThan(middle);
    expect(middle - hardest).toBe(easiest - middle);
    expect([share(-10), share(110)]).toEqual([easiest, hardest]);
  });
  test('is told with its share, and with what was shown where enough was', () => {
    expect(startTempo(100, { difficulty: 0, shown: [] }).reason).toMatch(/by rule \d+ % of the target\.$/);
    const shown = [50, 55, 60, 45].map((difficulty) => ({ difficulty, share: 0.5 }));
    expect(startTempo(120, { difficulty: 52, shown })).toMatchObject({ bpm: 60 });
    expect(startTempo(120, { difficulty: 95, shown }).reason).toMatch(/by rule/);
  });
  test('never under its floor, nor above its target', () => {
    expect(startTempo(100, { difficulty: 100, shown: [], floor: 80 })).toMatchObject({ bpm: 80 });
    expect(startTempo(100, { difficulty: 100, shown: [], floor: 120 })).toMatchObject({ bpm: 100 });
    expect(() => startTempo(0, { difficulty: 0, shown: [] })).toThrow('a target tempo is above 0, not 0');
  });
});

describe('cuts', () => {
  test('in words', () => {
    const [first, second] = halvesOf(phrase());
    const name = (id: string) => id.toUpperCase();
    expect([first, second, joinOf(phrase(), phrase({ id: 'b' }))].map((cut) => cut && sayCut(cut, name))).toEqual([
      'A, first half',
      'A, second half',
      'A into B',
    ]);
  });
  test('a phrase of two bars is not halved, one of four is, and a hard one at any length', () => {
    const kinds = (more: Partial<CutPhrase>) => cutPieces([phrase(more)], 'front to back').map(({ kind }) => kind);
    expect(kinds({ bars: 2 })).toEqual(['phrase']);
    expect(kinds({ bars: 4 })).toEqual(['half', 'half', 'phrase']);
    expect(kinds({ bars: 2, difficulty: 100 })).toEqual(['half', 'half', 'phrase']);
    expect(kinds({ bars: 4, middle: null })).toEqual(['phrase']);
  });
  test('what may be built upon: from its share on, unless it slips', () => {
    expect(isReady({ share: READY_SHARE, slipping: false })).toBe(true);
    expect(isReady({ share: READY_SHARE - 0.001, slipping: false })).toBe(false);
    expect(isReady({ share: 1, slipping: true })).toBe(false);
  });
});

describe('a tapped tempo', () => {
  test('a tap a second is sixty, with no doubt', () => {
    const tempo = tempoFromTaps([0, 1, 2, 3, 4]);
    for (const bpm of [tempo?.bpm, tempo?.min, tempo?.max]) expect(bpm).toBeCloseTo(60, 6);
    expect(tempo?.missed).toBe(0);
  });
  test('a tap that was missed is counted, a pause begins anew, three are too few', () => {
    expect(tempoFromTaps([0, 1, 2, 4, 5])).toMatchObject({ missed: 1 });
    expect(tempoFromTaps([0, 1, 2, 8, 9])).toBeUndefined();
    expect(tempoFromTaps([0, 1, 2])).toBeUndefined();
    expect(tempoFromTaps([0, 1, 1, 2])).toBeUndefined();
  });
  // Source: Student’s t for 7 degrees of freedom, two-sided 95 %: 2.36 (statistical tables).
  test('nine taps with a known error have the range that the table gives', () => {
    const noise = [0.01, -0.01, 0.01, -0.01, 0.01, -0.01, 0.01, -0.01, 0.01];
    const times = noise.map((one, index) => index + one);
    const n = times.length;
    const meanX = (n - 1) / 2;
    const meanY = times.reduce((sum, one) => sum + one, 0) / n;
    const sxx = times.reduce((sum, _, x) => sum + (x - meanX) ** 2, 0);
    const slope = times.reduce((sum, y, x) => sum + (x - meanX) * (y - meanY), 0) / sxx;
    const left = times.reduce((sum, y, x) => sum + (y - meanY - slope * (x - meanX)) ** 2, 0);
    const error = Math.sqrt(left / (n - 2) / sxx);
    expect(tempoFromTaps(times)?.min).toBeCloseTo(60 / (slope + 2.36 * error), 6);
  });
});

describe('what to expect of a piece before it is begun', () => {
  const studio = { count: 2, perDay: 0.02, spread: 0.01 };
  test('four of their own weigh as much as the studio', () =>
    expect(priorOf([0.01, 0.01, 0.01, 0.01], studio)?.perDay).toBeCloseTo(0.015, 9));
  test('two pieces of the studio say something, one does not', () => {
    expect(priorOf([], studio)).toEqual({ perDay: 0.02, spread: 0.01 });
    expect(priorOf([], { ...studio, count: 1 })).toBeUndefined();
    expect(priorOf([0.01], { ...studio, count: 1 })).toBeUndefined();
  });
  test('their own alone where the studio says nothing, as much spread as they have', () => {
    const prior = priorOf([0.01, 0.03], { count: 0, perDay: 0, spread: 0 });
    expect(prior?.perDay).toBeCloseTo(0.02, 9);
    expect(prior?.spread).toBeCloseTo(Math.SQRT2 / 100, 9);
  });
});

describe('positions of pitches together', () => {
  const guitar = usualGuitar(TUNINGS.standard);
  test('one string each, in the order of the pitches', () => {
    const ways = positionsFor([45, 52], guitar);
    expect(ways).toContainEqual([
      { string: 5, fret: 0 },
      { string: 4, fret: 2 },
    ]);
    for (const way of ways) expect(new Set(way.map(({ string }) => string)).size).toBe(2);
  });
  test('pitches count from the capo, and none lies below it', () => {
    const capo = { ...guitar, capo: 2 };
    expect(positionsFor([42], capo)).toEqual([[{ string: 6, fret: 0 }]]);
    expect(positionsFor([41], capo)).toEqual([]);
    expect(positionsFor([40.5], guitar)).toEqual([]);
  });
});
