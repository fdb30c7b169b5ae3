/** @jest-environment ./apps/web/test/pageEnvironment.mjs */
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { enableAutoUnmount } from '@vue/test-utils';
import { effectScope } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import HelpDialog from '../src/help/HelpDialog.vue';
import { keysOfPage } from '../src/help/keysOfPage.ts';
import NotFoundPage from '../src/app/NotFoundPage.vue';
import LedgerFilters from '../src/ledger/LedgerFilters.vue';
import { isForPage, lettersAct } from '../src/session/index.ts';
import { useBringIn } from '../src/songs/useBringIn.ts';
import { chartDay, DayField, FoldPart, readersCalendar, TickBox, TimeField } from '../src/ui/index.ts';
import { button, show, words } from './mounting.ts';
import { openStudio, settle } from './studio.ts';

enableAutoUnmount(afterEach);
beforeEach(() => {
  localStorage.clear();
  lettersAct.value = true;
  openStudio({});
});

describe('the order of a date', () => {
  test.each([
    ['en-GB', 'dd/mm/yy', 1],
    ['en-US', 'mm/dd/yy', 0],
    ['de-DE', 'dd.mm.yy', 1],
    ['sv-SE', 'yy-mm-dd', 1],
  ])('is that of %s', (locale, order, first) => {
    const { dateFormat, firstDayOfWeek } = readersCalendar(locale);
    expect(chartDay(locale)).toBe(order.startsWith('dd') ? '%-d %b' : '%b %-d');
    expect([dateFormat, firstDayOfWeek]).toEqual([order, first]);
  });
  test('comes with the names of days, from Sunday, and of months', () => {
    const { dayNames, dayNamesMin, monthNames, monthNamesShort } = readersCalendar('de-DE');
    expect([dayNames[0], dayNames[1], dayNames.length]).toEqual(['Sonntag', 'Montag', 7]);
    expect([dayNamesMin[0], monthNames[2], monthNamesShort[11], monthNames.length]).toEqual(['S', 'März', 'Dez', 12]);
  });
});

describe('a day', () => {
  test('is typed, and is none where nothing or nonsense is typed', async () => {
    const days: string[] = [];
    const field = show(DayField, {
      modelValue: '2026-03-14',
      label: 'Wanted by',
      'onUpdate:modelValue': (day: string) => days.push(day),
    });
    const input = field.get('input');
    expect([input.attributes('aria-label'), input.element.value]).toEqual(['Wanted by', '03/14/2026']);
    await input.setValue('04/02/2026');
    await input.setValue('the day after');
    await input.setValue('');
    expect(days).toEqual(['2026-04-02', '']);
  });
  test('has its time beside it', async () => {
    const times: string[] = [];
    const field = show(TimeField, {
      modelValue: '16:30',
      label: 'At',
      'onUpdate:modelValue': (time: string) => times.push(time),
    });
    expect(field.get('input').attributes('type')).toBe('time');
    await field.get('input').setValue('09:05');
    expect(times).toEqual(['09:05']);
  });
});

test('a box is ticked by its words', async () => {
  const said: boolean[] = [];
  const box = show(TickBox, { modelValue: false, 'onUpdate:modelValue': (on: boolean) => said.push(on) });
  const input = box.get('input');
  expect(box.get('label').attributes('for')).toBe(input.attributes('id'));
  await input.setValue(true);
  expect(said).toEqual([true]);
});

describe('a part that folds', () => {
  const open = (more: object = {}) => show(FoldPart, { name: 'strokes', title: 'Strokes', ...more });
  const isShown = (part: ReturnType<typeof open>) =>
    part.get('button').attributes('aria-expanded') === 'true' &&
    part.get(`#${part.get('button').attributes('aria-controls') ?? ''}`).isVisible();

  test('is open, is folded by its heading, and stays so when it is seen again', async () => {
    const part = open();
    expect(isShown(part)).toBe(true);
    await button(part, 'Strokes').trigger('click');
    expect(isShown(part)).toBe(false);
    await settle();
    expect(isShown(open())).toBe(false);
    expect(isShown(open({ name: 'another' }))).toBe(true);
  });
  test('may be folded until it is asked for', async () => {
    const part = open({ name: 'form', folded: true, label: 'The form of the song' });
    expect([isShown(part), part.attributes('aria-label')]).toEqual([false, 'The form of the song']);
    await button(part, 'Strokes').trigger('click');
    expect(isShown(part)).toBe(true);
  });
});

describe('keys', () => {
  const press = (key: string, more: KeyboardEventInit = {}) => new KeyboardEvent('keydown', { key, ...more });

  test.each(['desk', 'ledger', 'lesson', 'pieces', 'piece', 'sheet', 'series-report', 'song'])(
    'of “%s” are listed once each, before those of every page',
    (page) => {
      const keys = keysOfPage(page).map(([key]) => key);
      expect(keys.length).toBeGreaterThan(2);
      expect(keys.slice(-2)).toEqual(['?', '/']);
      const said = keysOfPage(page).map((line) => line.join(' '));
      expect(new Set(said).size).toBe(said.length);
    },
  );
  test('of other pages are those of every page', () => {
    expect(keysOfPage('students').map(([key]) => key)).toEqual(['?', '/']);
    expect(keysOfPage(undefined)).toHaveLength(2);
  });
  test('that are single letters can be switched off; arrows go on', async () => {
    expect([isForPage(press('c')), isForPage(press('ArrowDown'))]).toEqual([true, true]);
    show(HelpDialog, { page: 'piece', open: true });
    await settle();
    expect(document.body.textContent).toContain('Help with this page');
    expect(document.body.textContent).toContain('the whole piece');
    document.querySelector<HTMLInputElement>('[role=dialog] input[type=checkbox]')?.click();
    await settle();
    expect(lettersAct.value).toBe(false);
    expect([isForPage(press('c')), isForPage(press('?')), isForPage(press('ArrowDown'))]).toEqual([false, false, true]);
    expect(isForPage(press('ArrowDown', { altKey: true }))).toBe(false);
  });
});

test('an address where nothing stands says so, and leads on', async () => {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/:path(.*)*', name: 'none', component: NotFoundPage }],
  });
  await router.push('/songz/12');
  const page = show(NotFoundPage, {}, [router]);
  expect(words(page)).toContain('There is nothing at /songz/12');
  expect(page.get('a').attributes('href')).toBe('/');
});

test('the rows of the ledger are chosen by song, standing, kind and name', async () => {
  const none = { song: '', state: '', kind: '', words: '' } as const;
  const chosen: unknown[] = [];
  const filters = show(LedgerFilters, {
    ...{ modelValue: none, songs: [{ id: 's', title: 'Slow Tide' }], shown: 3, all: 9 },
    'onUpdate:modelValue': (filter: unknown) => chosen.push(filter),
  });
  expect(words(filters)).toContain('3 of 9 rows');
  await filters.get('input[type=search]').setValue('bend');
  await filters.findAllComponents({ name: 'Select' })[1]?.vm.$emit('update:modelValue', 'stuck');
  expect(chosen).toEqual([
    { ...none, words: 'bend' },
    { ...none, state: 'stuck' },
  ]);
});

describe('a file that is dropped on the desk', () => {
  const drop = (name: string, type: string) => {
    const event = new Event('drop', { cancelable: true });
    const dataTransfer = { types: ['Files'], files: [new File(['x'], name, { type })] };
    window.dispatchEvent(Object.assign(event, { dataTransfer }));
    return event;
  };
  test.each([
    ['take.flac', 'audio/flac', true],
    ['take.m4a', '', true],
    ['film.mp4', 'video/mp4', true],
    ['song.mid', 'audio/midi', false],
    ['song.MIDI', 'audio/x-something', false],
    ['song.musicxml', '', false],
    ['tab.txt', 'text/plain', false],
  ])('%s of type “%s” is sound: %s', (name, type, isSound) => {
    const bringSound = jest.fn<(file: File) => Promise<void>>(() => Promise.resolve());
    const scope = effectScope();
    const bringing = scope.run(() => useBringIn(bringSound));
    const event = drop(name, type);
    expect(event.defaultPrevented).toBe(true);
    expect(bringSound.mock.calls.map(([file]) => file.name)).toEqual(isSound ? [name] : []);
    expect(bringing?.isOpen.value).toBe(!isSound);
    scope.stop();
  });
});
