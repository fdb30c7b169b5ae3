import { describe, expect, test } from '@jest/globals';
import { logOddsOf, logSum, slipsOf, weighReadings } from '../src/checks/index.ts';
import { MOST_READINGS } from '../src/checks/slips/readings.ts';
import { THRESHOLD } from '../src/checks/slips/weights.ts';
import { noiseOf } from '../src/sound/index.ts';
import { readCorpus } from './corpus.ts';
import { guitar, slipInto } from './slipping.ts';

/** Each third phrase of the corpus as it is right, and with slips in it. */
const PHRASES = readCorpus()
  .filter((_, index) => index % 3 === 0)
  .flatMap((right, index) => {
    const noise = noiseOf(index + 1);
    const slipped = slipInto(right, () => (noise() + 1) / 2);
    return [right, ...slipped].map(({ text, phrase }) => ({ text, phrase, key: right.key }));
  });

describe('readings that could not be told are not weighed', () => {
  test('what is told is what is told when all of them are', () => {
    expect(PHRASES.length).toBeGreaterThan(500);
    let told = 0;
    for (const { text, phrase, key } of PHRASES) {
      const { line, sites } = weighReadings(phrase, guitar, key);
      const odds = sites.map((site) => logSum(site.map((one) => logOddsOf(one))));
      const likely = line.events.flatMap((indices) => {
        const most = Math.max(...indices.map((index) => odds[index] ?? -Infinity));
        return most > THRESHOLD ? [[line.notes[indices[0] ?? -1]?.item.span, most.toFixed(9)]] : [];
      });
      const slips = slipsOf(phrase, guitar, key);
      told += slips.length;
      expect([text, slips.map(({ item, logOdds }) => [item.span, logOdds.toFixed(9)])]).toEqual([text, likely]);
    }
    expect(told).toBeGreaterThan(200);
  });

  test('no note has more readings of a kind than is said', () => {
    const most = new Map<string, number>();
    for (const { phrase, key } of PHRASES)
      for (const site of weighReadings(phrase, guitar, key).sites) {
        const counts = new Map<string, number>();
        for (const { reading } of site) counts.set(reading.kind, (counts.get(reading.kind) ?? 0) + 1);
        for (const [kind, count] of counts) most.set(kind, Math.max(count, most.get(kind) ?? 0));
      }
    for (const [kind, count] of most)
      expect([kind, count <= MOST_READINGS[kind as keyof typeof MOST_READINGS]]).toEqual([kind, true]);
    expect(most.size).toBeGreaterThan(7);
  });
});
