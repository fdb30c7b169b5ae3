/** @jest-environment jsdom */
import type { Ledger, LedgerCell, LedgerPiece, LedgerRow, LessonNote, Pin, Rung, Standing } from '@jam-ledger/contract';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { CARE_LINE } from '@jam-ledger/core/difficulty';
import { enableAutoUnmount, flushPromises } from '@vue/test-utils';
import AgendaList from '../src/lessons/AgendaList.vue';
import HearingPoints from '../src/lessons/HearingPoints.vue';
import LastLesson from '../src/lessons/LastLesson.vue';
import EntryCell from '../src/ledger/EntryCell.vue';
import SinceLesson from '../src/ledger/SinceLesson.vue';
import CareNote from '../src/playing/CareNote.vue';
import PinList from '../src/playing/PinList.vue';
import TempoLadder from '../src/playing/TempoLadder.vue';
import WaitingLine from '../src/playing/WaitingLine.vue';
import WeekLoads from '../src/requests/WeekLoads.vue';
import ProblemLines from '../src/songs/setup/ProblemLines.vue';
import NotOpened from '../src/ui/NotOpened.vue';
import ShareBar from '../src/ui/ShareBar.vue';
import { button, show, words } from './mounting.ts';
import { partOf } from './studio.ts';

enableAutoUnmount(afterEach);
beforeEach(() => localStorage.clear());

const STANDING: Standing = { inkBpm: 60, pencilBpm: 90, share: 0.5, by: 'ink' };
const piece = (id: string, more: Partial<LedgerRow> = {}): LedgerRow => ({
  ...{ id, version: 1, kind: 'phrase', startBpm: 60, targetBpm: 120, assignedOn: '2026-03-01', standing: STANDING },
  ...{ next: { move: 'up', reason: 'Clean.', bpm: 90, percent: 100 }, due: null, expected: null, lastDay: null },
  ...{ mastery: { state: 'building', reason: '', heldSince: null }, since: null, last: null, cells: [] },
  ...{ section: { id: 's', label: '1A', role: 'solo' }, song: { id: 'o', title: 'Slow Tide' } },
  phrase: { id: `f${id}`, name: `Phrase ${id}` },
  ...more,
});

describe('a cell of the ledger', () => {
  const cell = (more: Partial<LedgerCell> = {}): LedgerCell => ({
    ...{ day: '2026-03-14', bpm: 90, outcome: 'clean', medium: 'ink', percent: 100, results: 1 },
    ...more,
  });
  test.each([
    [{}, '90 clean, ink'],
    [{ medium: 'pencil', results: 3 }, '90 clean, pencil, 3 takes that day'],
    [{ outcome: 'not-yet', percent: 50 }, '90 not yet, 50 % of it, ink'],
  ] as const)('%j is told as “%s”', (more, says) =>
    expect(
      show(EntryCell, { cell: cell(more), target: 120 })
        .get('.reading')
        .attributes('title'),
    ).toBe(says),
  );

  test('is filled by its share of the target, a miss not at all, more than the target no further', () => {
    const height = (more: Partial<LedgerCell>) =>
      show(EntryCell, { cell: cell(more), target: 120 })
        .get('.fill')
        .attributes('style');
    expect([height({ bpm: 60 }), height({ bpm: 150 }), height({ outcome: 'not-yet' })]).toEqual([
      'height: 50%;',
      'height: 100%;',
      'height: 0%;',
    ]);
  });
});

describe('how much stands', () => {
  test('ink over pencil, in hundredths', () => {
    const bar = show(ShareBar, { standing: STANDING, target: 120 });
    expect(words(bar)).toBe('50 %');
    expect(bar.get('.by-pencil').attributes('style')).toBe('width: 75%;');
    expect(bar.get('.by-ink').attributes('style')).toBe('width: 50%;');
    expect(bar.get('.share').attributes('title')).toBe('ink 60, pencil 90, target 120');
  });
  test('no ink where nobody has heard it', () => {
    const standing: Standing = { inkBpm: null, pencilBpm: 150, share: 1, by: 'pencil' };
    const bar = show(ShareBar, { standing, target: 120 });
    expect(bar.find('.by-ink').exists()).toBe(false);
    expect(bar.get('.by-pencil').attributes('style')).toBe('width: 100%;');
  });
});

describe('since the last lesson', () => {
  const ledger = (since: readonly LedgerPiece['since'][], lastLesson: string | null = '2026-03-07') =>
    ({ lastLesson, pieces: since.map((one, index) => piece(String(index), { since: one })) }) as unknown as Ledger;
  test('each piece in a line: from where to where, again, nothing, misses', () => {
    const list = show(SinceLesson, {
      ledger: ledger([
        { before: 80, since: 90, results: 3, misses: 1 },
        { before: null, since: 70, results: 1, misses: 0 },
        { before: 90, since: 90, results: 2, misses: 2 },
        { before: 90, since: null, results: 1, misses: 1 },
        { before: 90, since: null, results: 2, misses: 2 },
        null,
      ]),
    });
    expect(list.findAll('li').map(words)).toEqual([
      'Phrase 0: 80 → 90, 1 not yet',
      'Phrase 1: 70',
      'Phrase 2: 90 again, 2 not yet',
      'Phrase 3: nothing clean in 1 take',
      'Phrase 4: nothing clean in 2 takes',
    ]);
  });
  test('says so where nothing is posted, and nothing where there was no lesson', () => {
    expect(words(show(SinceLesson, { ledger: ledger([null]) }))).toMatch(/Nothing is posted since\.$/);
    expect(
      show(SinceLesson, { ledger: ledger([], null) })
        .find('section')
        .exists(),
    ).toBe(false);
  });
});

describe('what waits on this device', () => {
  test('is told, and can be posted now', async () => {
    const line = show(WaitingLine, { waiting: [{ bpm: 60 }, { bpm: 62 }] });
    expect(words(line)).toMatch(/^2 results wait on this device/);
    await button(line, 'Post now').trigger('click');
    expect(line.emitted('send')).toHaveLength(1);
    expect(words(show(WaitingLine, { waiting: [{ bpm: 60 }] }))).toMatch(/^One result waits/);
    expect(words(show(WaitingLine, { waiting: [{ text: 'which finger?' }] }))).toMatch(/^One note waits/);
    expect(words(show(WaitingLine, { waiting: [{ bpm: 60 }, { text: 'why?' }] }))).toMatch(/^2 things wait/);
  });
  test('nothing is said of nothing', () => {
    expect(words(show(WaitingLine, { waiting: [] }))).toBe('');
  });
});

describe('a book that is not open yet', () => {
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => void jest.useRealTimers());
  test('is tried again by itself, by the button, when the line is back, and never twice at once', async () => {
    let tries = 0;
    let end: () => void = () => undefined;
    const retry = () =>
      new Promise<void>((done) => {
        tries += 1;
        end = done;
      });
    const page = show(NotOpened, { why: 'The studio cannot be reached.', retry });
    expect(words(page)).toContain('The studio cannot be reached.');
    await jest.advanceTimersByTimeAsync(5000);
    await page.get('button').trigger('click');
    window.dispatchEvent(new Event('online'));
    expect(tries).toBe(1);
    end();
    await jest.advanceTimersByTimeAsync(0);
    window.dispatchEvent(new Event('online'));
    expect(tries).toBe(2);
  });
});

describe('the ladder', () => {
  const rungs: readonly Rung[] = [
    { bpm: 60, percent: 100 },
    { bpm: 90, percent: 50 },
    { bpm: 90, percent: 100 },
    { bpm: 132, percent: 100 },
    { bpm: 120, percent: 100 },
  ];
  test('stands with the target on top, each rung named, the next marked', () => {
    const ladder = show(TempoLadder, { rungs, now: rungs[2] });
    expect(ladder.findAll('li').map(words)).toEqual([
      '120target',
      '132past it',
      '90 ← next',
      '9050 % of it',
      '60start',
    ]);
  });
  test('a tempo that comes twice is the next at its last place alone', () => {
    const twice = [...rungs, { bpm: 60, percent: 100 }];
    const ladder = show(TempoLadder, { rungs: twice, now: twice[0] });
    expect(ladder.findAll('.now')).toHaveLength(1);
    expect(ladder.findAll('li')[0]?.find('.now').exists()).toBe(true);
  });
  test('a rung is chosen', async () => {
    const ladder = show(TempoLadder, { rungs, chosen: rungs[0] });
    expect(ladder.findAll('[aria-pressed=true]').map(words)).toEqual(['60start']);
    await ladder.findAll('button')[0]?.trigger('click');
    expect(ladder.emitted('choose')).toEqual([[rungs[4]]]);
  });
});

describe('what to hear in a lesson', () => {
  const agenda = {
    items: [
      { pieceId: 'b', kind: 'hear again', minutes: 3, why: '' },
      { pieceId: 'gone', kind: 'hear again', minutes: 3, why: '' },
      { pieceId: 'c', kind: 'join', minutes: 5, why: '' },
    ],
    minutes: 11,
  };
  test('what is planned comes first, each kind under its head, then everything else', async () => {
    const last = { bpm: 70, outcome: 'not-yet', medium: 'pencil' } as const;
    const pieces = [piece('a'), piece('b', { last }), piece('c')];
    const list = show(AgendaList, { agenda, pieces, chosen: 'c' });
    expect(list.findAll('h2').map(words)).toEqual(['hear again', 'join', 'if there is time']);
    expect(list.findAll('strong').map(words)).toEqual(['Phrase b', 'Phrase c', 'Phrase a']);
    expect(list.findAll('button').map(words)[0]).toContain('last 70 not yet, pencil');
    expect(list.findAll('button').map(words)[2]).toContain('nothing posted yet');
    expect(words(list.get('[aria-pressed=true]'))).toContain('Phrase c');
    await list.findAll('button')[2]?.trigger('click');
    expect(list.emitted('choose')).toEqual([['a']]);
  });

  test('points are ticked and remarked on', async () => {
    const point = { at: 0, bar: 1, kind: 'bend', says: 'The bend reaches E4.' };
    const heard = { isRight: false, remark: 'flat' };
    const list = show(HearingPoints, { points: [{ point, heard }, { point: { ...point, bar: 2 } }], chosen: 1 });
    expect(list.findAll('[role=img]').map((one) => one.attributes('aria-label'))).toEqual([
      'not right yet',
      'not heard yet',
    ]);
    expect(words(list.findAll('li')[0] ?? list)).toContain('flat');
    await button(list, 'Right').trigger('click');
    await list.get('input').setValue('  too early ');
    await list.get('form').trigger('submit');
    await list.get('form').trigger('submit');
    expect([list.emitted('right')?.length, list.emitted('remark')]).toEqual([1, [['too early']]]);
  });

  test('what the last one came to, which can be gone on with while it is open', async () => {
    const note = partOf<LessonNote>({ day: '2026-03-07', words: 'Bends.', home: 'Ten minutes a day.', isOpen: true });
    const assigned = [{ pieceId: 'a', name: 'Opening', bpm: 60 }];
    const last = show(LastLesson, { note: { ...note, assigned } });
    expect(words(last)).toContain('Opening at 60');
    await button(last, 'Go on writing it').trigger('click');
    expect(last.emitted('reopen')).toHaveLength(1);
    expect(
      show(LastLesson, { note: { ...note, assigned, isOpen: false } })
        .find('button')
        .exists(),
    ).toBe(false);
  });
});

describe('care', () => {
  const cautions = [{ name: 'wide stretch', says: 'A wide stretch.' }];
  test('is put away until tomorrow', async () => {
    const note = show(CareNote, { cautions, today: '2026-03-14' });
    expect(words(note)).toContain(CARE_LINE);
    await button(note, 'Not again today').trigger('click');
    expect(note.find('section').exists()).toBe(false);
    await note.setProps({ today: '2026-03-15' });
    expect(note.find('section').exists()).toBe(true);
  });
});

describe('pinned notes', () => {
  const pin = (id: string, teaches: boolean): Pin => ({
    ...{ id, version: 1, phraseId: 'f', at: 0, text: `note ${id}`, pinnedAt: '' },
    by: { id: teaches ? 'mara' : 'ines', name: teaches ? 'Mara' : 'Ines', teaches },
  });
  const pins = [pin('1', true), pin('2', false)].map((one) => ({ pin: one, place: 'bar 1', isHere: false }));
  test('are taken out by whoever pinned them', async () => {
    const list = show(PinList, { pins, me: 'ines', teaches: false, here: undefined, pin: () => Promise.resolve(true) });
    expect(list.findAll('.out')).toHaveLength(1);
    await list.get('.out').trigger('click');
    expect(list.emitted('strike')).toMatchObject([[{ id: '2' }]]);
    expect(list.findAll('.go').map(words)).toEqual(['Watch out · bar 1', 'Note · bar 1']);
  });
  test('what is typed stays until it is kept', async () => {
    const answers = [false, true];
    const kept: string[] = [];
    const keep = (text: string) => {
      kept.push(text);
      return Promise.resolve(answers.shift() ?? true);
    };
    const list = show(PinList, { pins: [], me: 'ines', teaches: false, here: 'bar 2', pin: keep });
    const field = list.get('input');
    await field.setValue(' mind this ');
    await list.get('form').trigger('submit');
    await flushPromises();
    expect(field.element.value).toBe(' mind this ');
    await list.get('form').trigger('submit');
    await flushPromises();
    expect([kept, field.element.value]).toEqual([['mind this', 'mind this'], '']);
  });
  test('nothing can be pinned to nowhere, nor by who only reads', () => {
    const nowhere = { pins, me: 'ines', teaches: false, here: undefined, pin: () => Promise.resolve(true) };
    expect(show(PinList, nowhere).get('input').attributes('disabled')).toBeDefined();
    expect(
      show(PinList, { ...nowhere, still: true })
        .find('form')
        .exists(),
    ).toBe(false);
  });
});

test('problems of a list are told by line, those of other fields are not', () => {
  const problems = { 'changes.0.meter': 'No meter.', 'changes.2.atSeconds': 'Too early.', title: 'Missing.' };
  expect(show(ProblemLines, { problems, prefix: 'changes' }).findAll('p').map(words)).toEqual([
    'Line 1: No meter.',
    'Line 3: Too early.',
  ]);
});

test('the weeks: how full each is, and what would have to move', () => {
  const weeks = [
    { from: '2026-03-16', minutes: 150, room: 300, over: [] },
    { from: '2026-03-23', minutes: 400, room: 300, over: ['Slow Tide', 'Weir'] },
    { from: '2026-03-30', minutes: 10, room: 0, over: [] },
    { from: '2026-04-06', minutes: 0, room: 0, over: [] },
  ];
  const list = show(WeekLoads, { weeks, workMinutes: 300 });
  expect(words(list)).toContain('5 h a week for transcribing');
  expect(list.findAll('.track span').map((one) => one.attributes('style'))).toEqual([
    'width: 50%;',
    'width: 100%;',
    'width: 100%;',
    'width: 0%;',
  ]);
  expect(words(list.get('.move'))).toBe('too full: move Slow Tide, Weir');
});
