/** @jest-environment jsdom */
import type { JudgedEvent, JudgedTake } from '@jam-ledger/core/listen';
import { CLEAN_RULES, type CleanSchool } from '@jam-ledger/core/pieces';
import { readShorthand } from '@jam-ledger/core/notation';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { enableAutoUnmount } from '@vue/test-utils';
import TakeResult from '../src/takes/TakeResult.vue';
import { besideEachOther, flagsOf, sayTake } from '../src/takes/takeWords.ts';
import { button, show, words } from './mounting.ts';
import { openStudio } from './studio.ts';

enableAutoUnmount(afterEach);
beforeEach(() => {
  localStorage.clear();
  openStudio({});
});

const USUAL = CLEAN_RULES['nine in ten'];
const { phrase } = readShorthand('/4 5B 8B 5e 8e');
const spans = phrase.items.flatMap((item) => (item.kind === 'event' ? [item.span] : []));
const event = (index: number, more: Partial<JudgedEvent> = {}): JudgedEvent => ({
  ...{
    span: spans[index] ?? { from: 0, to: 0 },
    seconds: index,
    verdict: 'right',
    heardSeconds: index,
    offSeconds: 0,
    heardMidi: null,
  },
  ...more,
});
const takeOf = (events: readonly JudgedEvent[], more: Partial<JudgedTake> = {}): JudgedTake => ({
  ...{
    events,
    extras: [],
    bpm: 71.6,
    startSeconds: 1.25,
    tuningCents: 0,
    unsteadySeconds: 0.012,
    lengthSeconds: 9,
    trouble: null,
  },
  ...more,
});
const bend = (reachedCents: number): Partial<JudgedEvent> => ({
  bend: { targetCents: 200, reachedCents, written: [{ seconds: 0, cents: 0 }], heard: [{ seconds: 0, cents: 0 }] },
});

describe('the signs of a take on the tab', () => {
  test('stand one at each note, with a word each', () => {
    const kinds = ['right', 'early', 'late', 'missing'] as const;
    const flags = flagsOf(takeOf(kinds.map((verdict, index) => event(index, { verdict }))), USUAL);
    expect(flags.map(({ sign, says, look }) => [sign, says, look])).toEqual([
      ['✓', 'right', 'right'],
      ['‹', 'early', 'early'],
      ['›', 'late', 'late'],
      ['○', 'not heard', 'missing'],
    ]);
  });
  test('of a note that is played twice show the worse', () => {
    const twice = [event(0), event(0, { verdict: 'wrong', heardMidi: 60 }), event(0, { verdict: 'early' })];
    expect(flagsOf(takeOf(twice), USUAL).map(({ sign }) => sign)).toEqual(['×']);
  });
  test('of a bend off its pitch are its cents; within the rule it is right', () => {
    const some = [event(0, bend(140)), event(1, bend(231)), event(2, bend(180))];
    expect(flagsOf(takeOf(some), USUAL).map(({ sign }) => sign)).toEqual(['−60¢', '+31¢', '✓']);
  });
  test('of a bend down count toward its pitch', () => {
    const down = event(0, { bend: { targetCents: -200, reachedCents: -150, written: [], heard: [] } });
    expect(flagsOf(takeOf([down]), USUAL)[0]?.sign).toBe('−50¢');
  });
});

describe('a take in words', () => {
  test.each([
    [0, 'in tune'],
    [-18, '18 cents flat as a whole'],
    [7.4, '7 cents sharp as a whole'],
  ])('a guitar %d cents off is %s', (tuningCents, says) =>
    expect(sayTake(takeOf([], { tuningCents }))).toBe(
      `Played at 71.6 bpm, 12 ms unsteady, ${says}; it begins 1.25 s into the recording.`,
    ),
  );
});

describe('what all notes share', () => {
  test.each([
    [1.21, 'as a whole 40 ms behind the click'],
    [1.26, 'as a whole on the click'],
    [1.3, 'as a whole 50 ms ahead of the click'],
  ])('is told against a click that is heard at %d s', (click, says) =>
    expect(sayTake(takeOf([]), click)).toContain(`in tune; ${says}.`),
  );
});

describe('how strictly a take is heard', () => {
  const late = [0, 1, 2, 3, 4, 5].map((index) =>
    event(index, index === 2 ? { verdict: 'late', offSeconds: 0.07 } : {}),
  );
  const open = (clean: CleanSchool) =>
    words(
      show(TakeResult, { judged: takeOf([...late.slice(0, 5), event(3, bend(235))]), clean, phrase, post: jest.fn() }),
    );
  test('is what the teacher chose', () => {
    expect(open('eight in ten')).toContain('Clean at 72 bpm.');
    expect(open('eight in ten')).toContain('80 of 100 in time, bends within 40 cents');
    expect(open('nine in ten')).toContain('Not yet, at 72 bpm. 1 note came late. 1 bend did not reach its pitch.');
    const [, strict] = flagsOf(takeOf([event(0), event(3, bend(218))]), CLEAN_RULES['nearly all']);
    expect(strict?.sign).toBe('+18¢');
  });
});

describe('what was heard', () => {
  const all = [0, 1, 2, 3].map((index) => event(index));
  const open = (
    judged: JudgedTake,
    post = jest.fn<(bpm: number, outcome: string) => Promise<void>>(() => Promise.resolve()),
  ) => show(TakeResult, { judged, clean: 'nine in ten', phrase, post });

  test('a clean take is entered at the tempo really played', async () => {
    const post = jest.fn<(bpm: number, outcome: string) => Promise<void>>(() => Promise.resolve());
    const page = open(takeOf(all), post);
    expect(words(page)).toContain('Clean at 72 bpm.');
    await button(page, 'Enter it: clean, 72 bpm').trigger('click');
    expect(post).toHaveBeenCalledWith(72, 'clean');
  });
  test('a note that was not heard is told with its place, and can be looped', async () => {
    const page = open(
      takeOf(all.map((one, index) => (index === 2 ? { ...one, verdict: 'missing', offSeconds: null } : one))),
    );
    expect(words(page)).toContain('Not yet, at 72 bpm. 1 note was not heard.');
    expect(words(page)).toContain('Bar 1, beat 3: a note was not heard.');
    await button(page, 'Loop this').trigger('click');
    expect(page.emitted('loop')).toHaveLength(1);
  });
  test('another piece, and silence, propose nothing', () => {
    for (const trouble of ['another piece', 'silent'] as const) {
      const page = open(takeOf(all, { trouble }));
      expect(words(page)).toContain('Nothing is proposed.');
      expect(page.findAll('button').filter((one) => one.text().startsWith('Enter'))).toEqual([]);
    }
  });
  test('a clipped one says what to do', () => {
    expect(words(open(takeOf(all, { trouble: 'clipped' })))).toContain('sit further from the microphone');
  });
});

describe('two takes beside each other', () => {
  const before = takeOf([event(0), event(1, { verdict: 'late' }), event(2, { verdict: 'missing' }), event(3)]);
  const after = takeOf([event(0), event(1), event(2, { verdict: 'late' }), event(3)], { bpm: 80 });

  test('show how each came out, and the notes that came out otherwise', () => {
    const { rows, changes } = besideEachOther(before, after, USUAL);
    expect(rows.map(({ values }) => values)).toEqual([
      ['not yet', 'not yet'],
      ['71.6 bpm', '80.0 bpm'],
      ['2 of 4', '3 of 4'],
      ['12 ms', '12 ms'],
    ]);
    expect(changes).toEqual([
      { note: 2, verdicts: ['late', 'right'] },
      { note: 3, verdicts: ['missing', 'late'] },
    ]);
  });

  test('of different stretches compare no notes', () => {
    expect(besideEachOther(before, takeOf([event(0)]), USUAL).changes).toEqual([]);
  });
});
