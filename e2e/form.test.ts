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
});
afterAll(() => stage.close());

describe('the form', () => {
  test('says where clock, bars and phrases do not agree, mends it, and takes that back', async () => {
    const margin = page.getByRole('list', { name: 'What does not agree in the form' });
    expect(await margin.count()).toBe(0);
    await page.getByRole('button', { name: 'Change section' }).click();
    const form = page.getByRole('form', { name: 'Section' });
    await form.getByLabel('Bars').fill('12');
    await form.getByRole('button', { name: 'Keep it' }).click();
    await margin.getByText('From 1A to 1B are 11.4 s (± 1 s), but 12 bars at 84 bpm take 34.3 s').waitFor();
    await margin.getByText('The phrases of 1A fill 4 of its 12 bars.').waitFor();
    await margin.getByRole('button', { name: 'Make it 4 bars' }).click();
    await page.getByText('1A now has 4 bars.').waitFor();
    expect(await margin.count()).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await margin.getByText('The phrases of 1A fill 4 of its 12 bars.').waitFor();
    await margin.getByRole('button', { name: 'Make it 4 bars' }).click();
    await margin.waitFor({ state: 'detached' });
  });

  test('a tempo is tapped, with its uncertainty, and used', async () => {
    await page.getByRole('button', { name: 'Set up' }).click();
    const tap = page.getByRole('button', { name: 'Tap', exact: true });
    await tap.focus();
    for (let beat = 0; beat < 8; beat += 1) {
      await page.keyboard.press('Space');
      // The taps themselves are what is timed here, not something awaited.
      await new Promise((done) => setTimeout(done, 500));
    }
    await page.getByText(/bpm, between/).waitFor();
    await page.getByRole('button', { name: 'Use it' }).click();
    const tempo = Number(await page.getByLabel('Tempo').inputValue());
    expect(tempo).toBeGreaterThan(60);
    expect(tempo).toBeLessThan(125);
    await page.getByRole('button', { name: 'Leave it' }).click();
  });

  test('a phrase that is an earlier one, moved, is told while it is typed', async () => {
    await page.getByRole('button', { name: /^1B/ }).click();
    await page.getByRole('button', { name: 'Last word' }).first().click();
    const editor = page.getByRole('textbox', { name: 'Fret shorthand' });
    await editor.click();
    await page.keyboard.press('Control+a');
    await page.keyboard.insertText(':A7 /8 7G 9Gb1r 7G 9D /4 9D~ - | /8 7B 10Bb1 7e 10Bb.5r /4 7B~ - |');
    await page.getByText('1A Opening bend, moved up 2 frets.').waitFor();
    await page.getByRole('button', { name: 'Show it' }).click();
    await page.getByRole('region', { name: 'Section 1A' }).waitFor();
    expect(await page.getByLabel('Name of the phrase').inputValue()).toBe('Opening bend');
  });
});
