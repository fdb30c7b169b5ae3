import { describe, expect, test } from '@jest/globals';
import { degreesOf } from '@jam-ledger/core/harmony';
import { readShorthand, scoreOf } from '@jam-ledger/core/notation';
import { readKey, TUNINGS } from '@jam-ledger/core/pitch';
import { wrapped } from '../src/handouts/wrapped.ts';
import { sayPiece } from '../src/handouts/goals.ts';
import { onlyShown, withDegrees } from '../src/handouts/onlyShown.ts';
import { planPages, type Block } from '../src/handouts/pagePlan.ts';
import { woffToTtf } from '../src/handouts/woff.ts';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);

describe('pages of a handout', () => {
  const line = (height: number, phraseId?: string): Block => ({
    height,
    isLine: true,
    ...(phraseId !== undefined && { phraseId }),
  });
  const head: Block = { height: 20, keepsWithNext: true };

  test('lines are counted on each page, and phrases found by page and line', () => {
    const { pages, places } = planPages([head, line(100, 'a'), line(100), head, line(100, 'b')], 250);
    expect(pages.map(({ blocks }) => blocks.map(({ y, line: number }) => [y, number]))).toEqual([
      [
        [0, undefined],
        [20, 1],
        [120, 2],
      ],
      [
        [0, undefined],
        [20, 1],
      ],
    ]);
    expect([...places]).toEqual([
      ['a', { page: 1, line: 1 }],
      ['b', { page: 2, line: 1 }],
    ]);
  });

  test('a heading goes with what it heads; what is higher than a page stands alone', () => {
    const { pages } = planPages([line(200), head, head, line(50), line(400)], 250);
    expect(pages.map(({ blocks }) => blocks.length)).toEqual([1, 3, 1]);
    expect(planPages([], 250).pages).toEqual([]);
    expect(planPages([head], 250).pages).toHaveLength(1);
  });

  test('what begins a page leaves the rest of the one before, and no heading goes with it', () => {
    const { pages } = planPages([line(50), head, { height: 20, startsPage: true }, line(50)], 250);
    expect(pages.map(({ blocks }) => blocks.length)).toEqual([2, 2]);
    expect(planPages([{ height: 20, startsPage: true }], 250).pages).toHaveLength(1);
  });

  test('words are broken between words', () => {
    expect(wrapped('one two three', 8)).toEqual(['one two', 'three']);
    expect(wrapped('  extraordinary  a b ', 5)).toEqual(['extraordinary', 'a b']);
    expect(wrapped('', 5)).toEqual([]);
  });

  test('only what is asked for stands on it', () => {
    const bars = scoreOf(readShorthand(':Am "mind this" 7Gf1d 9Gqm+12Bf2 :D').phrase);
    const all = { fingers: true, strokes: true, words: true, chords: true };
    expect(onlyShown(bars, all)).toBe(bars);
    const [bar] = onlyShown(bars, { fingers: false, strokes: false, words: false, chords: false });
    expect(
      bar?.events.map(({ chord, words, marks, item }) => [
        chord,
        words,
        marks,
        item?.notes.map(({ finger, plucked }) => finger ?? plucked),
      ]),
    ).toEqual([
      [undefined, [], [], [undefined]],
      [undefined, [], [], [undefined, undefined]],
    ]);
    expect(bar?.closing).toBeUndefined();
    const [fingers] = onlyShown(bars, { ...all, strokes: false });
    expect(fingers?.events[0]?.item?.notes[0]?.finger).toBe('1');
    expect(fingers?.events[0]?.chord).toBe('Am');
  });
});

test('degrees stand under each note struck, against the chord or else the key, the lowest first', () => {
  const { phrase } = readShorthand('/2 5G _ 3A2D0G 9G | :Am [ 5G 7G ]2 xG');
  const key = readKey('C major');
  if (!key) throw new Error('the key does not read');
  const degrees = degreesOf(phrase, { tuning: TUNINGS.standard, capo: 0, key });
  const said = withDegrees(scoreOf(phrase), degrees).flatMap(({ events }) => events.map((event) => event.degrees));
  expect(said.filter((one) => one !== undefined)).toEqual(['1', '1 3 5', '3', 'b3', '4']);
});

test('the last page says where a piece stands and how it goes on', () => {
  const rung = (bpm: number, percent = 100) => ({ bpm, percent });
  const piece = {
    phrase: { id: 'p', name: 'Riff', text: '' },
    next: { ...rung(70), move: 'up' as const, reason: '' },
    rungs: [rung(60, 50), rung(70), rung(96)],
    targetBpm: 96,
  };
  expect(sayPiece(piece)).toBe('Riff: now 70 bpm, target 96 bpm; rungs 60 (50 %), 70, 96');
});

describe('a font out of its WOFF file', () => {
  // Source: OpenType, “Organization of an OpenType font”; the sums of its tables are those that the file states.
  test('every table is there, at a multiple of four, with its checksum', () => {
    const file = require.resolve('@fontsource/dejavu-sans/files/dejavu-sans-latin-400-normal.woff');
    const font = woffToTtf(new Uint8Array(readFileSync(file)));
    const view = new DataView(font.buffer);
    expect(view.getUint32(0)).toBe(0x00010000);
    const count = view.getUint16(4);
    expect(count).toBeGreaterThan(8);
    for (let index = 0; index < count; index += 1) {
      const at = 12 + 16 * index;
      const tag = String.fromCharCode(...font.subarray(at, at + 4));
      const [checksum, offset, length] = [view.getUint32(at + 4), view.getUint32(at + 8), view.getUint32(at + 12)];
      expect(offset % 4).toBe(0);
      expect(offset + length).toBeLessThanOrEqual(font.length);
      let sum = 0;
      for (let word = 0; word < length; word += 4) sum = (sum + view.getUint32(offset + word)) >>> 0;
      // The table “head” holds a sum of the whole font, which is left out of its own.
      if (tag !== 'head') expect([tag, sum]).toEqual([tag, checksum]);
    }
  });
});
