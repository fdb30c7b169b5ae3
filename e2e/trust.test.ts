import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page, Route } from 'playwright-core';
import { listen } from './listening.ts';
import { openPiece, openStage, signIn, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

const editorOf = (page: Page) => page.getByRole('textbox', { name: 'Fret shorthand' });
const textOf = async (page: Page) => (await editorOf(page).locator('.cm-line').allInnerTexts()).join('\n');

async function openSong(page: Page): Promise<void> {
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
}

async function empty(page: Page): Promise<void> {
  await editorOf(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Backspace');
}

describe('Enter in the shorthand editor', () => {
  let page: Page;
  beforeAll(async () => {
    page = await stage.enter('mara');
    await openSong(page);
  });
  afterAll(() => page.context().close());

  test.each([30, 120, 250])('breaks the line, at %d ms a key', async (delay) => {
    await empty(page);
    await page.keyboard.type(':Am /8 5A 7A :Em /8\n5D 7D', { delay });
    await page.keyboard.press('Escape');
    expect(await textOf(page)).toBe(':Am /8 5A 7A :Em /8\n5D 7D');
  });

  test.each(['h', 'm', '5', '/', '{'])('after “%s” with the list open takes nothing of it', async (typed) => {
    await empty(page);
    await page.keyboard.type(`5G ${typed}`, { delay: 60 });
    await page.getByRole('listbox').waitFor();
    await page.keyboard.press('Enter');
    // A brace closes itself; what stands before the line break is what was typed.
    expect((await textOf(page)).split('\n')[0]).toBe(`5G ${typed}`);
  });

  test('takes what an arrow key chose; Tab takes the first that is offered; Escape closes the list', async () => {
    await empty(page);
    await page.keyboard.type('5G 7', { delay: 60 });
    await page.getByRole('listbox').waitFor();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    expect(await textOf(page)).toBe('5G 7B');
    await page.keyboard.type(' 9', { delay: 60 });
    await page.getByRole('listbox').waitFor();
    await page.keyboard.press('Tab');
    expect(await textOf(page)).toBe('5G 7B 9B');
    await page.keyboard.type(' 8', { delay: 60 });
    await page.getByRole('listbox').waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('listbox').waitFor({ state: 'detached' });
    expect(await textOf(page)).toBe('5G 7B 9B 8');
  });
});

describe('a draft that was kept in the browser', () => {
  test('is never saved over what somebody else typed meanwhile, after a reload neither', async () => {
    const mara = await stage.enter('mara');
    const odile = await stage.enter('odile');
    await openSong(mara);
    await openSong(odile);
    await empty(mara);
    await mara.keyboard.type('/4 5G', { delay: 20 });
    await mara.getByText('saved', { exact: true }).waitFor();
    await odile.reload();
    await odile.locator('[data-ready="true"] svg').first().waitFor();
    // Mara goes on without a connection; Odile saves; Mara’s page is loaded anew with the line back.
    await mara.context().setOffline(true);
    await mara.keyboard.type(' 7G', { delay: 20 });
    await mara.getByText(/kept in this browser and tried again/).waitFor();
    await empty(odile);
    await odile.keyboard.type('/4 9B 9B', { delay: 20 });
    await odile.getByText('saved', { exact: true }).waitFor();
    await mara.context().setOffline(false);
    for (const _ of ['at once', 'after another reload']) {
      await mara.reload();
      const conflict = mara.getByRole('alert').filter({ hasText: 'changed elsewhere' });
      await conflict.getByText('/4 9B 9B').waitFor();
      expect(await textOf(mara)).toBe('/4 5G 7G');
    }
    await odile.reload();
    await odile.locator('[data-ready="true"] svg').first().waitFor();
    expect(await textOf(odile)).toBe('/4 9B 9B');
    // What is chosen then is what holds, here and after another reload.
    await mara.getByRole('button', { name: 'Keep mine' }).click();
    await mara.getByText('saved', { exact: true }).waitFor();
    await mara.reload();
    await mara.locator('[data-ready="true"] svg').first().waitFor();
    expect([await textOf(mara), await mara.getByRole('button', { name: 'Keep mine' }).count()]).toEqual([
      '/4 5G 7G',
      0,
    ]);
    await mara.context().close();
    await odile.context().close();
  });
});

describe('a page that is opened while the studio cannot be reached', () => {
  test.each([
    ['the line is cut', (page: Page) => page.route('**/api/session', (route) => route.abort())],
    [
      'a proxy answers',
      (page: Page) =>
        page.route('**/api/session', (route) =>
          route.fulfill({ status: 500, contentType: 'text/html', body: '<h1>500</h1>' }),
        ),
    ],
  ] as const)('says why, and opens by itself: %s', async (_name, cut) => {
    const context = await stage.browser.newContext({ baseURL: stage.url });
    const page = await context.newPage();
    await cut(page);
    await page.goto('/practice');
    await page.getByRole('heading', { name: 'Jam Ledger cannot open yet' }).waitFor();
    await page.getByText('The studio cannot be reached just now.').waitFor();
    await page.unroute('**/api/session');
    // No key is pressed: it tries by itself.
    await page.getByRole('button', { name: 'Sign in' }).waitFor();
    await signIn(page, 'ines');
    await page.getByRole('region', { name: 'Today’s practice' }).waitFor();
    await context.close();
  });

  test('tells an old tab to load anew, once its pages are gone', async () => {
    const page = await stage.enter('mara');
    await page.route('**/assets/LicksPage-*', (route) => route.fulfill({ status: 404, body: '{}' }));
    await page.getByRole('link', { name: 'Licks' }).click();
    await page.getByText('Jam Ledger was renewed since this page was opened.').waitFor();
    await page.unroute('**/assets/LicksPage-*');
    await page.getByRole('button', { name: 'Load it anew' }).click();
    await page.getByRole('navigation').waitFor();
    expect((await page.request.get('/assets/x.js')).status()).toBe(404);
    await page.context().close();
  });

  test('opens a page after all whose code was lost on its way, or asks where it is lost again', async () => {
    const page = await stage.enter('mara');
    const code = '**/assets/LicksPage-*';
    let comes = false;
    // What looks for the code where it did not come is no script.
    await page.route(code, (route) => {
      if (route.request().resourceType() === 'fetch') comes = true;
      return comes ? route.continue() : route.abort();
    });
    await page.getByRole('link', { name: 'Licks' }).click();
    await page.getByRole('heading', { name: 'Licks', exact: true }).waitFor();
    expect(comes).toBe(true);
    await page.unroute(code);
    await page.goto('/songs');
    // A page that could not be reached is not opened by code of something else that is lost later.
    await page.route(code, (route) => route.abort());
    await page.getByRole('link', { name: 'Licks' }).click();
    await page.getByText('This page could not be loaded, since the studio cannot be reached.').waitFor();
    await page.unroute(code);
    const help = '**/assets/HelpDialog-*';
    const lostAsScript = (route: Route) =>
      route.request().resourceType() === 'fetch' ? route.continue() : route.abort();
    await page.route(help, lostAsScript);
    const looked = page.waitForResponse(help);
    await page.getByRole('button', { name: 'Help' }).click();
    await looked;
    const licks = page.getByRole('heading', { name: 'Licks', exact: true });
    await expect(licks.waitFor({ timeout: 1000 })).rejects.toThrow('Timeout');
    await page.route(code, lostAsScript);
    await page.getByRole('link', { name: 'Licks' }).click();
    await page.getByText('This page could not be loaded.', { exact: true }).waitFor();
    await page.unroute(code);
    await page.getByRole('button', { name: 'Load it anew' }).click();
    await licks.waitFor();
    await page.context().close();
  });
});

test('a large page asks for what it shows once, and before all else', async () => {
  const page = await stage.enter('mara');
  await page.goto('/songs');
  await page.getByRole('link', { name: /Copper Kettle/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  const shown = new URL(page.url()).pathname.replace('/songs', '/api/transcriptions');
  const asked: string[] = [];
  page.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await page.reload();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  const answers = asked.filter((path) => path.startsWith('/api/'));
  expect(answers.slice(0, 2)).toEqual(['/api/session', shown]);
  expect(answers.filter((path) => path === shown || path === '/api/session')).toHaveLength(2);
  await page.context().close();
});

test('the sound that met a lost line says so, and sounds when the line is back', async () => {
  const page = await stage.enter('ines');
  await openPiece(page);
  await page.route('**/sound.worker*', (route) => route.abort());
  const hear = page.getByRole('button', { name: /^Hear it at/ });
  await hear.click();
  await page.getByText('The sound could not be loaded, since the studio cannot be reached.').waitFor();
  await page.unroute('**/sound.worker*');
  await listen(page);
  await hear.click();
  await page.waitForFunction(() => Reflect.get(window, 'heardSound').loudest > 0.01);
  await page.context().close();
});

test('a loop of one beat moves no ladder, and stands as what it is', async () => {
  const page = await stage.enter('ines');
  await openPiece(page);
  const step = () => page.locator('.margin [role=status]').first().innerText();
  const before = await step();
  await page.getByRole('button', { name: 'One step on' }).click();
  await page.getByRole('button', { name: 'from here' }).click();
  await page.getByRole('button', { name: 'to here' }).click();
  await page.getByRole('spinbutton', { name: 'Played at' }).fill('140');
  await page.getByRole('button', { name: 'Clean', exact: true }).click();
  await page.getByText(/140, clean is posted in pencil, as a loop/).waitFor();
  await page.getByText('140 (a loop), clean').waitFor();
  await page.getByText(/bar 1, beat 1; does not move the ladder/).waitFor();
  expect(await step()).toBe(before);
  await page.context().close();
});
