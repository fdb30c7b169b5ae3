import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { demoSignIns } from '../apps/server/src/demo/people.ts';
import { openStage, settled, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

/** From any place of a page to where one needs to be it is no further than so many steps of Tab. */
const NEAR = 12;

/** What has the keyboard: what it is called, or what is written on it. */
function focused(page: Page): Promise<string> {
  return page.evaluate(() => {
    const here = document.activeElement;
    if (!(here instanceof HTMLElement)) return '';
    const by = here.getAttribute('aria-labelledby');
    const label = by ? document.getElementById(by)?.textContent : (here as HTMLInputElement).labels?.[0]?.textContent;
    return (here.getAttribute('aria-label') ?? label ?? here.textContent).replace(/\s+/g, ' ').trim();
  });
}

/** Goes on by Tab until something has the keyboard; how many it took. @throws where it is not reached in so many */
async function tabTo(page: Page, name: RegExp, most = 60): Promise<number> {
  const passed: string[] = [];
  for (let count = 1; count <= most; count += 1) {
    await page.keyboard.press('Tab');
    passed.push(await focused(page));
    if (name.test(passed.at(-1) ?? '')) return count;
  }
  throw new Error(`${String(name)} is not among ${passed.join(' · ')}`);
}

/** A window at the sign-in page, entered by keyboard alone. */
async function enterByKeys(who: string): Promise<Page> {
  const context = await stage.browser.newContext({
    baseURL: stage.url,
    locale: 'en-GB',
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
  });
  const page = await context.newPage();
  await page.goto('/');
  await page.getByLabel('Name').waitFor();
  await page.waitForFunction(() => document.activeElement instanceof HTMLInputElement);
  await page.keyboard.type(who);
  await tabTo(page, /^Password$/, 2);
  await page.keyboard.type(demoSignIns.find(({ signInName }) => signInName === who)?.password ?? '');
  await page.keyboard.press('Enter');
  await page.getByRole('banner').waitFor();
  await settled(page);
  return page;
}

describe('by keyboard alone', () => {
  test('a student opens a piece, hears it, posts a result, and finds it in the ledger', async () => {
    const page = await enterByKeys('ines');
    await tabTo(page, /^Opening bend into Answer/);
    await page.keyboard.press('Enter');
    await page.locator('[data-ready="true"] svg').first().waitFor();
    // The keyboard came along to the page.
    expect(await page.evaluate(() => document.activeElement?.id)).toBe('page');
    await page.keyboard.press('ArrowRight');
    await page.getByRole('status').filter({ hasText: 'bar 1' }).first().waitFor();
    await page.keyboard.press('n');
    await page.getByText(/not yet is posted in pencil/).waitFor();
    await page.keyboard.press('Shift+Tab');
    await page.evaluate(() => document.body.focus());
    await tabTo(page, /^Ledger/);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Ledger', level: 1 }).waitFor();
    await page.context().close();
  }, 60_000);

  test('a guardian reads how a series goes, and the ledger of their child', async () => {
    const page = await enterByKeys('signe');
    await tabTo(page, /^How “Songs to sing” goes$/, NEAR);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'How it grew' }).waitFor();
    await page.evaluate(() => document.querySelector<HTMLElement>('.skip')?.focus());
    await tabTo(page, /^Ledger$/, NEAR);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Ledger', level: 1 }).waitFor();
    await tabTo(page, /^Rocking boat/, 2 * NEAR);
    await page.keyboard.press('Enter');
    await page.getByRole('region', { name: 'Rocking boat' }).waitFor();
    await page.context().close();
  }, 60_000);

  test('an owner enters somebody, and the help of the page opens and closes', async () => {
    const page = await enterByKeys('odile');
    await tabTo(page, /^Studio$/);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Studio', level: 1 }).waitFor();
    await settled(page);
    await page.keyboard.press('?');
    await page.getByRole('dialog', { name: 'Help with this page' }).waitFor();
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await tabTo(page, /^Add a person$/);
    await page.keyboard.press('Enter');
    // The form has the keyboard at once.
    await page.getByRole('form', { name: 'Add a person' }).waitFor();
    expect(await page.evaluate(() => document.activeElement?.closest('form') !== null)).toBe(true);
    if (!/^Name$/.test(await focused(page))) await tabTo(page, /^Name$/, 12);
    await page.keyboard.type('Nell Quayside');
    await page.keyboard.press('Enter');
    await page.getByText('Nell Quayside').first().waitFor();
    await page.context().close();
  }, 60_000);
});

describe('a teacher by keyboard alone', () => {
  let page: Page;
  beforeAll(async () => void (page = await enterByKeys('mara')));
  afterAll(() => page.context().close());
  const isIn = (selector: string) =>
    page.waitForFunction((one) => document.activeElement?.matches(one) === true, selector);

  test('goes from the desk to a song, and into its text with one key', async () => {
    await tabTo(page, /^Songs$/);
    await page.keyboard.press('Enter');
    await page.getByRole('heading', { name: 'Songs', level: 1 }).waitFor();
    await page.getByRole('link', { name: /^Slow Tide/ }).waitFor();
    await tabTo(page, /^Slow Tide/, NEAR);
    await page.keyboard.press('Enter');
    await page.locator('[data-ready="true"] svg').first().waitFor();
    await page.keyboard.press('Alt+j');
    await isIn('.cm-content');
  });

  test('mends the first remark from the text, and goes on in the text', async () => {
    await page.keyboard.press('Control+End');
    await page.keyboard.type(' 5G p9', { delay: 20 });
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: /^Fix the first remark/ }).waitFor();
    expect(await tabTo(page, /^Fix the first remark/, NEAR)).toBeLessThanOrEqual(NEAR);
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelector('.cm-content')?.textContent.endsWith('5G h9'));
    await isIn('.cm-content');
  });

  test('begins a phrase from the text, types it, assigns it, and adds the next', async () => {
    expect(await tabTo(page, /^New phrase$/, NEAR)).toBeLessThanOrEqual(NEAR);
    await page.keyboard.press('Enter');
    await page.getByText('The tab appears here as you type.').waitFor();
    await isIn('.cm-content');
    await page.keyboard.type(':Am /8 5G 7G 5B 7B', { delay: 20 });
    await page.keyboard.press('Escape');
    await page.getByRole('status').filter({ hasText: 'saved' }).first().waitFor();
    expect(await tabTo(page, /^Assign to Ines$/, NEAR)).toBeLessThanOrEqual(NEAR);
    await page.keyboard.press('Enter');
    await isIn('form.assign input');
    await page.keyboard.press('Enter');
    await page.getByText(/is assigned to Ines Harrowmere/).waitFor();
    await page.keyboard.press('Alt+n');
    await page.getByText('The tab appears here as you type.').waitFor();
    await isIn('.cm-content');
  });

  test('opens the set-up, leaves it, and has the keyboard where it was', async () => {
    await page.evaluate(() => document.getElementById('page')?.focus());
    await tabTo(page, /^Set up/, 2 * NEAR);
    await page.keyboard.press('Enter');
    await page.getByRole('form', { name: 'Set-up' }).waitFor();
    await isIn('form *');
    await page.getByRole('form', { name: 'Set-up' }).getByRole('button', { name: 'Cancel' }).focus();
    await page.keyboard.press('Enter');
    await page.getByRole('form', { name: 'Set-up' }).waitFor({ state: 'detached' });
    expect(await focused(page)).toMatch(/^Set up/);
  });

  test('posts an entry in a lesson', async () => {
    await page.goto('/lesson');
    await page.getByRole('combobox', { name: 'Student' }).waitFor();
    await tabTo(page, /^Student$|^Ines Harrowmere/, 2 * NEAR);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.type('Ines');
    await page.keyboard.press('Enter');
    await page.getByRole('region', { name: 'Hearing list' }).waitFor();
    await page.keyboard.press('Escape');
    await page.evaluate(() => document.getElementById('page')?.focus());
    await page.keyboard.press('c');
    await page.getByText(/clean is posted in ink/).waitFor();
  });
});

test('nothing moves where the device asks for calm', async () => {
  const page = await stage.enter('mara', { reducedMotion: 'reduce' });
  await page.keyboard.press('?');
  await page.getByRole('dialog', { name: 'Help with this page' }).waitFor();
  expect(await page.evaluate(() => document.getAnimations().length)).toBe(0);
  await page.context().close();
});

describe('the first steps', () => {
  const guide = (page: Page) => page.getByRole('region', { name: 'First steps' });

  test('lead a student through their own pages', async () => {
    const page = await stage.enter('ines', { viewport: { width: 390, height: 844 } });
    await guide(page).getByRole('button', { name: 'Take them' }).click();
    await guide(page).getByText('1 of 5').waitFor();
    await page
      .getByRole('link', { name: /^Opening bend into Answer/ })
      .first()
      .click();
    await guide(page).getByText('2 of 5').waitFor();
    await page.getByRole('button', { name: /^Hear it/ }).click();
    await guide(page).getByText('3 of 5').waitFor();
    await page.getByRole('button', { name: 'One step on' }).click();
    await guide(page).getByText('4 of 5').waitFor();
    await page.getByRole('button', { name: 'Not yet', exact: true }).click();
    await guide(page).getByText('5 of 5').waitFor();
    await page.getByRole('link', { name: /^Ledger/ }).click();
    await guide(page).waitFor({ state: 'detached' });
    await page.goto('/practice');
    await settled(page);
    expect(await guide(page).count()).toBe(0);
    await page.context().close();
  }, 60_000);

  test('of the shorthand are lines to try; a remark leads to its rule', async () => {
    const page = await stage.enter('mara');
    await page.getByRole('button', { name: 'Help' }).click();
    await page.getByRole('link', { name: 'The shorthand in five minutes' }).click();
    const line = page.getByLabel('Your line');
    await line.fill('7G 6B');
    expect(await page.getByRole('button', { name: 'Next' }).isDisabled()).toBe(true);
    await line.fill('7G 5B');
    await page.getByText('That is it. Press Enter for the next.').waitFor();
    await line.press('Enter');
    await page.getByRole('heading', { name: '2 of 7: How long' }).waitFor();
    await page.goto('/songs');
    await page.getByRole('link', { name: /Slow Tide/ }).click();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    await page.locator('.cm-content').first().click();
    await page.keyboard.press('Control+End');
    await page.keyboard.type(' 5G p9', { delay: 20 });
    const opening = page.waitForEvent('popup');
    await page.getByRole('link', { name: 'The rule' }).first().click();
    const rules = await opening;
    await rules.locator('.asked').getByText('A pull-off goes to a lower fret.').waitFor();
    await page.context().close();
  }, 60_000);
});
