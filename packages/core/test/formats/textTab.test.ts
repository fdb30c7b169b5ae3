import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isTextTab, readTextTab, writeTextTab } from '../../src/formats/index.ts';
import type { Phrase, PlayedEvent } from '../../src/notation/index.ts';
import { TUNINGS } from '../../src/pitch/index.ts';
import { readCorpus } from '../corpus.ts';
import { typedText } from '../typing.ts';
import { sayable } from './sayable.ts';
import { comesOf, demoTexts, GUITAR, readOf, songOf, textsOf } from './songs.ts';

const SURE = ['likely', 'guess', 'seen', 'arranged', 'optional', 'quiet'];

/** What a text tab says of an event: strings, frets, written marks, and when. */
function said({ at, length, notes, marks, timed, arm, chord }: PlayedEvent) {
  const isQuiet = marks.includes('quiet');
  const plain = notes.map(
    ({ finger: _, fingerBehind: __, fingerOr: ___, sureness: ____, plucked: _____, ...note }) => ({
      ...note,
      // Brackets that say how a harmonic is played say nothing of its loudness.
      quiet: (note.quiet === true || isQuiet) && !note.harmonic,
    }),
  );
  return {
    ...{ at, length, timed, chord, arm: arm ?? [] },
    notes: plain.sort((a, b) => a.string - b.string),
    marks: marks.filter((mark) => !SURE.includes(mark)).sort(),
  };
}

const comes = (phrase: Phrase) => comesOf(phrase, said);

describe('a phrase that goes out as text tab and comes back', () => {
  test.each([
    '/16 :Dm 10D 7G h10 p7 | /8 13Bb1r 10e 10B~ _',
    '[ 7GB 5GB {1-2: 0D2G} {last: 0D2G3Bl _} ]3',
    '5A7D s3A5D S5A7D - 12Bb1 12el rB 7G, 8G! xDGB {m: 0E%4} 15Bb1+12e 17Bpb1r 12e*',
    '/8t 5G 7G 8G /4 9G 9Gw-1 t17 p12 5G/g 7G~~ 9Gtr10 12Bbb1.5rr.5 7Gk 0e1B0Go 7Gqp 7Gz/2 <14D 12G>',
    '/? 5G 7G 9Bb.25 h10 {altd: 5G 7G 8G}',
    '0E+(9G) (7GB) 7G*p 22e 0e 12Bb1 12B^r',
  ])('%s', (text) => {
    for (const width of [72, 100] as const) {
      const [back = ''] = textsOf(readTextTab(writeTextTab(songOf([text]), width)));
      expect(comes(readOf(back))).toEqual(comes(readOf(text)));
    }
  });

  test('every right phrase of the corpus, in lines of 72 characters at most', () => {
    const wrong = readCorpus().flatMap(({ text, phrase, meter }) => {
      const tab = writeTextTab(songOf([phrase], { tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }] }));
      const [back = ''] = textsOf(readTextTab(tab));
      const isSame = JSON.stringify(comes(readOf(back))) === JSON.stringify(comes(phrase));
      const systems = tab.slice(0, tab.indexOf('h hammer-on')).split('\n');
      return isSame && systems.every((line) => line.length <= 73) ? [] : [`${text}\n${back}`];
    });
    expect(wrong).toEqual([]);
  });

  test.each(demoTexts())('of the demo studio: $text', ({ text, meter }) => {
    const phrase = sayable(readOf(text, { ...GUITAR, meter }));
    if (!phrase) throw new Error('a phrase of the demo has notes without a place');
    const tab = writeTextTab(songOf([phrase], { tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }] }));
    const [back = ''] = textsOf(readTextTab(tab), 'sections', GUITAR, meter);
    expect(comes(readOf(back, { ...GUITAR, meter }))).toEqual(comes(phrase));
  });

  test('generated phrases, whatever stands in them', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const phrase = sayable(readOf(text));
        fc.pre(phrase !== undefined);
        const [back = ''] = textsOf(readTextTab(writeTextTab(songOf([phrase]))));
        expect(comes(readOf(back))).toEqual(comes(phrase));
      }),
      { numRuns: 150, seed: 11 },
    );
  });
});

describe('text tab that others wrote', () => {
  // The manner of such tabs is common practice; the tune is ours.
  test('names of strings or none, capital X, strokes between frets, bends without a size', () => {
    const tab = [
      'Over the pier (ours)',
      '',
      'Intro',
      'E|-----------------|----5-7-8-------|',
      'B|--8b10r8-5-------|-5h8------------|',
      'G|-----------7-5/7-|---------9~-----|',
      'D|-----------------|------------7b--|',
      'A|-X-x-------------|----------------|',
      'E|-0-0-------------|----------------|',
    ].join('\r\n');
    expect(isTextTab(tab)).toBe(true);
    const brought = readTextTab(tab);
    expect(brought.title).toBe('Over the pier (ours)');
    expect(textsOf(brought)).toEqual(['/? 0ExA 8Bb1r 0ExA 5B 7G 5G s7G | 5B h8B 5e 7e 8e 9G~ 7Db1']);
  });

  test('other tunings, seven strings, a capo', () => {
    const seven = ['e|--0-|', 'B|--1-|', 'G|----|', 'D|----|', 'A|----|', 'E|----|', 'B|-0--|'].join('\n');
    expect(readTextTab(`tuning: B1 E2 A2 D3 G3 B3 E4\ncapo 2\n${seven}`).parts[0]).toMatchObject({
      capo: 2,
      tuning: { openMidis: [64, 59, 55, 50, 45, 40, 35] },
    });
    const dropped = seven.split('\n').slice(0, 6).join('\n').replace('E|--', 'D|--');
    expect(readTextTab(dropped).parts[0]?.tuning?.openMidis).toEqual(TUNINGS['drop D'].openMidis);
  });

  test('what is not known is told at its line and column', () => {
    const { problems } = readTextTab(
      ['e|--99--$|', 'B|------|', 'G|------|', 'D|------|', 'A|------|', 'E|------|'].join('\n'),
    );
    expect(problems).toEqual([
      { place: 'line 1', message: '“99” is no fret of a guitar; it is left out.' },
      { place: 'line 1, column 8', message: '“$” is not known in a tab; it is left out.' },
    ]);
    expect(readTextTab('dear diary').problems[0]?.message).toMatch(/no tab in this text/);
    expect(isTextTab('7G 9G | 5G')).toBe(false);
  });
});
