import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openPiece, openStage, settled, signIn, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

const NOBODY = '00000000-0000-4000-8000-000000000000';

describe('an address that nothing has', () => {
  test.each([
    ['mara', `/songs/${NOBODY}`],
    ['mara', '/songs/xyz/pieces'],
    ['mara', `/ledger/${NOBODY}`],
    ['mara', `/lesson/${NOBODY}`],
    ['mara', '/series/xyz/report'],
    ['mara', '/no/such/page'],
    ['ines', `/practice/${NOBODY}`],
    ['ines', '/practice/xyz/drills'],
    ['ines', `/songs/${NOBODY}/sheet`],
  ])('is told %s at %s, with a way on', async (who, path) => {
    const page = await stage.enter(who);
    await page.goto(path);
    await page.getByRole('heading', { name: /^There is (nothing here|no such page)$/ }).waitFor();
    await page.getByRole('link', { name: who === 'mara' ? 'To the desk' : 'Go to your first page' }).click();
    await page.getByRole('heading', { name: who === 'mara' ? 'Desk' : 'Practice', level: 1 }).waitFor();
    expect(await page.getByRole('heading', { name: /^There is/ }).count()).toBe(0);
    await page.context().close();
  });
});

test('on a good day nothing is logged as an error, from the first visit on', async () => {
  const logged: string[] = [];
  const context = await stage.browser.newContext({ baseURL: stage.url });
  const page = await context.newPage();
  page.on('console', (message) => {
    if (['error', 'warning'].includes(message.type())) logged.push(message.text());
  });
  page.on('pageerror', (error) => logged.push(error.message));
  await page.goto('/');
  await signIn(page, 'mara');
  for (const path of ['/desk', '/requests', '/songs', '/licks', '/lesson', '/ledger', '/series', '/students']) {
    await page.goto(path);
    await settled(page);
  }
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await settled(page);
  expect(logged).toEqual([]);
  await context.close();
}, 60_000);

describe('a session that has ended', () => {
  test('is mended in place: what was typed stands, what was sent goes on', async () => {
    const page = await stage.enter('mara');
    await page.goto('/licks');
    await page.getByRole('button', { name: 'Add a lick' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Found on a tram');
    await page.getByLabel('How it goes').fill('/8 5G 7G');
    await page.context().clearCookies();
    await page.getByRole('button', { name: 'Save the lick' }).click();
    const dialog = page.getByRole('dialog', { name: 'Sign in again' });
    await dialog.getByLabel('Password').fill('wrong');
    await dialog.getByRole('button', { name: 'Sign in' }).click();
    await dialog.getByRole('alert').waitFor();
    await dialog.getByLabel('Password').fill('ink-and-paper');
    await page.keyboard.press('Enter');
    await page.waitForURL(/\/songs\/.*phrase=/);
    await page.locator('[data-ready="true"] svg').first().waitFor();
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe('Found on a tram');
    await page.context().close();
  }, 30_000);

  test('that is not mended now refuses, and loses nothing that was typed', async () => {
    const page = await stage.enter('mara');
    await page.goto('/songs');
    await page.getByRole('button', { name: 'Begin a song' }).click();
    await page.getByLabel('Song', { exact: true }).fill('Half a song');
    await page.context().clearCookies();
    await page.goto('/songs');
    await page.getByLabel('Password').fill('ink-and-paper');
    await page.getByLabel('Name').fill('mara');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByRole('heading', { name: 'Songs', level: 1 }).waitFor();
    await page.getByRole('button', { name: 'Begin a song' }).click();
    expect(await page.getByLabel('Song', { exact: true }).inputValue()).toBe('Half a song');
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('button', { name: 'Begin a song' }).click();
    expect(await page.getByLabel('Song', { exact: true }).inputValue()).toBe('');
    await page.context().close();
  }, 30_000);
});

describe('a page that is loaded anew', () => {
  const title = (page: Page, part: RegExp) =>
    page.waitForFunction((text) => new RegExp(text).test(document.title), part.source);

  test('keeps the section and the phrase on the desk, and says where one is', async () => {
    const page = await stage.enter('mara');
    await page.goto('/songs');
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    await page
      .getByRole('button', { name: /^Answer/ })
      .first()
      .click();
    await page.waitForURL(/phrase=/);
    const open = await page.getByLabel('Name of the phrase').inputValue();
    await page.reload();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe(open);
    await title(page, /^(\(\d+\) )?Song · Slow Tide at Crannoch Steps · Jam Ledger$/);
    await page.context().close();
  }, 30_000);

  test('keeps where it was scrolled to, and opens another at its top', async () => {
    const page = await stage.enter('mara', { viewport: { width: 800, height: 420 } });
    await page.goto('/requests');
    await settled(page);
    await page.evaluate(() => window.scrollTo(0, 200));
    await page.reload();
    await page.waitForFunction(() => window.scrollY === 200);
    await page.getByRole('link', { name: 'Songs', exact: true }).click();
    await page.getByRole('heading', { name: 'Songs', level: 1 }).waitFor();
    await page.waitForFunction(() => window.scrollY === 0);
    await page.goBack();
    await page.waitForFunction(() => window.scrollY === 200);
    await page.context().close();
  }, 30_000);

  test('keeps the clock of the lesson running', async () => {
    const page = await stage.enter('mara');
    await page.goto('/lesson');
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await page.waitForTimeout(1500);
    await page.reload();
    await page.getByRole('button', { name: 'Pause', exact: true }).waitFor();
    await page.goto('/desk');
    await page.goto('/lesson');
    await page.getByRole('button', { name: 'Pause', exact: true }).waitFor();
    expect(await page.getByText(/^0:0[2-9]$/).count()).toBe(1);
    await page.context().close();
  }, 30_000);

  test('says which piece it is', async () => {
    const page = await stage.enter('ines');
    await openPiece(page);
    await title(page, /^(\(\d+\) )?Practice · Answer · Jam Ledger$/);
    await page.context().close();
  });
});
