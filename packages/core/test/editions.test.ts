import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { demoSongs } from '../../../apps/server/src/demo/songs.ts';
import { playOut, readShorthand, samePhrase, writeShorthand, type ReadOptions } from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { readCorpus } from './corpus.ts';

/** How each phrase of the corpus and of the demo studio played out in the first edition of the notation, as a digest; written down by that edition. */
const FIRST: Readonly<Record<string, string>> = JSON.parse(
  readFileSync(new URL('./first-edition.json', import.meta.url), 'utf8'),
);
const digest = (value: unknown) => createHash('sha256').update(JSON.stringify(value)).digest('hex').slice(0, 12);

describe('texts of the first edition', () => {
  const right = readCorpus();

  test('are all known', () => expect(right.filter(({ text }) => FIRST[text] === undefined)).toEqual([]));

  const isChanged = (text: string, options: ReadOptions = {}) => {
    const { phrase, problems } = readShorthand(text, options);
    const played = playOut(phrase, { tuning: TUNINGS.standard, capo: 0 });
    return digest([played, problems.map(({ code }) => code)]) !== FIRST[text];
  };

  test('play out as they did, with the same problems', () => {
    expect(right.filter(({ text, meter }) => isChanged(text, { meter })).map(({ text }) => text)).toEqual([]);
  });

  test('of the demo studio, too', () => {
    const texts = demoSongs.flatMap(({ sections }) =>
      sections.flatMap(({ phrases }) => phrases.map(({ text }) => text)),
    );
    expect(texts.length).toBeGreaterThan(5);
    expect(texts.filter((text) => isChanged(text))).toEqual([]);
  });

  test('say the same written with as few keys as the second allows, and back', () => {
    // The string of each note that lies where the one before it did is left out.
    const brief = (text: string) =>
      text.replace(/(?<=\s|^)(\d+)([EADGBe])(?=\s)(?:\s+\d+\2(?=\s|$))+/g, (run, _, string: string) =>
        run.replaceAll(new RegExp(`(?<=\\s)(\\d+)${string}`, 'g'), '$1'),
      );
    let shorter = 0;
    for (const { text, meter } of right) {
      const typed = brief(text);
      if (typed !== text) shorter += 1;
      const [full, few] = [text, typed].map((one) => readShorthand(one, { meter }).phrase);
      if (!full || !few) throw new Error('nothing was read');
      expect([typed, samePhrase(few, full)]).toEqual([typed, true]);
      expect(samePhrase(readShorthand(writeShorthand(few, { strings: 'letters' }), { meter }).phrase, full)).toBe(true);
    }
    expect(shorter).toBeGreaterThan(right.length / 4);
  });
});
