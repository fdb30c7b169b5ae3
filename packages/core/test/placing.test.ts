import { describe, expect, test } from '@jest/globals';
import {
  eventsOf,
  movedText,
  perform,
  playOut,
  readShorthand,
  doubtsOf,
  writeShorthand,
} from '../src/notation/index.ts';
import { placePhrase, readPlaced, settledText } from '../src/placing/index.ts';
import { chromaOfName, readTuning, TUNINGS } from '../src/pitch/index.ts';
import { readCorpus } from './corpus.ts';

const SETUP = { tuning: TUNINGS.standard, capo: 0 };
const placesOf = (text: string, options = {}) =>
  eventsOf(readPlaced(text, { ...SETUP, ...options }).phrase).map(({ item }) =>
    item.notes.map(({ fret, string }) => `${fret ?? '–'}${'eBGDAE'.charAt(string - 1)}`).join('+'),
  );
const midisOf = (text: string) =>
  playOut(readPlaced(text, SETUP).phrase, SETUP).map(({ notes }) => notes.map(({ midi }) => midi).join('+'));
const told = (text: string) => readPlaced(text, SETUP).problems.map(({ code }) => code);
const settled = (text: string) =>
  settledText(text, readPlaced(text, SETUP).phrase, (one) => readPlaced(one, SETUP).phrase);

describe('notes by their names', () => {
  test('lie in the octave nearest to the note before, upward on a tie, the first lowest', () => {
    expect(midisOf("'F# 'A 'D 'G#")).toEqual(['42', '45', '50', '56']);
    expect(midisOf("9G 'F# 'D 'Bb 'En")).toEqual(['64', '66', '62', '58', '64']);
    expect(midisOf("9G 'F#+ 'F#-")).toEqual(['64', '78', '66']);
  });

  test('the accidental belongs to the name, and a natural sign ends it before a mark', () => {
    const [event] = eventsOf(readPlaced("'Bnb1").phrase);
    expect(event?.item.notes[0]?.moves).toEqual([{ kind: 'bend', steps: 1 }]);
    expect(midisOf("'Bb")).toEqual(['46']);
  });

  test('start in a named box, and stay in it; another box moves them', () => {
    expect(placesOf("box=7 'F# 'A 'C# h'E")).toEqual(['9A', '7D', '6G', '9G']);
    expect(placesOf("box=2 'F# 'A 'C#")).toEqual(['2E', '5E', '4A']);
    expect(placesOf("'F# 'A 'C#", { box: 7 })).toEqual(placesOf("box=7 'F# 'A 'C#"));
  });

  test('a hammer-on goes up on its string, a pull-off down', () => {
    expect(placesOf("9G h'E p'D")).toEqual(['9G', '21G', '19G']);
    expect(told("9G h'B")).toEqual([]);
  });

  test('are the notes of the corpus, read back from their names alone', () => {
    // Each note by name, with as many octave signs as take it from the octave that would be supposed.
    let count = 0;
    for (const { text, meter } of readCorpus().slice(0, 80)) {
      const midis = playOut(readShorthand(text, { meter }).phrase, SETUP)
        .flatMap(({ notes }) => (notes.length === 1 ? (notes[0]?.midi ?? []) : []))
        .filter((midi) => midi >= 40 && midi <= 80);
      let before: number | undefined;
      const named = midis.map((midi) => {
        const name = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'][midi % 12] ?? 'C';
        const up = before === undefined ? undefined : (((midi - before) % 12) + 12) % 12;
        const supposed =
          before === undefined || up === undefined ? 40 + ((midi - 40) % 12) : before + (up <= 6 ? up : up - 12);
        before = midi;
        const octaves = (midi - supposed) / 12;
        return `'${name}${(octaves < 0 ? '-' : '+').repeat(Math.abs(octaves))}`;
      });
      expect(midisOf(named.join(' ')).map(Number)).toEqual(midis);
      count += midis.length;
    }
    expect(count).toBeGreaterThan(400);
  });

  test.each(["''", "'", "'H", "'f", "'Bb1", "5G+'", "'F#9"])('%s is no name, and is told', (text) =>
    expect(told(text).length).toBeGreaterThan(0),
  );
  test('a name that this guitar has no place for is told, and silent', () => {
    expect(told("'C--")).toEqual(['no-place']);
    expect(perform(readPlaced("'C-- 5G").phrase, { ...SETUP, bpm: 60 }).map(({ midi }) => midi)).toEqual([null, 60]);
  });

  test('a fret without a string behind a name is asked, with every string', () => {
    const { problems } = readShorthand("'F# 7");
    expect(problems.map(({ code }) => code)).toEqual(['string-missing']);
    expect(1 + (problems[0]?.otherFixes?.length ?? 0)).toBe(6);
  });

  test('sound through the capo, on any tuning', () => {
    const tuning = readTuning('DADGBE') ?? TUNINGS.standard;
    for (const capo of [0, 3]) {
      const [event] = playOut(readPlaced("'F#", { tuning, capo }).phrase, { tuning, capo });
      expect((event?.notes[0]?.midi ?? 0) % 12).toBe(chromaOfName('F#'));
    }
  });
});

describe('notes by their degree', () => {
  test('of the chord in force', () => {
    expect(midisOf('/8 :A7 ^3 ^5 ^b7').map((midi) => Number(midi) % 12)).toEqual([1, 4, 7]);
    expect(midisOf('/8 :A7 ^3 :D7 ^3').map((midi) => Number(midi) % 12)).toEqual([1, 6]);
    expect(midisOf(':E7 ^#4 ^9 ^13').map((midi) => Number(midi) % 12)).toEqual([10, 6, 1]);
  });
  test('lie in one position', () => {
    const frets = eventsOf(readPlaced('box=5 :A7 ^1 ^3 ^5 ^b7 ^1').phrase).map(({ item }) => item.notes[0]?.fret ?? 0);
    expect(Math.max(...frets) - Math.min(...frets)).toBeLessThanOrEqual(4);
  });
  test.each(['^5', ':- ^5', ':Nope ^3', ':N.C. h^3'])('%s: there is no chord', (text) =>
    expect(told(text)).toContain('degree-without-chord'),
  );
});

describe('strings and frets that were not said', () => {
  test('the cheapest string for the hand', () =>
    expect(placesOf('5D 7D 5? 7D 5D')).toEqual(['5D', '7D', '5D', '7D', '5D']));
  test('the likeliest fret, on the string that was said', () => {
    const [, , , note] = eventsOf(readPlaced('5A 8A 5D ?D 5G 7G').phrase);
    expect(note?.item.notes[0]?.string).toBe(4);
    expect([3, 4, 5, 6, 7, 8]).toContain(note?.item.notes[0]?.fret);
  });
  test.each(['7?', '7@?', '?G', '?@3'])('%s is a guess: silent, and listed for a second listen', (text) => {
    const { phrase } = readPlaced(`5G ${text}`);
    expect(perform(phrase, { ...SETUP, bpm: 60 })).toHaveLength(1);
    expect(doubtsOf(phrase).map(({ kind }) => kind)).toEqual(['place not said']);
    expect(told(`5G ${text}`)).toEqual([]);
  });
  test('the same question has the same answer', () => {
    const text = "5A 7? ?D 'F# :A7 ^3 5? ?G";
    expect(placesOf(text)).toEqual(placesOf(text));
  });
});

describe('what was found', () => {
  test.each([
    ["5G 'A h'B", '5G 2G h4G'],
    ['5D 7? 5D', '5D 7D 5D'],
    ['/8 :A7 ^3 ^5 # why', '/8 :A7 4A 2D # why'],
    ["5G+'D", '5G3B'],
    ['5G 7G', '5G 7G'],
  ])('%s is written in: %s', (text, same) => expect(settled(text)).toBe(same));

  test('once written in it sounds the same, and nothing is open any more', () => {
    const text = "/8 'F# 'A 'C# h'E :A7 ^3 ^b7";
    expect(midisOf(settled(text))).toEqual(midisOf(text));
    expect(settled(settled(text))).toBe(settled(text));
  });

  test('nothing moves that was said', () => {
    const { phrase } = readShorthand('5G 7G 12B');
    expect(placePhrase(phrase, SETUP)).toBe(phrase);
    expect(placesOf("17B 'A 3E")[0]).toBe('17B');
  });

  test('without being placed it is written back as it was said', () => {
    for (const text of ["'F#+", '^b3', '7?', '?G', "h'E"])
      expect(writeShorthand(readShorthand(`:A7 5G ${text}`).phrase, { strings: 'letters' })).toBe(`:A7 5G ${text}`);
  });

  test('names go along when a text is moved', () => {
    const text = "5G 'F#";
    const moved = movedText(text, readShorthand(text).phrase, { semitones: 2, strings: 0, openStays: false }, SETUP);
    expect(moved).toBe("7G 'Ab");
  });
});
