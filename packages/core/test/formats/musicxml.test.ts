import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readMusicXml, writeMusicXml } from '../../src/formats/index.ts';
import { isPlucking, readShorthand, SURENESSES, type Phrase, type PlayedEvent } from '../../src/notation/index.ts';
import { TUNINGS } from '../../src/pitch/index.ts';
import { readCorpus } from '../corpus.ts';
import { typedText } from '../typing.ts';
import { sayable } from './sayable.ts';
import { comesOf, demoTexts, GUITAR, readOf, songOf, textsOf } from './songs.ts';

/** How an event is marked as a whole where its notes can be marked alone, too. */
const OF_NOTES: readonly string[] = ['quiet', ...SURENESSES];

/** An event as it sounds and is marked; what is said of a whole stack is said of each of its notes, in the order of the strings. */
function said({ at, length, notes, marks, chord, words, barre, arm, loudness }: PlayedEvent) {
  const sureness = marks.findLast((mark) => SURENESSES.some((one) => one === mark));
  const plucked = marks.find(isPlucking);
  return {
    ...{ at, length, chord, barre, arm: arm ?? [] },
    words: [...new Set(words.map((text) => text.replaceAll(/\s+/g, ' ').trim()))],
    loudness: loudness === undefined ? undefined : Math.round(loudness * 1000),
    notes: notes
      .filter(({ guess }) => !guess)
      .map((note) => ({ sureness, plucked, ...note, quiet: note.quiet === true || marks.includes('quiet') }))
      .sort((a, b) => a.string - b.string),
    marks: marks.filter((mark) => !OF_NOTES.includes(mark) && !isPlucking(mark)).sort(),
  };
}

const comes = (phrase: Phrase) => comesOf(phrase, said);

describe('a phrase that goes out as MusicXML and comes back', () => {
  test.each([
    '/16 :Dm 10D 7G h10 p7 | /8 13Bb1r 10e 10B~ _',
    '[ 7GB 5GB {1-2: 0D2G} {last: 0D2G3Bl _} ]3',
    '/8t 5G 7G 8G /4 9G /8 {grow: 5A 7A | 5D 7D}',
    'pickup meter=3/4 /4 :Am 12D | :G <14D~ 12G 14G>',
    '5A7D s3A5D S5A7D - 12Bb1 12el rB 7G, 8G! xDGB {m: 0E%4} {likely: 15Bb1+12e} 17Bpb1r 12e*',
    '9Gw-1 t17 p12 5G/g 7G~~ 9Gtr10 {bar5: 5e5B} "watch the jump" 12Bbb1rr 7Gk 0e1B0Go 7Gqp 7Gz/2',
    '12Bf1 14Bf3&2 15Bf34 7G*p (9G) 0E+(9G) h14D 10B S9G',
    '/16t5 5G 7G 8G 7G 5G /4 5G /8t 7G /4t 5G',
  ])('%s', (text) => {
    const [back = ''] = textsOf(readMusicXml(writeMusicXml(songOf([text]))));
    expect(comes(readOf(back))).toEqual(comes(readOf(text)));
  });

  test('every right phrase of the corpus', () => {
    const wrong = readCorpus().filter(({ phrase, meter }) => {
      const song = songOf([phrase], { tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }] });
      const [back = ''] = textsOf(readMusicXml(writeMusicXml(song)));
      const again = readShorthand(back, { tuning: TUNINGS.standard }).phrase;
      const same = JSON.stringify(comes(again)) === JSON.stringify(comes(phrase));
      return !same;
    });
    expect(wrong.map(({ text }) => text)).toEqual([]);
  });

  test.each(demoTexts())('of the demo studio: $text', ({ text, meter }) => {
    const phrase = sayable(readOf(text, { ...GUITAR, meter }));
    if (!phrase) throw new Error('a phrase of the demo has notes without a place');
    const song = songOf([phrase], { tempoChanges: [{ fromSeconds: 0, bpm: 96, meter }] });
    const [back = ''] = textsOf(readMusicXml(writeMusicXml(song)), 'sections', GUITAR, meter);
    expect(comes(readOf(back, { ...GUITAR, meter }))).toEqual(comes(phrase));
  });

  test('generated phrases, whatever stands in them', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const phrase = sayable(readOf(text));
        fc.pre(phrase !== undefined);
        const [back = ''] = textsOf(readMusicXml(writeMusicXml(songOf([phrase]))));
        expect(comes(readOf(back))).toEqual(comes(phrase));
      }),
      { numRuns: 120, seed: 7 },
    );
  });
});
