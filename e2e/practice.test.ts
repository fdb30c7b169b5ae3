import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('ines', { viewport: { width: 390, height: 844 } });
});
afterAll(() => stage.close());

describe('the ledger', () => {
  test('says when a target is expected, as a range with the chance by the day it is wanted, or that it cannot', async () => {
    await page.goto('/ledger');
    await page.getByText(/Expected .* to .*, most likely about .*\. \d+ % by .*, when it is wanted\./).waitFor();
    await page.getByRole('region', { name: 'Since the last lesson' }).getByText('Answer: 67 → 73').waitFor();
    await page.getByText(/held \d+ % · playable at full speed \d+ %, at 80 %/).waitFor();
    await page.getByText('Too little to say: 2 days with a clean take, and 4 are needed.').waitFor();
    await page.goto('/practice');
  });
});

describe('today’s practice', () => {
  const today = () => page.getByRole('region', { name: 'Today’s practice' });

  test('fills the minutes there are, says why, and fits a phone', async () => {
    await today().getByText('Warm up', { exact: true }).waitFor();
    expect(await today().getByRole('listitem').first().innerText()).toContain('One finger a fret');
    await today()
      .getByText(/of 20 minutes are planned/)
      .waitFor();
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
    expect(wide).toBeLessThanOrEqual(0);
  });

  test('fewer minutes leave less, and are remembered', async () => {
    const before = await today().getByRole('listitem').count();
    await today().getByText('10 min').click();
    await today()
      .getByText(/of 10 minutes are planned/)
      .waitFor();
    expect(await today().getByRole('listitem').count()).toBeLessThan(before);
    await page.reload();
    await today()
      .getByText(/of 10 minutes are planned/)
      .waitFor();
  });

  test('a task leads to its piece, where it says what is held', async () => {
    await today().getByRole('link', { name: 'Next step' }).first().click();
    await page.getByRole('heading', { name: 'Next step' }).waitFor();
    await page.getByText(/Clean at \d+ % of the target, in (ink|pencil)/).waitFor();
  });

  test('what is held says by when it is to be played again', async () => {
    await page.goto('/practice');
    await page.getByRole('heading', { name: 'Held' }).waitFor();
    await page.getByText(/Again by/).waitFor();
  });
});
