import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { heard, listen } from './listening.ts';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
});
afterAll(() => stage.close());

const editor = () => page.getByRole('textbox', { name: 'Fret shorthand' });
const text = async () => (await editor().locator('.cm-line').allInnerTexts()).join('\n');

/** Writes a text with the caret at its end, as if typed at once. */
async function write(words: string): Promise<void> {
  await editor().click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Backspace');
  await page.keyboard.insertText(words);
}

/** Pastes as the clipboard does, in one event. */
async function paste(words: string): Promise<void> {
  await page.evaluate((pasted) => {
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    const event = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.querySelector('.cm-content')?.dispatchEvent(event);
  }, words);
}

describe('writing fast', () => {
  test('a fret alone offers the strings, the last one first, with their notes', async () => {
    await write('/8 5G ');
    await page.keyboard.type('7');
    const first = page.getByRole('option').first();
    await first.waitFor();
    expect(await first.innerText()).toMatch(/^7G\s*D4, same string$/);
    await first.click();
    expect(await text()).toBe('/8 5G 7G');
  });

  test('brackets and quotation marks close themselves', async () => {
    await write('5G ');
    await page.keyboard.type('[ 7G');
    expect(await text()).toBe('5G [ 7G]');
  });

  test('a sign taken back leaves the rest of a long text on the page as it is', async () => {
    await write(`5D~ ${'7G~ 5D '.repeat(60)}`);
    await page.keyboard.press('Control+Home');
    for (let step = 0; step < 3; step += 1) await page.keyboard.press('ArrowRight');
    await page.evaluate(() => {
      const content = document.querySelector('.cm-content');
      const moved: MutationRecord[] = [];
      Reflect.set(window, 'movedInText', moved);
      if (content)
        new MutationObserver((records) => moved.push(...records)).observe(content, { childList: true, subtree: true });
    });
    await page.keyboard.press('Backspace');
    expect((await text()).slice(0, 8)).toBe('5D 7G~ 5');
    const moved = await page.evaluate(() => (Reflect.get(window, 'movedInText') as unknown[]).length);
    expect(moved).toBeGreaterThan(0);
    expect(moved).toBeLessThan(20);
  });

  test('typing over a selection, and undoing it, goes in one step', async () => {
    await write('5G 7G');
    await page.keyboard.press('Control+a');
    await page.keyboard.type('9');
    expect(await text()).toBe('9');
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    expect(await text()).toBe('5G 7G');
  });

  test('one key each: once more, up a fret, mute, repeat, bar line, and back again', async () => {
    await write('5D 7Gb1');
    await page.keyboard.press('Alt+r');
    expect((await text()).trim()).toBe('5D 7Gb1 7Gb1');
    await page.keyboard.press('Alt+b');
    expect((await text()).trim()).toBe('5D 7Gb1 7Gb1 |');
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Alt+.');
    expect((await text()).trim()).toBe('6D 8Gb1 8Gb1 |');
    await page.keyboard.press('Alt+,');
    await page.keyboard.press('Alt+m');
    expect((await text()).trim()).toBe('{m: 5D 7Gb1 7Gb1 } |');
    await page.keyboard.press('Alt+m');
    await page.keyboard.press('Alt+k');
    expect((await text()).trim()).toBe('[ 5D 7Gb1 7Gb1 ]2 |');
    for (let step = 0; step < 7; step += 1) await page.keyboard.press('Control+z');
    expect((await text()).trim()).toBe('5D 7Gb1');
    await page.keyboard.press('Control+a');
    for (let step = 0; step < 6; step += 1) await page.keyboard.press('Alt+,');
    await page.getByText(/would go below the open string; nothing was moved/).waitFor();
  });

  test('the neck writes where it is touched, by mouse and by key', async () => {
    await write('/8 ');
    const neck = page.getByRole('application', { name: /^Neck/ });
    await neck.focus();
    for (const key of ['ArrowDown', 'ArrowDown', 'ArrowRight', 'ArrowRight', 'Enter']) await page.keyboard.press(key);
    expect((await text()).trim()).toBe('/8 2G');
    await neck.focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Shift+Enter');
    expect((await text()).trim()).toBe('/8 2G+2D');
    await neck.click({ position: { x: 4, y: 8 } });
    expect((await text()).trim()).toMatch(/^\/8 2G\+2D\s+0e$/);
  });

  test('caret and tab find each other', async () => {
    await write('/4 5G 7B 9e 5A');
    const tab = page.getByRole('img', { name: /Tab of/ });
    await page.locator('.tab-mark-caret').waitFor();
    const mark = await page.locator('.tab-mark-caret').boundingBox();
    const box = await tab.boundingBox();
    expect(mark && box && mark.x > box.x + 100).toBe(true);
    await tab.click({ position: { x: (mark?.x ?? 0) - (box?.x ?? 0) + 5, y: 60 } });
    const selected = await page.evaluate(() => window.getSelection()?.toString());
    expect(selected).toBe('5A');
  });

  test('the next phrase is a key away, over the border of the section', async () => {
    await editor().click();
    await page.keyboard.press('Alt+ArrowDown');
    await page.locator('input[aria-label="Name of the phrase"]').waitFor();
    const name = () => page.getByLabel('Name of the phrase').inputValue();
    expect(await name()).toBe('Answer');
    await editor().click();
    await page.keyboard.press('Alt+ArrowDown');
    await page.getByRole('region', { name: 'Section 1B' }).waitFor();
    expect(await name()).toBe('Climb to the top');
    await editor().click();
    await page.keyboard.press('Alt+ArrowUp');
    await page.getByRole('region', { name: 'Section 1A' }).waitFor();
    expect(await name()).toBe('Answer');
  });

  test('steps can be undone after another phrase was on the desk', async () => {
    await write('/8 5G 7G');
    await page.keyboard.press('Alt+ArrowUp');
    await editor().click();
    await page.keyboard.press('Alt+ArrowDown');
    await editor().click();
    expect(await text()).toBe('/8 5G 7G');
    for (let step = 0; step < 3; step += 1) await page.keyboard.press('Control+z');
    expect(await text()).toBe(':D7 /8t 7Dh9p7 5G 7G 5B /4 7Gb1 5B~ | :A7 /8 8Bp5 7G s9 /2 7G~~ |');
  });
});

describe('hearing', () => {
  test('from the caret with one key, stopped with the same; the selection goes round', async () => {
    await write('/4 :Am 5G 7G 9G 5B');
    await page.keyboard.press('Home');
    await listen(page);
    await page.keyboard.press('Control+Enter');
    await page.getByRole('button', { name: /stop/i }).waitFor();
    await page.locator('.tab-mark-playing').waitFor();
    expect((await heard(page)).loudest).toBeGreaterThan(0.05);
    await page.keyboard.press('Control+Enter');
    await page.getByRole('button', { name: /^Hear it/ }).waitFor();
    await page.keyboard.press('Control+a');
    await page.keyboard.press('Control+Shift+Enter');
    await page.getByRole('button', { name: /stop/i }).waitFor();
    await page.getByRole('button', { name: 'Levels' }).click();
    await page.getByText('bass and chords').waitFor();
    await page.getByRole('button', { name: /stop/i }).click();
  });
});

describe('on the page', () => {
  test('the margin names note, degree and chord at the caret, and the scales that fit', async () => {
    await write(':A7 /8 5G 7G /4 7D6G8B ');
    const harmony = page.getByRole('region', { name: 'Harmony' });
    await harmony.getByText('♭7 of A7 (chord tone), ♭7 of the key').waitFor();
    await harmony.getByText(/Together A7: the chord above, without its 5/).waitFor();
    await harmony.getByText('Scales over A7').click();
    await harmony
      .getByText(/A mixolydian holds every chord tone; C of the phrase is outside; \d+ % of the phrase lies in it/)
      .waitFor();
  });

  test('standard notation stands above the tab where it is asked for', async () => {
    await write('/4 5G 7Gb1 /8t 9G 5B 7B | /2 5A7D xGB');
    const height = () =>
      page
        .locator('.tab-system')
        .first()
        .evaluate((element) => element.clientHeight);
    const without = await height();
    await page.getByLabel('notation').check();
    await page.locator('.tab-system svg .vf-stavenote').first().waitFor();
    expect(await height()).toBeGreaterThan(without + 50);
    await page.getByLabel('notation').uncheck();
  });

  test('the handout holds every phrase, its legend and the word about whose song it is', async () => {
    await page.getByRole('link', { name: 'Handout' }).click();
    await page.getByRole('heading', { name: 'Climb to the top' }).waitFor();
    expect(await page.locator('.paper .music svg').count()).toBeGreaterThanOrEqual(4);
    await page.getByText('hammer-on: sounded by the fretting hand alone').waitFor();
    await page.getByText(/Made for a private lesson/).waitFor();
    await page.getByRole('link', { name: 'Back to the desk' }).click();
  });
});

describe('what nobody should paste', () => {
  const planes = Array.from({ length: 17 }, (_, plane) => String.fromCodePoint(plane * 0x10000 + 0x1234)).join(' ');
  test.each([
    ['a megabyte', '5G 7G '.repeat(170_000), /Only the first 10000 items are read/],
    ['10,000 nested brackets', `5G ${'[ '.repeat(10_000)}7G`, /Brackets stand at most 24 deep/],
    ['every plane of Unicode', `5G ${planes}`, /is not a fret and string/],
    ['a repeat of a billion', '5G [ 7G ]1000000000', /A repeat is played at most/],
  ])('%s: a problem in words, a tab, nothing lost, the page alive', async (_what, pasted, words) => {
    await editor().waitFor();
    await write('');
    await paste(pasted);
    await page.getByText(words).first().waitFor();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    await page.keyboard.type(' 9B');
    await page.keyboard.press('Control+a');
    const draft = await page.evaluate(
      (start) => {
        const keys = Array.from({ length: localStorage.length }, (_, index) => localStorage.key(index) ?? '');
        return keys.some((key) => localStorage.getItem(key)?.includes(start));
      },
      pasted.slice(0, 1000),
    );
    expect(draft || (await text()).startsWith(pasted.slice(0, 20))).toBe(true);
    await write('/8 5G');
    expect(await text()).toBe('/8 5G');
  });
});

test('while the editor does not come, text and tab stand there and can be written, and it is asked for again', async () => {
  await editor().waitFor();
  await write('/8 5G 7G');
  await page.getByText('saved', { exact: true }).waitFor();
  const code = '**/assets/editor-*.js';
  await page.route(code, (route) => route.abort());
  await page.reload();
  await page.getByText('The editor could not be loaded').waitFor();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  // It can be written all the same.
  await page.keyboard.press('Alt+n');
  await page.getByText('The tab appears here as you type.').waitFor();
  await page.keyboard.type('/8 5B');
  await page.getByText('saved', { exact: true }).waitFor();
  await page.unroute(code);
  await page.getByRole('button', { name: 'Try again' }).click();
  await page.locator('.cm-content').waitFor();
  expect([await text(), await page.locator('.editor textarea').count()]).toEqual(['/8 5B', 0]);
});

test('the code of a song is asked for as soon as its address is known, before any has run', async () => {
  const storageState = await page.context().storageState();
  const context = await stage.browser.newContext({ baseURL: stage.url, serviceWorkers: 'block', storageState });
  const fresh = await context.newPage();
  const asked: string[] = [];
  fresh.on('request', (request) => asked.push(request.url()));
  await fresh.route(/\/assets\/index-/, (route) => route.abort());
  const song = fresh.waitForRequest(/\/assets\/SongDeskPage-/);
  await fresh.goto(new URL(page.url()).pathname);
  await song;
  asked.length = 0;
  await fresh.goto('/songs', { waitUntil: 'load' });
  expect(asked.filter((url) => url.includes('SongDeskPage'))).toEqual([]);
  await context.close();
});
