import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Locator, Page } from 'playwright-core';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara', { viewport: { width: 390, height: 844 }, hasTouch: true });
});
afterAll(() => stage.close());

/** A finger goes down in the middle of something, moves, and is lifted. Pixels of the window. */
async function drag(from: Locator, by: { readonly x: number; readonly y: number }): Promise<void> {
  const box = await from.boundingBox();
  if (!box) throw new Error('what is to be dragged is not in sight');
  const touch = await page.context().newCDPSession(page);
  const start = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  await touch.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [start] });
  for (let step = 1; step <= 10; step += 1) {
    const point = { x: start.x + (by.x * step) / 10, y: start.y + (by.y * step) / 10 };
    await touch.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [point] });
  }
  await touch.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await touch.detach();
}

async function openSong(): Promise<void> {
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
}

describe('by finger', () => {
  test('a piece is moved on its number; elsewhere on it the page scrolls', async () => {
    await openSong();
    await page.getByRole('link', { name: 'Pieces', exact: true }).click();
    const rows = page.getByRole('listbox').getByRole('option');
    await rows.first().waitFor();
    await settled(page);
    const names = async () =>
      (await rows.allInnerTexts()).map((text) => text.split('\n').find((line) => /[a-z]/.test(line)) ?? '');
    const [first = '', second = '', third = '', ...others] = await names();
    await rows.nth(2).scrollIntoViewIfNeeded();
    await page.evaluate(() => window.scrollBy(0, 120));
    const [to, from] = [await rows.nth(0).boundingBox(), await rows.nth(2).boundingBox()];
    if (!to || !from) throw new Error('the rows are not in sight');
    await drag(rows.nth(2).locator('.number'), { x: 0, y: to.y + 3 - (from.y + from.height / 2) });
    await page.getByRole('status').filter({ hasText: 'Saved.' }).waitFor();
    expect(await names()).toEqual([third, first, second, ...others]);
    const before = await page.evaluate(() => window.scrollY);
    await drag(rows.nth(1), { x: 0, y: -150 });
    await page.waitForFunction((was) => window.scrollY > was, before);
    expect((await names())[0]).toBe(third);
  });

  test('a section is moved along the form', async () => {
    await openSong();
    const fold = page.getByRole('button', { name: 'Form and recording' });
    if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
    const block = page.locator('.form-strip .block').nth(1);
    const left = async () => (await block.boundingBox())?.x ?? 0;
    await block.scrollIntoViewIfNeeded();
    const before = await left();
    await drag(block.locator('.edge'), { x: 30, y: 0 });
    await page.getByRole('button', { name: 'Undo' }).first().waitFor();
    expect(await left()).toBeGreaterThan(before + 10);
  });
});
