/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { enableAutoUnmount, mount } from '@vue/test-utils';
import { defineComponent, h, nextTick, ref, withDirectives } from 'vue';
import NoticeBar from '../src/app/NoticeBar.vue';
import { useKeptFocus } from '../src/app/useKeptFocus.ts';
import PartsChoice from '../src/requests/PartsChoice.vue';
import { useNotices } from '../src/session/index.ts';
import WaysOn from '../src/songs/phrase/WaysOn.vue';
import { LineButton, PlainTable, vFirstField, type TableColumn } from '../src/ui/index.ts';
import { button, show, words } from './mounting.ts';
import { openStudio, settle } from './studio.ts';

enableAutoUnmount(afterEach);
beforeEach(() => void openStudio({}));

describe('what is said at the foot of the page', () => {
  test('stands in a region that is there before, and goes when it is dismissed', async () => {
    const bar = show(NoticeBar, {});
    const region = bar.get('[role=status]');
    expect(words(region)).toBe('');
    useNotices().say('“Slow Tide” is withdrawn.');
    await settle();
    expect(words(bar)).toBe('“Slow Tide” is withdrawn.');
    // It announces once: the message does not do so beside its region.
    expect(bar.findAll('[role=alert]')).toHaveLength(0);
    await button(bar, 'Dismiss').trigger('click');
    expect(useNotices().notice).toBeNull();
    useNotices().say('The same again.');
    await settle();
    expect(words(bar)).toBe('The same again.');
  });
  test('has the way back beside it', async () => {
    const undone: string[] = [];
    const bar = show(NoticeBar, {});
    useNotices().say('Done.', () => void undone.push('undone'));
    await settle();
    await button(bar, 'Undo').trigger('click');
    expect([undone, useNotices().notice]).toEqual([['undone'], null]);
  });
});

test('an act that takes longer than half a second says that it is going on', async () => {
  jest.useFakeTimers();
  const bar = show(NoticeBar, {});
  const goesOn = () => bar.findAll('[role=progressbar]').length;
  let finish = () => {};
  const told = useNotices().tell(() => new Promise((done) => (finish = done)));
  await jest.advanceTimersByTimeAsync(400);
  expect(goesOn()).toBe(0);
  await jest.advanceTimersByTimeAsync(200);
  expect(goesOn()).toBe(1);
  finish();
  await told;
  await nextTick();
  expect(goesOn()).toBe(0);
  jest.useRealTimers();
});

describe('ways on from the text', () => {
  const span = { from: 3, to: 5 };
  const remark = { severity: 'error', code: 'legato', message: 'A pull-off goes to a lower fret.', span } as const;
  const fix = { title: 'Hammer it: h9', span, text: 'h9' };
  test('are the first fix that is certain, a new phrase, and assigning it', async () => {
    const ways = show(WaysOn, { problems: [remark, { ...remark, fix }], student: 'Ines' });
    expect(ways.findAll('button').map((one) => one.text())).toEqual([
      'Hammer it: h9',
      'Say it',
      'New phrase',
      'Assign to Ines',
    ]);
    for (const name of ['Fix the first remark: Hammer it: h9', 'New phrase', 'Assign to Ines'])
      await button(ways, name).trigger('click');
    expect(ways.emitted()).toMatchObject({ fix: [[fix]], addPhrase: [[]], assign: [[]] });
  });
  test('are less where nothing is wrong and the phrase is given', () => {
    const ways = show(WaysOn, { problems: [remark], student: undefined });
    expect(ways.findAll('button').map((one) => one.text())).toEqual(['Say it', 'New phrase']);
  });
});

test('a line that is a button says and does what it is given', async () => {
  let pressed = 0;
  const page = mount(() => h(LineButton, { link: true, onClick: () => (pressed += 1) }, () => 'Show it'));
  const line = page.get('button');
  await line.trigger('click');
  expect([line.text(), line.attributes('type'), line.classes(), pressed]).toEqual([
    'Show it',
    'button',
    expect.arrayContaining(['line-button', 'link']),
    1,
  ]);
});

describe('a table of facts', () => {
  interface Fact {
    readonly name: string;
    readonly bpm: number | null;
  }
  const columns: readonly TableColumn<Fact>[] = [
    { head: 'Piece', says: ({ name }) => name, aside: () => 'Slow Tide' },
    { head: 'In lessons', says: ({ bpm }) => bpm ?? '–', look: 'ink' },
  ];
  test('names its rows by their first cell', () => {
    const rows: readonly Fact[] = [
      { name: 'Opening bend', bpm: 84 },
      { name: 'Answer', bpm: null },
    ];
    const table = show(PlainTable, { rows, columns, label: 'The ledger' });
    expect(table.get('table').attributes('aria-label')).toBe('The ledger');
    expect(table.findAll('[role=columnheader]').map((one) => one.text())).toEqual(['Piece', 'In lessons']);
    expect(table.findAll('[role=rowheader]').map((one) => words({ text: () => one.text() }))).toEqual([
      'Opening bend Slow Tide',
      'Answer Slow Tide',
    ]);
    expect(table.findAll('[role=cell]').map((one) => one.text())).toEqual(['84', '–']);
  });
});

test('a part that is wanted is not also not wanted', async () => {
  const said: Record<string, readonly string[]> = {};
  const parts = show(PartsChoice, {
    wanted: ['the solo'],
    notWanted: [],
    wantedProblem: undefined,
    notWantedProblem: undefined,
    'onUpdate:wanted': (now: readonly string[]) => (said['wanted'] = now),
    'onUpdate:notWanted': (now: readonly string[]) => (said['notWanted'] = now),
  });
  expect(parts.findAll('[role=rowheader]').map((one) => one.text())).toContain('the solo');
  await parts.get('input[aria-label="the solo: not in"]').setValue(true);
  expect(said).toEqual({ wanted: [], notWanted: ['the solo'] });
});

describe('the keyboard of what an act takes away', () => {
  const list = () =>
    defineComponent(() => {
      const page = ref<HTMLElement | null>(null);
      const lines = ref(['one', 'two', 'three']);
      useKeptFocus(page);
      return () =>
        h('main', { ref: page, tabindex: -1 }, [
          h('h1', 'Lines'),
          h(
            'ul',
            lines.value.map((name) =>
              h('li', { key: name }, [
                h('button', { onClick: () => (lines.value = lines.value.filter((one) => one !== name)) }, name),
              ]),
            ),
          ),
        ]);
    });
  const focused = () => document.activeElement?.textContent;

  test('goes to what stands in its place, and to the page after the last', async () => {
    const shown = mount(list(), { attachTo: document.body });
    const strike = async (name: string) => {
      const line = shown.findAll('button').find((one) => one.text() === name);
      line?.element.focus();
      await line?.trigger('click');
      await new Promise((done) => setTimeout(done, 60));
    };
    await strike('two');
    expect(focused()).toBe('three');
    await strike('three');
    expect(focused()).toBe('one');
    await strike('one');
    expect(document.activeElement?.tagName).toBe('MAIN');
  });
});

describe('the keyboard of a form', () => {
  const page = () =>
    defineComponent(() => {
      const isOpen = ref(false);
      return () =>
        isOpen.value
          ? withDirectives(
              h('form', [h('input', { type: 'text' }), h('button', { type: 'button', onClick: close }, 'Cancel')]),
              [[vFirstField]],
            )
          : h('button', { key: 'opener', onClick: () => (isOpen.value = true) }, 'Add a person');
      function close(): void {
        isOpen.value = false;
      }
    });
  test('is in its first field, and goes back to what opened it', async () => {
    const shown = mount(page(), { attachTo: document.body });
    const press = async (name: string) => {
      const pressed = shown.findAll('button').find((one) => one.text() === name);
      pressed?.element.focus();
      await pressed?.trigger('click');
      await nextTick();
    };
    await press('Add a person');
    expect(document.activeElement?.tagName).toBe('INPUT');
    await press('Cancel');
    // The button is another one by now; it is called the same.
    expect(document.activeElement?.textContent).toBe('Add a person');
  });
});
