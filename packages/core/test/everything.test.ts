import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkPhrase } from '../src/checks/index.ts';
import { difficultyOf, practiceDrills } from '../src/difficulty/index.ts';
import { bestPath, moveTo, usualGuitar } from '../src/fretboard/index.ts';
import { hearingList } from '../src/hearing/index.ts';
import { factsOf } from '../src/licks/index.ts';
import {
  eventsOf,
  accompany,
  compareVersions,
  crossCells,
  doubtsOf,
  foldCase,
  inRound,
  perform,
  readShorthand,
  sayAnotherWay,
  scoreOf,
  unroll,
} from '../src/notation/index.ts';
import { planStrokes } from '../src/picking/index.ts';
import { assemble, cutPoints, phraseToCut } from '../src/pieces/index.ts';
import { OPEN_KEY, TUNINGS } from '../src/pitch/index.ts';
import { readPlaced, settledText } from '../src/placing/index.ts';
import { makeVariant } from '../src/variants/index.ts';
import { typedText } from './typing.ts';

const guitar = usualGuitar(TUNINGS.standard);
const read = (text: string) => readPlaced(text, guitar).phrase;

describe('whatever is typed', () => {
  test('all that is computed of it is computed, and nothing throws', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const phrase = read(text);
        const whole = { from: 0, to: text.length };
        const bpm = 90;
        expect(perform(phrase, { ...guitar, bpm }).every(({ durationSeconds }) => durationSeconds > 0)).toBe(true);
        accompany(phrase, { bpm });
        scoreOf(phrase);
        doubtsOf(phrase);
        crossCells(phrase);
        bestPath(phrase, guitar);
        moveTo(phrase, guitar, { semitones: 2 });
        planStrokes(phrase, 'alternate from down');
        checkPhrase(phrase, { ...guitar, text, bpm, tremoloArm: true, key: OPEN_KEY });
        difficultyOf(phrase, { ...guitar, bpm, known: new Set() });
        practiceDrills(phrase, guitar);
        hearingList(phrase, guitar);
        factsOf(phrase, { tuning: guitar.tuning, capo: 0, key: OPEN_KEY });
        makeVariant(phrase, 'easier', guitar);
        phraseToCut(phrase, { id: 'a', sectionId: 'b', difficulty: 10, hardest: undefined });
        compareVersions(text, `${text} 5G`, {});
        sayAnotherWay(text, phrase, whole, read);
        foldCase(text, phrase, whole);
        // What is written in says the same places, and once; a note that has no place may find one when those around it are written.
        const settled = settledText(text, phrase, read);
        const isOpen = eventsOf(read(settled)).some(({ item }) =>
          item.notes.some(({ sought }) => sought !== undefined),
        );
        if (!isOpen) expect(settledText(settled, read(settled), read)).toBe(settled);
        // A round is a phrase, too, and so is each part of one.
        const last = inRound(phrase, { round: 3, of: 3 });
        const [middle] = cutPoints(last).map(({ at }) => at);
        if (middle !== undefined) {
          const parts = [
            { phraseId: 'a', from: 0, to: middle },
            { phraseId: 'a', from: middle, to: null },
          ];
          const { phrase: made } = assemble(parts, () => last);
          expect(unroll(made).length).toBe(unroll(last).length);
        }
      }),
      { numRuns: 40 },
    );
  });

  test('what stands open is never thrown away: read again it is the same text', () => {
    fc.assert(
      fc.property(typedText, (text) => {
        const { phrase, problems } = readShorthand(text);
        for (const { span } of problems) expect(span.from <= span.to && span.to <= text.length).toBe(true);
        expect(readShorthand(text).phrase).toEqual(phrase);
      }),
      { numRuns: 150 },
    );
  });
});
