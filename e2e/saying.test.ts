import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
let page: Page;
beforeAll(async () => {
  stage = await openStage();
  page = await stage.enter('mara');
  await page.goto('/songs');
  await page.getByRole('link', { name: /Slow Tide/ }).click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
  await page.keyboard.press('Alt+n');
  await page.getByText('The tab appears here as you type.').waitFor();
});
afterAll(() => stage.close());

const line = () => page.getByLabel('What you would say');
const saying = () => page.getByRole('region', { name: 'Say it', exact: true });
const text = () => page.locator('.cm-content').first().innerText();

describe('the line that takes down what is said', () => {
  test('shows the notes as the words come, and asks what is not sure', async () => {
    await page.keyboard.press('Alt+y');
    await line().pressSequentially('nine on the third string, bend it up a whole step and let it down, then 7 on the E');
    await saying().getByText('9Gb1r 7e').waitFor();
    await saying().locator('[data-ready="true"] svg').first().waitFor();
    await saying().getByText('Which E was not said; the high one is taken.').waitFor();
    await saying().getByRole('button', { name: 'low E' }).click();
    await saying().getByText('9Gb1r 7E').waitFor();
    expect(await line().inputValue()).toMatch(/7 on the low E$/);
  });

  test('a press takes them over, and undo takes them back', async () => {
    await line().press('Enter');
    await page.getByText('What you said is written.').waitFor();
    expect(await text()).toBe('/? 9Gb1r 7E');
    expect(await line().inputValue()).toBe('');
    await page.getByRole('button', { name: 'Undo' }).first().click();
    await page.waitForFunction(() => document.querySelector('.cm-content')?.textContent.includes('9G') !== true);
  });

  test('what was meant is known the next time, until it is to be asked again', async () => {
    await line().fill('3 on the E');
    await saying().getByText('3E', { exact: true }).waitFor();
    expect(await saying().getByText('Which E was not said').count()).toBe(0);
    await saying().getByRole('button', { name: 'Ask me again' }).click();
    await saying().getByText(/^Which E was not said/).waitFor();
    await line().press('Escape');
    await saying().waitFor({ state: 'detached' });
    expect(await page.evaluate(() => document.activeElement?.classList.contains('cm-content'))).toBe(true);
  });
});
