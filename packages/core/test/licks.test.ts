import { describe, expect, test } from '@jest/globals';
import { factsOf } from '../src/licks/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { readKey, TUNINGS } from '../src/pitch/index.ts';

const setup = { tuning: TUNINGS.standard, capo: 0, key: readKey('A') ?? { fifths: 3, mode: 'major' as const } };
const facts = (text: string) => factsOf(readShorthand(text).phrase, setup);

describe('what a lick can be found by', () => {
  test('techniques, chords, degrees, shape, place and steps', () => {
    expect(facts(':A7 5G 7Gb1 5B | :D7 5G 12e')).toEqual({
      techniques: ['whole-step bend'],
      bars: 0.625,
      chords: ['A7', 'D7'],
      degrees: ' b3 5 5 b7 2 ',
      shape: ' 0,0 0,2 1,0 0,0 2,7 ',
      steps: ' 4 0 -4 16 ',
      grams: ['4 0 -4', '0 -4 16'],
      lowestFret: 5,
      highestFret: 12,
      events: 5,
    });
  });

  test('the same lick elsewhere has the same steps and shape', () => {
    const [here, there] = [facts('5G 7G 5B 8B'), facts('9G 11G 9B 12B')];
    expect([there.steps, there.shape]).toEqual([here.steps, here.shape]);
  });

  test('repeats count once, of a stack the highest note, dead notes not at all', () => {
    expect(facts('[ 5G 7G ]4').steps).toBe(' 2 ');
    expect(facts('5A7D xG 7D').steps).toBe(' 0 ');
  });

  test('nothing has nothing', () =>
    expect(facts('')).toMatchObject({ degrees: '', shape: '', steps: '', grams: [], events: 0, lowestFret: 0 }));
});
