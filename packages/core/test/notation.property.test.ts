import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  eventsOfBars,
  MAX_PLAYED,
  perform,
  playOut,
  readShorthand,
  samePhrase,
  unroll,
  writeShorthand,
} from '../src/notation/index.ts';
import { TUNINGS } from '../src/pitch/index.ts';
import { typedText } from './typing.ts';

const setup = { tuning: TUNINGS.standard, capo: 0 };

describe('reading and writing, for any text', () => {
  test.each(['letters', 'numbers'] as const)('what was written with %s reads as the same phrase', (strings) => {
    fc.assert(
      fc.property(typedText, (text) => {
        const { phrase } = readShorthand(text);
        const written = writeShorthand(phrase, { strings });
        const again = readShorthand(written).phrase;
        if (!samePhrase(again, phrase)) expect({ written, phrase: again }).toEqual({ written, phrase });
      }),
      { numRuns: 1000 },
    );
  });

  test('any string of any characters is read without throwing, and its problems lie inside it', () => {
    const anything = fc.oneof(
      fc.string({ unit: 'binary', maxLength: 200 }),
      fc.string({ unit: 'grapheme', maxLength: 200 }),
    );
    fc.assert(
      fc.property(fc.oneof(anything, typedText), (text) => {
        const odd = readShorthand(text).problems.filter(
          ({ span, message }) =>
            !(
              0 <= span.from &&
              span.from <= span.to &&
              span.to <= text.length &&
              /^[A-Z“].*[.?]$|sounds as half a step\.$/s.test(message)
            ),
        );
        expect(odd).toEqual([]);
      }),
      { numRuns: 1000 },
    );
  });

  test('a bad item costs none of its good neighbours', () => {
    const bad = fc.constantFrom('10+', 'zz', '99G', '7Gzz9', '/13', 'meter=', '7@9', '((', '%4', '7Gb1+');
    const good = fc.array(fc.constantFrom('7G', '5D', 'xA', '10Bb1r', '5A7D'), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(good, bad, fc.nat(8), (items, junk, place) => {
        const broken = [...items.slice(0, place), junk, ...items.slice(place)].join(' ');
        const kept = readShorthand(broken).phrase;
        expect(samePhrase(kept, readShorthand(items.join(' ')).phrase)).toBe(true);
        expect(readShorthand(broken).problems.length).toBeGreaterThan(0);
      }),
    );
  });

  test('every fix leaves a text with fewer problems of its kind', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        for (const { code, fix } of readShorthand(text).problems) {
          if (!fix) continue;
          const fixed = text.slice(0, fix.span.from) + fix.text + text.slice(fix.span.to);
          const count = (of: string) => readShorthand(of).problems.filter((problem) => problem.code === code).length;
          if (code !== 'bar-length' && count(text) < 50) expect(count(fixed)).toBeLessThanOrEqual(count(text));
        }
      }),
    );
  });
});

describe('time, for any text', () => {
  test('is whole ticks, never runs backwards, and adds up to the bars', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const timeline = unroll(readShorthand(text).phrase);
        expect(timeline.events.length).toBeLessThanOrEqual(MAX_PLAYED);
        let before = 0;
        const backwards = timeline.events.filter(({ at, length }) => {
          const sound = Number.isInteger(at) && Number.isInteger(length) && length >= 0 && at >= before;
          before = at + length;
          return !sound;
        });
        expect(backwards).toEqual([]);
        expect(timeline.bars.reduce((total, bar) => total + bar.length, 0)).toBe(timeline.length);
        if (timeline.events.length > 0) expect(before).toBe(timeline.length);
      }),
      { numRuns: 300 },
    );
  });

  test('the events of its bars are all its events, in their order, each in its bar', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const timeline = unroll(readShorthand(text).phrase);
        const inBars = eventsOfBars(timeline);
        expect(inBars).toHaveLength(timeline.bars.length);
        expect(inBars.flat()).toEqual(timeline.events);
        inBars.forEach((events, bar) => expect(events.every((event) => event.bar === bar)).toBe(true));
      }),
      { numRuns: 300 },
    );
  });

  test('playing out and performing keep the order and never give a note no time', () => {
    fc.assert(
      fc.property(typedText, fc.integer({ min: 30, max: 300 }), (text, bpm) => {
        const { phrase } = readShorthand(text);
        const events = playOut(phrase, setup);
        const notes = perform(phrase, { ...setup, bpm });
        expect(events.flatMap((event) => event.notes.filter(({ guess }) => !guess)).length).toBeLessThanOrEqual(
          notes.length,
        );
        const odd = notes.filter(
          (note, index) =>
            note.startSeconds < (notes[index - 1]?.startSeconds ?? 0) ||
            note.durationSeconds < -1e-9 ||
            note.contour.some(({ cents, seconds }) => !Number.isFinite(cents) || !Number.isFinite(seconds)),
        );
        expect(odd).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });
});
