import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { drillFor, hearingOf, techniquesIn } from './marking.ts';
import {
  EVENT_MARKS,
  EVENT_PARTS,
  eventsOf,
  LINK_RECORDS,
  linkOfCode,
  MARK_RECORDS,
  NOTE_MARK_RECORDS,
  perform,
  rarityOf,
  readShorthand,
  SURENESS_RECORDS,
  SURENESSES,
  TECHNIQUES,
  writeShorthand,
  type Link,
  type MarkRecord,
  type NoteMark,
} from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { SHORTHAND_PAGE, shorthandPage } from '../../../tools/shorthandPage.ts';

const LINKS = Object.keys(LINK_RECORDS) as readonly Link[];
const NOTE_MARKS = Object.keys(NOTE_MARK_RECORDS) as readonly NoteMark[];
const read = (text: string) => {
  const { phrase, problems } = readShorthand(text);
  expect([text, problems.filter(({ severity }) => severity === 'error')]).toEqual([text, []]);
  return phrase;
};
const itemsOf = (text: string) => eventsOf(read(text)).map(({ item }) => item);
const levels = (text: string) =>
  perform(read(text), { tuning: TUNINGS.standard, capo: 0, bpm: 100 }).map(({ level }) => level);

describe('the records of marks', () => {
  test('have a code each that means nothing else', () => {
    const codes = EVENT_MARKS.flatMap((mark) => {
      const { code }: MarkRecord = MARK_RECORDS[mark];
      return code ?? [];
    });
    expect(new Set(codes).size).toBe(codes.length);
    expect(codes).toHaveLength(EVENT_MARKS.length - 1);
  });

  test.each(EVENT_MARKS)('the example of %s bears it, and is written back as it stands', (mark) => {
    const { example } = MARK_RECORDS[mark];
    expect(itemsOf(example).at(-1)?.marks).toEqual([mark]);
    expect(itemsOf(writeShorthand(read(example), { strings: 'letters' })).at(-1)?.marks).toEqual([mark]);
  });

  test.each(EVENT_MARKS.filter((mark) => MARK_RECORDS[mark].code !== null))(
    '%s holds over a span in braces',
    (mark) => {
      const { code } = MARK_RECORDS[mark];
      const [first] = eventsOf(read(`{${code ?? ''}: 7G 5G}`));
      expect(first?.around.flatMap((nest) => (nest.kind === 'marked' ? nest.marks : []))).toEqual([mark]);
    },
  );

  test.each(LINKS)('the example of a %s links its last event', (link) => {
    expect(itemsOf(LINK_RECORDS[link].example).at(-1)?.link).toBe(link);
    expect(linkOfCode(LINK_RECORDS[link].code)).toBe(link);
  });

  const bears: Readonly<Record<NoteMark, object>> = {
    preBend: { preBend: 1 },
    bend: { moves: [{ kind: 'bend', steps: 1 }] },
    release: {
      moves: [
        { kind: 'bend', steps: 1 },
        { kind: 'release', steps: 0 },
      ],
    },
    vibrato: { vibrato: 'narrow' },
    harmonic: { harmonic: 'natural' },
    trill: { trill: 9 },
    again: { again: 1 },
    arm: {},
    finger: { finger: '1' },
    claim: { claim: 'D' },
  };
  test.each(NOTE_MARKS)('the example of %s bears it', (mark) => {
    expect(itemsOf(NOTE_MARK_RECORDS[mark].example).at(-1)?.notes).toMatchObject([bears[mark]]);
  });

  test('the arm is of the whole event', () => {
    expect(itemsOf(NOTE_MARK_RECORDS.arm.example)[0]?.arm).toEqual([-1]);
  });

  test.each(SURENESSES)('the example of %s is that sure', (word) => {
    const [event] = eventsOf(read(SURENESS_RECORDS[word].example));
    expect(event?.around).toMatchObject([{ kind: 'sure', sureness: word }]);
  });

  test('make the table on the page of the notation', async () => {
    expect(readFileSync(SHORTHAND_PAGE, 'utf8')).toBe(await shorthandPage());
  });
});

describe('what a record says holds', () => {
  test.each(EVENT_MARKS.filter((mark) => MARK_RECORDS[mark].technique !== null))('%s is its technique', (mark) => {
    expect(techniquesIn(MARK_RECORDS[mark].example)).toContain(MARK_RECORDS[mark].technique?.name);
  });

  test.each(LINKS)('a %s is its technique', (link) => {
    expect(techniquesIn(LINK_RECORDS[link].example)).toContain(LINK_RECORDS[link].technique.name);
  });

  test.each([
    ['accent', 1],
    ['quiet', 0.4],
  ] as const)('%s sounds at %d', (mark, level) => expect(levels(MARK_RECORDS[mark].example)).toEqual([level]));

  test('an accent stands before quiet; a legato note is softer than a picked one', () => {
    expect(levels('(7G!)')).toEqual([1]);
    expect(levels('7G h9 p7 s12 S14')).toEqual([0.75, 0.6, 0.6, 0.6, 0.75]);
    expect(levels('7G h9!')).toEqual([0.75, 1]);
  });

  test.each(EVENT_MARKS.filter((mark) => MARK_RECORDS[mark].hearing !== null))('%s is inspected as it says', (mark) => {
    const { hearing, example } = MARK_RECORDS[mark] as MarkRecord;
    expect(hearingOf(example)).toContainEqual([hearing?.kind, `7 on G: ${hearing?.says ?? ''}.`]);
  });

  test.each(EVENT_MARKS.filter((mark) => MARK_RECORDS[mark].drill !== null))(
    'a drill of %s says what it says',
    (mark) => {
      const { drill, example, technique } = MARK_RECORDS[mark] as MarkRecord;
      expect(drillFor(example, technique?.name)).toBe(drill);
    },
  );
});

describe('techniques', () => {
  test('have a rank each, the plainest first', () => {
    expect(TECHNIQUES).toHaveLength(new Set(TECHNIQUES).size);
    expect(TECHNIQUES[0]).toBe('double stop');
    expect(TECHNIQUES.at(-1)).toBe('tap on a bent string');
    // Common practice: a hammer-on is learned before a bend, a bend before a pinch harmonic.
    const order = ['hammer-on', 'whole-step bend', 'pre-bend', 'pinch harmonic'] as const;
    const rarities = order.map(rarityOf);
    expect(rarities).toEqual(rarities.toSorted((a, b) => a - b));
  });

  test('no two marks of different techniques have one rank', () => {
    const ranks = new Map<number, string>();
    const all = [...Object.values(MARK_RECORDS), ...Object.values(LINK_RECORDS), ...Object.values(NOTE_MARK_RECORDS)];
    for (const { technique } of all) {
      if (!technique) continue;
      expect([technique.name, ranks.get(technique.rank) ?? technique.name]).toEqual([technique.name, technique.name]);
      ranks.set(technique.rank, technique.name);
    }
  });
});

describe('the parts of an event', () => {
  /** A word cut up as whatever shows it in colours does. */
  function partsOf(word: string): readonly string[] {
    const parts: string[] = [];
    for (let at = 0; at < word.length;) {
      const rest = word.slice(at);
      const found = EVENT_PARTS.find(([, pattern]) => new RegExp(`^(?:${pattern})`).test(rest));
      const long = found ? (new RegExp(`^(?:${found[1]})`).exec(rest)?.[0].length ?? 1) : 1;
      parts.push(found ? found[0] : rest.charAt(0));
      at += Math.max(1, long);
    }
    return parts;
  }

  test.each([
    ['7Gb1r~', ['fret', 'letters', 'bend', 'release', 'vibrato']],
    ['10Bpb1', ['fret', 'letters', 'preBend']],
    ['10Bp8', ['fret', 'letters', 'link', 'fret']],
    ['12D*p10', ['fret', 'letters', 'harmonic', 'link', 'fret']],
    ['12D*p', ['fret', 'letters', 'harmonic']],
    ['5Aqp', ['fret', 'letters', 'mark']],
    ['5Aqp7', ['fret', 'letters', 'mark', 'link', 'fret']],
    ['7Gtr9w-.5', ['fret', 'letters', 'trill', 'arm']],
    ['7@4t17', ['fret', 'numbers', 'link', 'fret']],
    ['0Em%4/8.', ['fret', 'letters', 'mark', 'times', 'value']],
    ['7G<', ['fret', 'letters', 'slideOut']],
  ])('%s', (word, parts) => expect(partsOf(word)).toEqual(parts));
});
