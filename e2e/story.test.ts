import { afterAll, beforeAll, describe, expect } from '@jest/globals';
import type { Page } from 'playwright-core';
import { asTyped, openStage, type Stage } from './stage.ts';
import { stepsOf } from './steps.ts';
import { heard, listen } from './listening.ts';

let stage: Stage;
let ferris: Page;
let mara: Page;
beforeAll(async () => {
  stage = await openStage();
  ferris = await stage.enter('ferris', { timezoneId: 'Pacific/Auckland' });
  mara = await stage.enter('mara');
});
afterAll(() => stage.close());
const step = stepsOf('story', () => [ferris, mara]);

/** A day so many days from now, as a date field takes it. */
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

describe('from the asking to the progress line', () => {
  step('the student asks for a song', async () => {
    await ferris.getByRole('link', { name: 'Requests' }).click();
    await ferris.getByRole('button', { name: 'Send the request' }).click();
    await ferris.getByText('This must not be empty.').waitFor();
    await ferris.getByText('Name at least one.').waitFor();
    await ferris.getByLabel('Song', { exact: true }).fill('Harbour Bell Blues');
    await ferris.getByLabel('Artist').fill('The Low Tiders');
    await ferris.getByLabel('Another part, in your words').fill('the riff at 0:36');
    await ferris.getByRole('button', { name: 'Add', exact: true }).click();
    await ferris.getByLabel('solo: not in').check();
    await ferris.getByLabel('Your guitar').fill('21 frets');
    await ferris.getByLabel('Wanted by').fill(asTyped(inDays(-3)));
    await ferris.getByLabel('Remarks').fill('slowly, please');
    await ferris.getByRole('button', { name: 'Send the request' }).click();
    await ferris.getByText('This day has passed; choose today or later.').waitFor();
    expect(await ferris.getByLabel('Remarks').inputValue()).toBe('slowly, please');
    await ferris.getByLabel('Wanted by').fill(asTyped(inDays(30)));
    await ferris.getByRole('button', { name: 'Send the request' }).click();
    await ferris.getByRole('heading', { name: /Harbour Bell Blues/ }).waitFor();
    expect(await ferris.getByText('slowly, please').count()).toBe(1);
  });

  step('the teacher agrees on the scope, begins the work and sets the song up', async () => {
    await mara.getByRole('link', { name: 'Requests' }).click();
    const slip = mara.getByRole('listitem').filter({ hasText: 'Harbour Bell Blues' });
    await slip.getByRole('button', { name: 'Agree on the scope' }).click();
    const scope = slip.getByLabel('The scope, in one sentence');
    expect(await scope.inputValue()).toBe('The riff at 0:36, as recorded; without solo.');
    await scope.fill('The riff at 0:36 only, as recorded.');
    await slip.getByRole('button', { name: 'Agreed', exact: true }).click();
    await slip.getByText('The riff at 0:36 only, as recorded.').first().waitFor();
    await ferris.reload();
    await ferris.getByText('The riff at 0:36 only, as recorded.').first().waitFor();
    await slip.getByRole('button', { name: 'Begin the work' }).click();
    await mara.getByRole('form', { name: 'Set-up' }).waitFor();
    await mara.getByRole('combobox', { name: 'Tuning' }).click();
    await mara.getByRole('option', { name: 'drop D' }).click();
    await mara.getByRole('textbox', { name: 'Key', exact: true }).fill('D');
    await mara.getByRole('spinbutton', { name: 'Tempo' }).fill('900');
    await mara.getByLabel('Meter').fill('4/5');
    await mara.getByLabel('Frets').fill('21');
    await mara.getByRole('button', { name: 'Save the set-up' }).click();
    await mara.getByText('This is not a meter such as 4/4 or 6/8.').waitFor();
    await mara.getByLabel('Meter').fill('4/4');
    await mara.getByRole('spinbutton', { name: 'Tempo' }).fill('112');
    await mara.getByRole('button', { name: 'Save the set-up' }).click();
    await mara.getByText('drop D · capo none · D · 112 bpm · 4/4 · 21 frets').waitFor();
  });

  step('adds a section with its start against the clock', async () => {
    const form = mara.getByRole('form', { name: 'Section' });
    await form.getByLabel('Starts at').fill('a while in');
    await form.getByRole('button', { name: 'Add it' }).click();
    await form.getByText('Write a time such as 1:09, or nothing.').waitFor();
    await form.getByLabel('Starts at').fill('0:36');
    await form.getByLabel('Bars').fill('8');
    await form.getByRole('button', { name: 'Add it' }).click();
    await mara.getByText('from 0:36, 8 bars').waitFor();
  });

  step('types a phrase, sees it engraved and every problem in the margin', async () => {
    await mara.getByRole('button', { name: 'Add a phrase' }).click();
    const editor = mara.getByRole('textbox', { name: 'Fret shorthand' });
    await editor.click();
    await editor.pressSequentially('/8 0E 3E h5 5A7D 10 7Gb1r | - _ p5');
    const margin = mara.getByRole('region', { name: 'Problems in the text' });
    await margin.getByText('Fret 10 has no string').waitFor();
    await margin.getByText('A pull-off needs a note right before it').waitFor();
    await mara.locator('[data-ready="true"] svg').first().waitFor();
    expect(await mara.getByRole('img', { name: /Tab of/ }).getAttribute('aria-label')).toBe('Tab of 2 bars');
    await editor.press('Control+a');
    await editor.pressSequentially('/8 0E 3E h5 5A7D 5D 7Gb1r 5G 7D~ | /4 7D s5 /2 0EAD |');
    await mara.getByText('Nothing to remark; it reads as typed.').waitFor();
    await mara.getByText('saved', { exact: true }).waitFor();
  });

  step('assigns it and sees the rungs', async () => {
    const form = mara.getByRole('form', { name: 'Assign as a practice piece' });
    await form.getByLabel('Start').fill('76');
    await form.getByLabel('Target').fill('60');
    await form.getByRole('button', { name: 'Assign it' }).click();
    await form.getByText('The start tempo must not be above the target.').waitFor();
    await form.getByLabel('Target').fill('112');
    await form.getByLabel('Target').blur();
    const rungs = await form.getByRole('list', { name: /Rungs/ }).getByRole('button').allInnerTexts();
    expect(rungs.map((text) => parseInt(text, 10))).toEqual([112, 105, 98, 92, 86, 81, 76]);
    await form.getByRole('button', { name: 'Assign it' }).click();
    await mara.getByText('Nothing is posted yet; begin slowly at 76.').waitFor();
  });

  step('the student hears it at a rung, counted in, with the click', async () => {
    await listen(ferris);
    await ferris.getByRole('link', { name: 'Practice' }).click();
    await ferris.getByRole('link', { name: /Phrase 1/ }).click();
    await ferris.locator('[data-ready="true"] svg').first().waitFor();
    await ferris.getByRole('button', { name: /^86/ }).click();
    // Looked for in the page before it begins: neither lasts long.
    await Promise.all([
      ferris.getByRole('button', { name: 'Counting in… stop' }).waitFor(),
      ferris.locator('.tab-mark-playing').waitFor(),
      ferris.getByRole('button', { name: 'Hear it at 86' }).click(),
    ]);
    expect((await heard(ferris)).loudest).toBeGreaterThan(0.05);
    await ferris.getByRole('button', { name: 'Stop' }).click();
    await ferris.getByRole('button', { name: 'Hear it at 86' }).waitFor();
  });

  step('and posts two results in pencil', async () => {
    await ferris.getByLabel('Played at').fill('84');
    await ferris.getByLabel('Played at').blur();
    await ferris.getByRole('button', { name: 'Clean', exact: true }).click();
    await ferris.getByText('84, clean is posted in pencil.').waitFor();
    await ferris.getByLabel('Played at').fill('92');
    await ferris.getByLabel('Played at').blur();
    await ferris.keyboard.press('n');
    await ferris.getByText('92, not yet is posted in pencil.').waitFor();
  });

  step('the teacher hears it in a lesson and posts in ink', async () => {
    await mara.getByRole('link', { name: 'Lesson' }).click();
    await mara.getByRole('combobox', { name: 'Student' }).click();
    await mara.getByRole('option', { name: 'Ferris Oldegard' }).click();
    await mara.getByRole('heading', { name: /Phrase 1/ }).waitFor();
    await mara.getByLabel('Played at').fill('90');
    await mara.getByLabel('Played at').blur();
    await mara.getByRole('button', { name: 'Clean, in ink' }).click();
    await mara.getByText('90, clean is posted in ink.').waitFor();
  });

  step('both see the row: tempo, pencil and ink, share of the target, next step and why', async () => {
    await ferris.getByRole('link', { name: 'Ledger', exact: true }).click();
    await mara.getByRole('link', { name: 'Ledger', exact: true }).click();
    // The lesson page, which she comes from, has a box of this name too.
    await mara.getByRole('heading', { name: 'Ledger', exact: true }).waitFor();
    await mara.getByRole('combobox', { name: 'Student' }).click();
    await mara.getByRole('option', { name: 'Ferris Oldegard' }).click();
    for (const page of [ferris, mara]) {
      const row = page.getByRole('row').filter({ hasText: 'Phrase 1' });
      await row.getByText('80 %').waitFor();
      expect(await row.getByRole('gridcell').first().innerText()).toMatch(/^90\s*clean, ink$/);
      await row.getByText('up · 92').waitFor();
      await row.getByRole('button', { name: 'Phrase 1' }).click();
      await page.getByText('90 was clean in a lesson; go up to 92.').waitFor();
      const lines = page.getByRole('region', { name: 'Phrase 1' }).getByRole('listitem');
      expect((await lines.allInnerTexts()).map((text) => text.split('\n')[0]?.trim())).toEqual([
        expect.stringMatching(/^90, clean/),
        expect.stringMatching(/^92, not yet/),
        expect.stringMatching(/^84, clean/),
      ]);
    }
  });
});
