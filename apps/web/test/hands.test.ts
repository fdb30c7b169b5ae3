import { describe, expect, test } from '@jest/globals';
import type { Transcription } from '@jam-ledger/contract';
import { USUAL_REACH_MM } from '@jam-ledger/core/fretboard';
import { COMMON_TIME, readShorthand } from '@jam-ledger/core/notation';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { sayExpected } from '../src/ledger/expected.ts';
import { jobOf, POLICY_OF_SCHOOL, readerProblems } from '../src/tab/useHands.ts';
import type { HandReport } from '../src/tab/hands.worker.ts';

const GUITAR = { frets: 22, strings: 6, scaleLengthMm: 628, tremoloArm: true, leftHanded: false };
const song = (spanFrets: number | null): Transcription => ({
  id: 'song',
  version: 1,
  student: {
    id: 's',
    name: 'Ines',
    isStudent: true,
    guitar: { ...GUITAR, spanFrets },
    schools: {
      picking: 'economy',
      position: 'as recorded',
      learning: 'front to back',
      raising: 'small even steps',
      hearing: 'full speed first',
      first: 'where first',
      naming: 'letters',
      fidelity: 'note for note',
      clean: 'nine in ten',
    },
    shown: [],
    played: ['slide'],
  },
  title: 'T',
  whose: '',
  tuning: 'standard',
  capo: 2,
  key: 'A minor',
  secondKey: '',
  tempo: 120,
  tempoKnown: true,
  rhythm: 'counted',
  meter: '4/4',
  feel: 'straight',
  changes: [],
  rig: [],
  frets: 24,
  scaleLengthMm: 648,
  songSeconds: null,
  offsetCents: 0,
  pitchWay: 'tune the guitar',
  studentLayer: 'lead',
  sections: [],
});
const job = (spanFrets: number | null) =>
  jobOf({
    text: '5G',
    song: song(spanFrets),
    tuning: TUNINGS.standard,
    meter: COMMON_TIME,
    bpm: 90,
    key: 'A minor',
    policy: POLICY_OF_SCHOOL.economy,
    isTrusted: false,
  });

describe('whose hands are computed', () => {
  test('the guitar is the song’s, hand and arm are the student’s', () => {
    expect(job(4)).toMatchObject({
      frets: 24,
      capo: 2,
      scaleLengthMm: 648,
      tremoloArm: true,
      known: ['slide'],
      policy: 'economy',
    });
    // 5 to 9 on a scale of 628 mm.
    expect(job(4).reachMm).toBeCloseTo(97.1, 1);
    expect(job(null).reachMm).toBe(USUAL_REACH_MM);
    expect(job(4).key).toEqual({ fifths: 0, mode: 'minor' });
  });
});

describe('the margin', () => {
  test('asks about a bend without a size only once', () => {
    const { problems } = readShorthand('5G 7Gb? 9G');
    expect(problems.map(({ code }) => code)).toEqual(['bend-unsized']);
    const proposed = { problems: [{ code: 'bend-proposed', span: { from: 3, to: 7 } }] };
    const report = (value: object): HandReport => ({ ...NOTHING, ...value });
    expect(readerProblems(problems, report(proposed))).toEqual([]);
    expect(readerProblems(problems, report({}))).toHaveLength(1);
    expect(readerProblems(problems, undefined)).toHaveLength(1);
  });
});

const STROKES = { signs: [], outside: 0, inside: 0, with: 0, against: 0, cost: 0 };
const NOTHING: HandReport = {
  text: '',
  problems: [],
  fretPositions: [],
  workMs: 0,
  strokes: STROKES,
  reversed: STROKES,
  cheapest: STROKES,
  difficulty: { total: 0, parts: [], rhythmKnown: true, hardest: undefined },
  cautions: [],
  cells: [],
  news: [],
  floor: undefined,
};

describe('when a target is expected, in words', () => {
  const days = { early: '2026-03-20', middle: '2026-03-28', late: '2026-04-20' };
  test('a range and its middle, with the chance where a day was named', () => {
    const plain = sayExpected({ ...days, wanted: null });
    // The order of day and month is the reader’s own.
    expect(plain).toMatch(/^Expected .*20.* to .*20.*, most likely about .*28.*\.$/);
    expect(plain).toContain('April');
    expect(sayExpected({ ...days, wanted: { day: '2026-04-01', chance: 0.614 } })).toContain('61 % by');
  });
  test('too little is said', () => expect(sayExpected({ tooLittle: 'Too little to say.' })).toBe('Too little to say.'));
});
