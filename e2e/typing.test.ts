import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { openStage, type Stage } from './stage.ts';

let stage: Stage;
beforeAll(async () => void (stage = await openStage()));
afterAll(() => stage.close());

/** Opens a phrase of the demo studio on the song desk. */
async function openPhrase(page: Page, song: RegExp, phrase: string): Promise<void> {
  await page.goto('/songs');
  await page.getByRole('link', { name: song }).click();
  await page.getByRole('button', { name: phrase }).first().click();
  await page.locator('[data-ready="true"] svg').first().waitFor();
}

const editorOf = (page: Page) => page.getByRole('textbox', { name: 'Fret shorthand' });
const textOf = async (page: Page) => (await editorOf(page).locator('.cm-line').allInnerTexts()).join('\n');
const barsOf = (page: Page) => page.getByRole('img', { name: /Tab of/ }).getAttribute('aria-label');
const isSaved = (page: Page) => page.getByText('saved', { exact: true }).waitFor();

async function retype(page: Page, text: string): Promise<void> {
  await editorOf(page).click();
  await page.keyboard.press('Control+a');
  await page.keyboard.insertText(text);
}

describe('typing', () => {
  test('a broken line keeps every character and the tab that could be drawn', async () => {
    const page = await stage.enter('mara');
    await openPhrase(page, /Copper Kettle/, 'Kettle riff');
    const broken = '/8 5A %%% [ 7D {m: 5A 99G | 12yy "no end';
    await retype(page, broken);
    await page.getByText('These words have no closing quotation mark.').waitFor();
    expect(await textOf(page)).toBe(broken);
    expect(await barsOf(page)).toMatch(/Tab of (one bar|2 bars)/);
    await isSaved(page);
    await page.reload();
    await page.locator('[data-ready="true"] svg').first().waitFor();
    expect(await textOf(page)).toBe(broken);
    await page.getByRole('button', { name: 'Close the quotation' }).click();
    expect(await textOf(page)).toBe(`${broken}"`);
    await page.keyboard.press('Control+z');
    expect(await textOf(page)).toBe(broken);
  });

  test('what is typed without a connection is kept, and saved when it returns', async () => {
    const page = await stage.enter('mara');
    await openPhrase(page, /Slow Tide/, 'Answer');
    await page.context().setOffline(true);
    await retype(page, '/4 5G 7G 5B 8B');
    await page.getByText(/kept in this browser and tried again/).waitFor();
    await page.context().setOffline(false);
    await isSaved(page);
    const again = await stage.enter('mara');
    await openPhrase(again, /Slow Tide/, 'Answer');
    expect(await textOf(again)).toBe('/4 5G 7G 5B 8B');
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe('Answer');
  });

  test('of two windows at one phrase neither overwrites the other unasked', async () => {
    const first = await stage.enter('mara');
    const second = await stage.enter('odile');
    for (const page of [first, second]) await openPhrase(page, /Slow Tide/, 'Opening bend');
    await retype(first, '/4 5G');
    await isSaved(first);
    await retype(second, '/4 9G');
    const other = second.getByRole('alert').filter({ hasText: 'changed elsewhere' });
    expect(await other.locator('pre').innerText()).toBe('/4 5G');
    expect(await textOf(second)).toBe('/4 9G');
    await second.getByRole('button', { name: 'Keep mine' }).click();
    await isSaved(second);
  });

  test('a paste of 100 KB is refused in words and stays in the editor', async () => {
    const page = await stage.enter('mara');
    await openPhrase(page, /Lanterns/, 'Rocking boat');
    await retype(page, '7G '.repeat(34_000));
    await page.getByText('This is too long: at most 65536 characters.').waitFor();
    await retype(page, '/8 7G 5G');
    await isSaved(page);
    expect(await barsOf(page)).toBe('Tab of one bar');
  });

  test('an entry, a phrase and a section are struck out and put back', async () => {
    const page = await stage.enter('mara');
    await openPhrase(page, /Copper Kettle/, 'Kettle riff');
    await page.getByRole('button', { name: 'Strike out Kettle riff' }).click();
    await page.getByText('No phrase yet.', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'Strike out Kettle riff' }).waitFor();
  });
});

describe('who may go where', () => {
  test('a student who opens a teacher’s page is led home, and a stranger to the door', async () => {
    const page = await stage.enter('pia');
    await page.goto('/songs');
    await page.getByRole('heading', { name: 'Practice' }).waitFor();
    await page.getByRole('button', { name: 'Sign out' }).click();
    await page.getByRole('button', { name: 'Sign in' }).waitFor();
    await page.goto('/ledger');
    await page.getByRole('button', { name: 'Sign in' }).waitFor();
    await page.getByLabel('Name').fill('pia');
    await page.getByLabel('Password').fill('wrong');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await page.getByText('This name and password do not belong together.').waitFor();
  });
});
