import { describe, expect, test } from '@jest/globals';
import { checkPhrase, slipsOf, type CheckCode, type CheckOptions } from '../src/checks/index.ts';
import { reachOfSpan, usualGuitar } from '../src/fretboard/index.ts';
import { readShorthand } from '../src/notation/index.ts';
import { fretDistanceMm, readKey, TUNINGS } from '../src/pitch/index.ts';
import { CORRECT_PHRASES } from './phrases.ts';

const guitar = usualGuitar(TUNINGS.standard);
const check = (text: string, options: Partial<CheckOptions> = {}) =>
  checkPhrase(readShorthand(text).phrase, { ...guitar, text, bpm: 90, ...options });
const found = (text: string, code: CheckCode, options?: Partial<CheckOptions>) =>
  check(text, options).filter((problem) => problem.code === code);
const fixed = (text: string, code: CheckCode, options?: Partial<CheckOptions>) => {
  const fix = found(text, code, options)[0]?.fix;
  return fix && text.slice(0, fix.span.from) + fix.text + text.slice(fix.span.to);
};

describe('what this guitar has not', () => {
  test('a fret too many goes to a thinner string, or an octave lower', () => {
    expect(fixed('5B 24B 5B', 'fret-missing')).toBe('5B 19e 5B');
    expect(fixed('24e', 'fret-missing')).toBe('12e');
    expect(found('22e', 'fret-missing')).toEqual([]);
  });
  test('a capo takes its frets away', () => {
    expect(found('21e', 'fret-missing', { capo: 2 })[0]?.message).toContain('20 from the capo');
  });
  test('a chain of slurs moves as one', () => expect(fixed('22B h24 p22', 'fret-missing')).toBe('17e h19e p17e'));
  test('a trill with a missing fret is told', () => expect(found('22etr24', 'fret-missing')).toHaveLength(1));
  test('a dip wants a tremolo arm', () => {
    expect(fixed('5Gw-1', 'no-tremolo-arm', { tremoloArm: false })).toBe('5G~~');
    expect(found('5Gw-1', 'no-tremolo-arm', { tremoloArm: true })).toEqual([]);
  });
  test('a bend past the last fret cannot be checked against one', () =>
    expect(found('22eb1', 'bend-beyond-neck')).toHaveLength(1));
});

describe('what a hand cannot hold', () => {
  // Source: fret distances by the twelfth-root-of-two rule; 1 to 6 on 648 mm is 153 mm, 12 to 17 is 81 mm.
  test('a stretch is told in millimetres of the place where it is', () => {
    expect(fretDistanceMm(648, 1, 6)).toBeCloseTo(153.4, 1);
    expect(found('1E6D', 'reach')[0]?.message).toContain('153 mm');
    expect(found('12E17D', 'reach')).toEqual([]);
  });
  test('a smaller hand is told sooner', () => {
    expect(found('5E9D', 'reach')).toEqual([]);
    expect(found('5E9D', 'reach', { reachMm: reachOfSpan(3) })).toHaveLength(1);
  });
  test('a wide stack is offered on other strings where it lies closer', () =>
    expect(fixed('2E8A', 'reach')).toBe('2E3D'));
  test('a hammer-on wider than the hand is told', () => expect(found('1Gh7', 'reach')).toHaveLength(1));
  test('five frets at once are one too many', () => expect(fixed('1E2A3D4G5B', 'stack-impossible')).toBe('1E2A3D5B'));
  test('one finger for two frets is told', () =>
    expect(found('5Df2+7Gf2', 'finger-twice')[0]?.message).toContain('Finger 2'));
  test('… and its fingers can be left open', () => expect(fixed('5Df2+7Gf2', 'finger-twice')).toBe('5D7G'));
  test('a barre is no such thing', () => expect(check('{bar5: 5E7A7D6G5B5e }')).toEqual([]));
  test('an open chord is no trouble', () => expect(check('3A2D0G1B0e')).toEqual([]));
});

describe('what is too fast', () => {
  test('a jump is told in millimetres a second, at this tempo', () => {
    const [jump] = found('/16 3e 19e', 'jump-fast', { bpm: 160 });
    expect(jump?.message).toMatch(/from 3 on the high e to 19 on the high e is \d+ mm in 0\.09 s/);
    expect(found('/16 3e 19e', 'jump-fast', { bpm: 40 })).toEqual([]);
    expect(fixed('/16 12e 1e 12e', 'jump-fast', { bpm: 200 })).toBe('/16 12e 10G 12e');
  });
  test('notes a second', () => {
    expect(found('/16 5G 7G 5B 7B', 'too-fast', { bpm: 230 })[0]?.message).toContain('15.3 a second');
    expect(found('/16 5G 7G 5B 7B', 'too-fast', { bpm: 200 })).toEqual([]);
  });
});

describe('bends', () => {
  // Source: common practice; B 15 bent a whole step is high e 12.
  test('a unison bend meets its partner', () => {
    expect(found('15Bb1+12e', 'unison-off')).toEqual([]);
    expect(fixed('15Bb.5+12e', 'unison-off')).toBe('15Bb1+12e');
    expect(found('14Bb1+12e', 'unison-off')[0]?.message).toContain('a half step below');
  });
  test('a bend held while another string is picked, too', () => {
    expect(fixed('15Bb.5 12e', 'unison-off')).toBe('15Bb1 12e');
    expect(found('8Bb1 8e', 'unison-off')).toEqual([]);
  });
  test('a range that takes the partner in is right', () => expect(found('14Bb1-2+12e', 'unison-off')).toEqual([]));
  test('a bend without a size is given the next plain note’s', () => {
    expect(fixed('12Gb? 15G', 'bend-proposed')).toBe('12Gb1.5 15G');
    expect(fixed('12Gb?/4 5D', 'bend-proposed')).toBe('12Gb1/4 5D');
  });
});

describe('the key', () => {
  test('a stated key that holds little of the notes is doubted', () => {
    const text = '/8 1E 3E 0A 1A 3A 0D 2D 3D 0G 2G 3G 1B';
    expect(found(text, 'key-doubt', { key: readKey('E') })[0]?.message).toContain('F major or D minor');
    expect(found(text, 'key-doubt', { key: readKey('F') })).toEqual([]);
  });
  test('blue notes over a major key are no doubt', () =>
    expect(found('/8 5E 8E 5A 7A 5D 7D 5G 8G 5B 8B', 'key-doubt', { key: readKey('A') })).toEqual([]));
});

describe('likely slips', () => {
  const key = readKey('A minor');
  test.each([
    ['fret said for string', '5@2 8@2 2@5 5@1 8@1', '5@2'],
    ['an octave', '/8 5G 7G 19G 5B 8B', '7G'],
    ['a ten gained', '/8 5G 7G 17A 8B 5e', '7A'],
  ])('%s', (_, text, meant) => {
    const wrong = found(text, 'slip', { key })[0];
    expect(wrong?.fix?.text).toBe(meant);
  });
  test('a chromatic note that only passes is none', () => {
    expect(found('/8 5A 7A 5D 7D 5G 6G 7G 5D', 'slip', { key: readKey('A minor') })).toHaveLength(0);
  });
  test('blue notes over a major key are no slips where they are several', () =>
    expect(found('/8 5G 7G 7G 5B 8B', 'slip', { key: readKey('A') })).toEqual([]));
  test('correct phrases read without a problem', () => {
    for (const { text } of CORRECT_PHRASES)
      expect({ text, problems: readShorthand(text).problems }).toEqual({ text, problems: [] });
  });
  test('correct phrases are left in peace, but for two in a hundred events', () => {
    const alarms = CORRECT_PHRASES.map(
      ({ key: of, text }) => slipsOf(readShorthand(text).phrase, guitar, readKey(of)).length,
    );
    const events = CORRECT_PHRASES.map(({ text }) => text.split(/\d+[EADGBe]/).length - 1);
    const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
    expect(sum(alarms) / sum(events)).toBeLessThan(0.02);
  });
});

test('a phrase on strings that the guitar lacks is left to the reader', () =>
  expect(check('5@7', { tuning: TUNINGS.standard })).toEqual([]));
