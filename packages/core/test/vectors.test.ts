import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { fractionOfWhole, playOut, readMeter, readShorthand } from '../src/notation/index.ts';
import { isTuningName, TUNINGS } from '../src/pitch/index.ts';

interface Vector {
  readonly name: string;
  readonly text: string;
  readonly tuning: string;
  readonly capo: number;
  readonly meter: string;
  readonly events: readonly unknown[];
  readonly problems: readonly string[];
}

// Check cases that came with the notation's specification; every number was worked out by hand there.
const vectors: readonly Vector[] = JSON.parse(
  readFileSync(new URL('./shorthand-vectors.json', import.meta.url), 'utf8'),
);

describe('the check cases of the notation', () => {
  test('are all there', () => expect(vectors.length).toBeGreaterThanOrEqual(28));

  test.each(vectors.map((vector) => [vector.name, vector] as const))('%s', (_name, vector) => {
    if (!isTuningName(vector.tuning)) throw new Error(`no tuning ${vector.tuning}`);
    const tuning = TUNINGS[vector.tuning];
    const meter = readMeter(vector.meter);
    if (!meter) throw new Error(`no meter ${vector.meter}`);
    const { phrase, problems } = readShorthand(vector.text, { tuning, meter });
    const events = playOut(phrase, { tuning, capo: vector.capo }).map(({ at, length, notes, marks }) => ({
      at: fractionOfWhole(at),
      length: fractionOfWhole(length),
      notes,
      marks,
    }));
    expect(events).toEqual(vector.events);
    expect(problems.map(({ code }) => code).sort()).toEqual(vector.problems);
  });
});

interface Pair {
  readonly text: string;
  readonly same: string;
}

// Pairs that came with the second edition of the notation: both play out the same.
const pairs: readonly Pair[] = JSON.parse(readFileSync(new URL('./same-vectors.json', import.meta.url), 'utf8'));

describe('ways of typing the same', () => {
  const played = (text: string) => {
    const { phrase, problems } = readShorthand(text);
    expect(problems.filter(({ severity }) => severity === 'error')).toEqual([]);
    return playOut(phrase, { tuning: TUNINGS.standard, capo: 0 }).map(({ span: _, ...event }) => event);
  };
  test.each(pairs)('$text is $same', ({ text, same }) => expect(played(text)).toEqual(played(same)));
});
