/** @jest-environment jsdom */
import type { PhraseRevision } from '@jam-ledger/contract';
import { afterEach, describe, expect, test } from '@jest/globals';
import { TUNINGS } from '@jam-ledger/core/pitch';
import { enableAutoUnmount, flushPromises } from '@vue/test-utils';
import LikenessNote from '../src/songs/phrase/LikenessNote.vue';
import ProblemMargin from '../src/songs/phrase/ProblemMargin.vue';
import RevisionList from '../src/songs/phrase/RevisionList.vue';
import SaveConflict from '../src/songs/phrase/SaveConflict.vue';
import { button, show, words } from './mounting.ts';

enableAutoUnmount(afterEach);

describe('the margin of a phrase', () => {
  const problem = (message: string, more: object = {}) => ({
    ...{ code: 'x', severity: 'error', span: { from: 3, to: 5 }, message },
    ...more,
  });
  test('quotes the place, says what is wrong, and offers the fix', async () => {
    const fix = { title: 'Write G', span: { from: 4, to: 5 }, text: 'G' };
    const margin = show(ProblemMargin, {
      ...{ problems: [problem('No string.', { fix })], text: '5G 7g', remarks: [], computedFor: '' },
    });
    expect(words(margin)).toContain('7gnot read');
    await button(margin, 'Write G').trigger('click');
    await margin.get('.place').trigger('click');
    expect([margin.emitted('fix'), margin.emitted('show')]).toEqual([[[fix]], [[{ from: 3, to: 5 }]]]);
  });
  test('a fix of hands is told apart, since it is for the text they were computed for', async () => {
    const fix = { title: 'Bar it', span: { from: 0, to: 2 }, text: '' };
    const remarks = [problem('Too wide.', { fix, severity: 'warning' })];
    const margin = show(ProblemMargin, { problems: [], text: '', remarks, computedFor: '5G 7G' });
    await button(margin, 'Bar it').trigger('click');
    expect([margin.emitted('fix'), margin.emitted('fixHands')]).toEqual([undefined, [[fix]]]);
  });
  test('shows twenty-five and counts the rest; says so where there is nothing', () => {
    const problems = Array.from({ length: 27 }, (_, index) => problem(`Wrong ${index}.`, { span: { from: 9, to: 9 } }));
    const margin = show(ProblemMargin, { problems, text: '5G', remarks: [], computedFor: '' });
    expect(margin.findAll('li')).toHaveLength(25);
    expect(words(margin)).toMatch(/And 2 more\.$/);
    expect(words(margin)).toContain('at the end');
    const empty = show(ProblemMargin, { problems: [], text: '', remarks: [], computedFor: '' });
    expect(words(empty)).toContain('Nothing to remark');
  });
});

describe('earlier versions', () => {
  const revision: PhraseRevision = { id: 'r', at: '2026-03-14T10:00:00Z', by: 'Mara', text: '/8 5G 7G' };
  const props = (fetch: () => Promise<readonly PhraseRevision[]>) => ({
    ...{ phraseId: 'f', text: '/8 5G 8G 9G', zone: 'Europe/Oslo', fetch },
    options: { tuning: TUNINGS.standard },
  });
  test('are compared event by event, and gone back to', async () => {
    const list = show(
      RevisionList,
      props(() => Promise.resolve([revision])),
    );
    await button(list, 'Earlier versions').trigger('click');
    await flushPromises();
    await button(list, /^until .*, Mara$/).trigger('click');
    expect(list.findAll('.steps li').map(words)).toEqual(['bar 1, beat 1: 7G became 8G', 'bar 1, beat 2: 9G came in']);
    await button(list, 'Go back to it').trigger('click');
    expect(list.emitted('goBack')).toEqual([['/8 5G 7G']]);
  });
  test('say why they cannot be fetched, and where there are none', async () => {
    const cut = show(
      RevisionList,
      props(() => Promise.reject(new Error('The line is cut.'))),
    );
    await button(cut, 'Earlier versions').trigger('click');
    await flushPromises();
    expect(words(cut.get('[role=alert]'))).toBe('The line is cut.');
    const none = show(
      RevisionList,
      props(() => Promise.resolve([])),
    );
    await button(none, 'Earlier versions').trigger('click');
    await flushPromises();
    expect(words(none)).toContain('None yet');
  });
});

test('a conflict is settled one way or the other', async () => {
  const conflict = show(SaveConflict, { text: '9G' });
  expect(words(conflict)).toContain('9G');
  await button(conflict, 'Keep mine').trigger('click');
  await button(conflict, 'Take theirs').trigger('click');
  expect(conflict.emitted('settle')).toEqual([['mine'], ['theirs']]);
});

describe('what a phrase is like', () => {
  const found = (more: object = {}) => ({
    ...{
      id: 'a',
      name: '1A Opening',
      kinship: 'moved',
      likeness: 1,
      semitones: 2,
      frets: 2,
      steps: 0,
      differences: [],
    },
    ...{ hands: null },
    ...more,
  });
  const move = { semitones: 2, strings: 0, openStays: true };

  test('is referred to only where moving it gives the very same text', async () => {
    const note = show(LikenessNote, { alike: [found()], refers: false });
    expect(words(note)).toBe('1A Opening, moved up 2 frets.Show it');
    const same = show(LikenessNote, { alike: [found({ move })], refers: false });
    expect(words(same)).toContain('moved up 2 frets. Open strings are as they were there.');
    await button(same, 'Refer to it instead').trigger('click');
    await button(same, 'Show it').trigger('click');
    expect([same.emitted('refer'), same.emitted('open')]).toEqual([[['a', move]], [['a']]]);
  });

  test('one that refers already is offered no other; two are shown at most', () => {
    const many = ['a', 'b', 'c'].map((id) => found({ id, move }));
    const note = show(LikenessNote, { alike: many, refers: true });
    expect(note.findAll('p')).toHaveLength(2);
    expect(words(note)).not.toContain('Refer');
  });
});
