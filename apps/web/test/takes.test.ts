/** @jest-environment jsdom */
import type { JudgedEvent, JudgedTake } from '@jam-ledger/core/listen';
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
    const flags = flagsOf(takeOf(kinds.map((verdict, index) => event(index, { verdict }))));
    expect(flags.map(({ sign, says, look }) => [sign, says, look])).toEqual([
      ['✓', 'right', 'right'],
      ['‹', 'early', 'early'],
      ['›', 'late', 'late'],
      ['○', 'not heard', 'missing'],
    ]);
  });
  test('of a note that is played twice show the worse', () => {
    const twice = [event(0), event(0, { verdict: 'wrong', heardMidi: 60 }), event(0, { verdict: 'early' })];
    expect(flagsOf(takeOf(twice)).map(({ sign }) => sign)).toEqual(['×']);
  });
  test('of a bend off its pitch are its cents; within the rule it is right', () => {
    const some = [event(0, bend(140)), event(1, bend(231)), event(2, bend(180))];
    expect(flagsOf(takeOf(some)).map(({ sign }) => sign)).toEqual(['−60¢', '+31¢', '✓']);
  });
  test('of a bend down count toward its pitch', () => {
    const down = event(0, { bend: { targetCents: -200, reachedCents: -150, written: [], heard: [] } });
    expect(flagsOf(takeOf([down]))[0]?.sign).toBe('−50¢');
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

describe('what was heard', () => {
  const all = [0, 1, 2, 3].map((index) => event(index));
  const open = (
    judged: JudgedTake,
    post = jest.fn<(bpm: number, outcome: string) => Promise<void>>(() => Promise.resolve()),
  ) => show(TakeResult, { judged, phrase, post });

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
    const { rows, changes } = besideEachOther(before, after);
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
    expect(besideEachOther(before, takeOf([event(0)])).changes).toEqual([]);
  });
});
