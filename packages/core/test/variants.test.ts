import { describe, expect, test } from '@jest/globals';
import { usualGuitar } from '../src/fretboard/index.ts';
import { eventsOf, playOut, readShorthand, writeShorthand, type Phrase } from '../src/notation/index.ts';
import { readKey, TUNINGS, type Key } from '../src/pitch/index.ts';
import { makeVariant, sayUnread, VARIANT_KINDS, type VariantKind, type VariantOptions } from '../src/variants/index.ts';
import { CORRECT_PHRASES } from './phrases.ts';

const guitar = usualGuitar(TUNINGS.standard);
const read = (text: string) => readShorthand(text).phrase;
const write = (phrase: Phrase) => writeShorthand(phrase, { strings: 'letters' });
const make = (text: string, kind: VariantKind, options: Partial<VariantOptions> = {}) => {
  const { phrase, changes } = makeVariant(read(text), kind, { ...guitar, ...options });
  return { text: write(phrase), changes };
};
const key = (text: string): Key => readKey(text) ?? { fifths: 0, mode: 'major' };

describe('easier', () => {
  test('wide bends become their target, graces and ornaments go', () => {
    const { text, changes } = make('5G/g 7G 12Gb1.5r 9Gtr11 7G~~', 'easier');
    expect(text).toBe('7G 15G 9G 7G~');
    expect(changes).toEqual([
      '1 grace note is left out.',
      '1 wide bend is played as its target fret.',
      '1 ornament (trill, dip, pinch, rake, tremolo) is left out.',
      '1 wide vibrato is narrow.',
    ]);
  });
  test('sixteenths thin out to the eighths, and links to what is gone go with it', () =>
    expect(make('/16 5G h7 5B h8 5e 8e 5e 8e', 'easier').text).toBe('5G 5B 5e 5e'));
  test('a chord keeps its bass and its two highest notes', () =>
    expect(make('3A2D0G1B0e', 'easier').text).toBe('3A1B0e'));
  test('a stretch beyond the hand loses its thickest note', () => expect(make('1E6D', 'easier').text).toBe('6D'));
  test('what is easy stays and says so', () =>
    expect(make('5G 7Gb1 5B', 'easier')).toEqual({ text: '5G 7Gb1 5B', changes: ['Nothing had to change.'] }));
  test('bars still add up', () => {
    for (const { text } of CORRECT_PHRASES) {
      const { phrase } = makeVariant(read(text), 'easier', guitar);
      expect(readShorthand(write(phrase)).problems.filter(({ code }) => code === 'bar-length')).toEqual([]);
    }
  });
});

describe('other places', () => {
  test('an octave down', () => {
    const { phrase, changes } = makeVariant(read('12B 15e 12e'), 'down an octave', guitar);
    expect(playOut(phrase, guitar).map(({ notes }) => notes[0]?.midi)).toEqual([59, 67, 64]);
    expect(changes[0]).toContain('All of it an octave lower');
  });
  test('fewer frets', () => {
    const { text, changes } = make('21B 22e', 'fewer frets');
    expect(text).toBe('16e 10e');
    expect(changes).toEqual([
      'For 19 frets.',
      expect.stringContaining('Beat 1 of bar 1'),
      expect.stringContaining('octave lower'),
    ]);
  });
  test('another key, the nearer way, chords along', () => {
    const { text, changes } = make(':A7 5G 7G', 'other key', { key: key('A'), toKey: key('G') });
    expect(text).toBe(':G7 3G 5G');
    expect(changes).toEqual(['In G, 2 semitones lower, on the same strings.']);
  });
  test('one box says where', () =>
    expect(make('5G 7G 9G 12G', 'one box').changes[0]).toMatch(/^The hand stays at fret \d+\.$/));
});

test('every kind leaves a phrase that reads without a new error', () => {
  for (const { text, key: of } of CORRECT_PHRASES)
    for (const kind of VARIANT_KINDS) {
      const made = makeVariant(read(text), kind, { ...guitar, key: key(of), toKey: key('D') });
      const errors = readShorthand(write(made.phrase)).problems.map(({ message }) => message);
      expect({ kind, text: write(made.phrase), errors }).toMatchObject({ errors: [] });
      expect(made.changes.length).toBeGreaterThan(0);
      expect(eventsOf(made.phrase).length).toBeGreaterThan(0);
    }
});

describe('a text with something that could not be read', () => {
  test('says of each skipped word that it may be missing, in the order of the text', () => {
    const text = '/4 5G 7GG 5Q blah 7G';
    const said = sayUnread(text, readShorthand(text).problems);
    for (const word of ['7GG', '5Q', 'blah']) expect(said.join(' ')).toContain(`“${word}” could not be read`);
    expect(said.length).toBe(3);
    expect(sayUnread('/4 5G :Nope 7G', readShorthand('/4 5G :Nope 7G').problems)).toEqual([]);
  });
});
