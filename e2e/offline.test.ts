import { appendFile, cp, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openPiece, openStage, type Stage } from './stage.ts';

let stage: Stage;
let pages: string;
beforeAll(async () => {
  pages = await mkdtemp(join(tmpdir(), 'jam-ledger-pages-'));
  await cp('apps/web/dist', pages, { recursive: true });
  stage = await openStage([], pages);
});
afterAll(async () => {
  await stage.close();
  await rm(pages, { recursive: true });
});

const PHONE = { viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' } as const;
const isCut = (page: Page) => page.getByText('The studio cannot be reached; this is how it stood last.');

/** Whose answers lie on the device, and of which addresses. */
function kept(page: Page): Promise<readonly string[]> {
  return page.evaluate(async () => {
    const opening = indexedDB.open('jam-ledger');
    await new Promise((done) => opening.addEventListener('success', done));
    const keys = opening.result.transaction('answers').objectStore('answers').getAllKeys();
    await new Promise((done) => keys.addEventListener('success', done));
    opening.result.close();
    return keys.result.map(String);
  });
}

/** The student’s phone, once everything of theirs lies on it. */
async function phone(): Promise<Page> {
  const page = await stage.enter('ines', PHONE);
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  // How a series goes is asked for last.
  while (!(await kept(page)).some((key) => key.endsWith('/report'))) await page.waitForTimeout(100);
  return page;
}

test('every page of a student opens and is opened anew without a line, and what was never opened too', async () => {
  const page = await phone();
  await page.context().setOffline(true);
  for (const [path, heading] of [
    ['/', 'Practice'],
    ['/ledger', 'Ledger'],
    ['/requests', 'What you asked for'],
    ['/home', 'Lessons'],
    ['/account', 'Ines Harrowmere'],
  ] as const) {
    await page.goto(path);
    await page.getByRole('heading', { name: heading, level: 1 }).waitFor();
    await isCut(page).waitFor();
  }
  await openPiece(page);
  await page.reload();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  await page.getByRole('link', { name: 'bend and timing drills' }).click();
  await page.getByRole('heading', { name: 'Drills for Answer' }).waitFor();
  await page.goBack();
  await page.getByRole('link', { name: 'handout of the song' }).click();
  await page.getByRole('heading', { name: 'Slow Tide' }).first().waitFor();
  await page.context().close();
}, 90_000);

test('a result and a note wait without a line, outlive the page, and are sent once it is back', async () => {
  const page = await phone();
  await openPiece(page);
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'One step on' }).click();
  await page.getByLabel(/^Note to the teacher/).fill('Which finger here?');
  await page.getByRole('button', { name: 'Pin it' }).click();
  await page.getByText('Your note is kept on this device until the studio can be reached.').waitFor();
  await page.getByRole('button', { name: 'Not yet', exact: true }).click();
  await page.getByText('2 things wait').waitFor();
  await page.reload();
  await page.getByText('waits to be sent').waitFor();
  // Signing out would lose them, and asks.
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByText('2 things that you did').waitFor();
  await page.getByRole('button', { name: 'Stay signed in' }).click();
  await page.context().setOffline(false);
  await page.getByText('2 things wait').waitFor({ state: 'detached' });
  await page.reload();
  await page.getByText('Which finger here?').waitFor();
  expect(await page.getByText('waits to be sent').count()).toBe(0);
  await page.context().close();
}, 90_000);

test('signing out leaves nothing of anybody on the device', async () => {
  const page = await phone();
  expect((await kept(page)).length).toBeGreaterThan(8);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('Password').waitFor();
  expect(await kept(page)).toEqual([]);
  const caches = await page.evaluate(async () => {
    const names = await window.caches.keys();
    const all = await Promise.all(names.map(async (name) => (await window.caches.open(name)).keys()));
    return all.flat().map(({ url }) => new URL(url).pathname);
  });
  expect(caches.length).toBeGreaterThan(100);
  expect(caches.filter((path) => path.startsWith('/api'))).toEqual([]);
  await page.context().close();
}, 90_000);

test('a new version asks before it is loaded, and what was typed is still there', async () => {
  const page = await phone();
  await page.goto('/requests');
  await page.getByLabel('Song', { exact: true }).fill('Half a slip');
  await appendFile(join(pages, 'sw.js'), '\n// a newer version\n');
  await page.evaluate(async () => void (await (await navigator.serviceWorker.getRegistration())?.update()));
  await page.getByText('There is a new version of Jam Ledger.').waitFor();
  expect(await page.getByLabel('Song', { exact: true }).inputValue()).toBe('Half a slip');
  const loaded = page.waitForEvent('load');
  await page.getByRole('button', { name: 'Load it' }).click();
  await loaded;
  await page.getByRole('heading', { name: 'What you asked for' }).waitFor();
  expect(await page.getByLabel('Song', { exact: true }).inputValue()).toBe('Half a slip');
  await page.context().close();
}, 90_000);
