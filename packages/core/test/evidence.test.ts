import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compareVersions, doubtsOf, playOut, readShorthand, retune } from '../src/notation/index.ts';
import { playbackRatio, readTuning, referenceTones, TUNINGS } from '../src/pitch/index.ts';

const FOUR = { meter: { beats: 4, unit: 4 } };
const phrase = (text: string) => readShorthand(text, FOUR).phrase;

describe('a second listen', () => {
  const doubts = (text: string) =>
    doubtsOf(phrase(text)).map(({ span, kind, reason, place }) => [
      text.slice(span.from, span.to),
      kind,
      reason,
      place.replace(/bar (\d), beat (\d)/, '$1.$2'),
    ]);

  test('gathers what is not certain in playing order, neighbours as one, with the words beside them', () => {
    expect(doubts('/4 5G {guess: "could be 9" 7G 8G} 5G | {seen: 5D} {likely: 7D} - {optional: 0E}')).toEqual([
      ['7G 8G', 'guess', 'could be 9', '1.2'],
      ['5D', 'seen', '', '2.1'],
      ['7D', 'likely', '', '2.2'],
      ['0E', 'optional', '', '2.4'],
    ]);
  });

  test('a bend whose size is not known yet is listed; where only the order is known, notes are counted', () => {
    expect(doubts('/4 5G 7Gb? {guess: 8Gb?}')).toEqual([
      ['7Gb?', 'bend without a size', '', '1.2'],
      ['8Gb?', 'guess', '', '1.3'],
    ]);
    expect(doubts('/? 5G - 7G {guess: 8G}')).toEqual([['8G', 'guess', '', 'note 3']]);
  });

  test('what is heard and certain is not listed', () => expect(doubts('/4 5G 7Gb1 5G 7D')).toEqual([]));
});

describe('two versions', () => {
  const steps = (before: string, after: string) =>
    compareVersions(before, after, FOUR)
      .filter(({ kind }) => kind !== 'kept')
      .map(({ kind, before: was, after: is }) => [
        kind,
        was?.text,
        is?.text,
        (is ?? was)?.place.replace(/bar (\d), beat (\d)/, '$1.$2'),
      ]);

  test('event by event: changed, gone, added, with bar and beat', () => {
    expect(steps('/4 5G 7Gb1 5G 7D', '/4 5G 7Gb.5 5G 7D')).toEqual([['changed', '7Gb1', '7Gb.5', '1.2']]);
    expect(steps('/4 5G 7G 5G 7D', '/4 5G 5G 7D')).toEqual([['gone', '7G', undefined, '1.2']]);
    expect(steps('/4 5G 5G 7D', '/4 5G 5G 7D | 9D')).toEqual([['added', undefined, '9D', '2.1']]);
  });

  test('white space is no difference', () => expect(steps('/4 5G   7G', '/4 5G 7G ')).toEqual([]));

  test('all of both versions is told, each event once', () => {
    const events = fc.array(fc.constantFrom('5G', '7G', '7Gb1', '5D', '8Gb1', '-'), { maxLength: 12 });
    fc.assert(
      fc.property(events, events, (before, after) => {
        const all = compareVersions(`/4 5G ${before.join(' ')}`, `/4 5G ${after.join(' ')}`, FOUR);
        const said = (texts: readonly (string | undefined)[]) => texts.filter((text) => text !== undefined);
        expect(said(all.map((step) => step.before?.text))).toEqual(['5G', ...before]);
        expect(said(all.map((step) => step.after?.text)).toSorted()).toEqual(['5G', ...after].toSorted());
      }),
    );
  });
});

describe('another tuning', () => {
  const standard = { tuning: TUNINGS.standard, capo: 0, frets: 22 };
  const dropD = { ...standard, tuning: TUNINGS['drop D'] };
  const pitches = (text: string, { tuning, capo }: typeof standard) =>
    playOut(phrase(text), { tuning, capo }).flatMap(({ notes }) => notes.map(({ midi }) => midi));

  test('drop D moves what stands on the thickest string up two frets, and only that', () => {
    const text = '/8 0E 3E h5 | 0EAD 7Gb1 {m: 5E%2} 3Etr5';
    const { notes, text: moved } = retune(text, phrase(text), standard, dropD);
    expect(moved).toBe('/8 2E 5E h7 | 2E0AD 7Gb1 {m: 7E%2} 5Etr7');
    expect(notes.every(({ string, semitones }) => string === 6 && semitones === -2)).toBe(true);
    expect(pitches(moved, dropD)).toEqual(pitches(text, standard));
  });

  test('what cannot be kept is told and left as written', () => {
    const text = '0E 1E 2E';
    const { notes, text: moved } = retune(text, phrase(text), dropD, standard);
    expect(notes.map(({ fret, movedTo }) => [fret, movedTo])).toEqual([
      [0, undefined],
      [1, undefined],
      [2, 0],
    ]);
    expect(moved).toBe('0E 1E 0E');
  });

  test('a capo moves everything down by its fret; a string that is gone cannot be played', () => {
    expect(retune('5G 2e', phrase('5G 2e'), standard, { ...standard, capo: 2 }).text).toBe('3G 0e');
    const four = { ...standard, tuning: readTuning('E1 A1 D2 G2') ?? TUNINGS.standard };
    const { notes } = retune('3E', phrase('3E'), standard, four);
    expect(notes).toMatchObject([{ string: 6, movedTo: undefined }]);
  });

  test('what was moved sounds as before, whatever the tunings', () => {
    const name = fc.constantFrom(...Object.values(TUNINGS));
    const note = fc
      .tuple(fc.integer({ min: 5, max: 15 }), fc.constantFrom('E', 'A', 'D', 'G', 'B', 'e'))
      .map(([fret, on]) => `${fret}${on}`);
    fc.assert(
      fc.property(fc.array(note, { minLength: 1, maxLength: 8 }), name, name, (notes, from, to) => {
        const text = notes.join(' ');
        const before = { ...standard, tuning: from };
        const after = { ...standard, tuning: to };
        expect(pitches(retune(text, phrase(text), before, after).text, after)).toEqual(pitches(text, before));
      }),
    );
  });
});

describe('tunings by their strings', () => {
  test.each([
    ['E2 A2 D3 G3 B3 E4', [64, 59, 55, 50, 45, 40]],
    ['E A D G B E', [64, 59, 55, 50, 45, 40]],
    ['D A D G A D', [62, 57, 55, 50, 45, 38]],
    ['C#2 F#2 B2 E3 G#3 C#4', [61, 56, 52, 47, 42, 37]],
    ['Eb Ab Db Gb Bb Eb', [63, 58, 54, 49, 44, 39]],
    ['E1 A1 D2 G2', [43, 38, 33, 28]],
    ['B1 E2 A2 D3 G3 B3 E4', [64, 59, 55, 50, 45, 40, 35]],
    ['drop D', [64, 59, 55, 50, 45, 38]],
  ])('%s', (text, midis) => expect(readTuning(text)?.openMidis).toEqual(midis));

  test.each(['', 'E A D', 'E A D G', 'E2 A2 D3 G3 B3 H4', 'E9 A9 D9 G9', 'E1 A1 D2 G2 C3 F3 A3 D4 G4 C5', 'tuned low'])(
    '“%s” is none',
    (text) => expect(readTuning(text)).toBeUndefined(),
  );
});

describe('a recording that stands off pitch', () => {
  // Source: ISO 16:1975, A4 = 440 Hz; open strings of the guitar in equal temperament, handbook values to 0.01 Hz.
  test.each([
    [1, 329.63],
    [2, 246.94],
    [3, 196],
    [4, 146.83],
    [5, 110],
    [6, 82.41],
  ])('string %d at pitch sounds %d Hz', (string, hz) =>
    expect(referenceTones(TUNINGS.standard, 0)[string - 1]?.hz).toBeCloseTo(hz, 2),
  );

  // Source: common practice, speed ratio = 2^(cents/1200).
  test.each([
    [0, 1],
    [-1200, 2],
    [100, 0.943874],
    [-14, 1.00812],
  ])('a recording %d cents off runs %d times as fast to stand at pitch', (cents, ratio) =>
    expect(playbackRatio(cents)).toBeCloseTo(ratio, 5),
  );

  test('the guitar tuned to it sounds that much higher', () => {
    expect(referenceTones(TUNINGS.standard, 20)[4]?.hz).toBeCloseTo(110 * 2 ** (20 / 1200), 9);
  });
});
